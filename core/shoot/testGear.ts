import { frameRate } from '../units/frameRate'
import type { Camera, CardState, GearCard } from './gear'
import type { RecordingMode } from './mode'
import type { PlannedCards, PlannedTakes } from './plan'

/** A mode of UHD at 25 that records so many megabits a second. */
export const coded = (id: string, megabits: number, more: Partial<RecordingMode> = {}): RecordingMode => ({
  id,
  name: id,
  picture: {
    ...{ widthPx: 3840, heightPx: 2160, rate: frameRate(25), codec: 'H.264', bitDepth: 8, chroma: '4:2:0' as const },
    coding: { kind: 'coded', bitsPerSecond: megabits * 1e6 },
  },
  audioBitsPerSecond: 0,
  proxyBitsPerSecond: 0,
  measuredBitsPerSecond: undefined,
  ...more,
})

/** A camera with one slot that goes on on the next card. */
export const camera = (id: string, modes: readonly RecordingMode[], more: Partial<Camera> = {}): Camera => ({
  ...{
    id,
    name: id,
    kind: 'camera',
    media: 'cards',
    internalBytes: 0,
    slots: 1,
    spans: true,
    batteryMinutes: 0,
    modes,
  },
  ...more,
})

/** A card of so many gigabytes and megabytes a second. */
export const card = (id: string, gigabytes: number, megabytes: number, state: CardState = 'empty'): GearCard => ({
  ...{ id, name: id, capacityBytes: gigabytes * 1e9, bytesPerSecond: megabytes * 1e6, state },
})

/** So many takes of so many seconds. */
export const takes = (
  cameraId: string,
  modeId: string,
  seconds: number,
  count: number,
  more: Partial<PlannedTakes> = {},
): PlannedTakes => ({
  ...{ cameraId, modeId, secondsPerTake: seconds, takes: count, angles: 1, factor: 1 },
  ...more,
})

/** Cards of a camera; while some are missing it is planned with 128 GB. */
export const on = (cameraId: string, ...cardIds: string[]): PlannedCards => ({
  ...{ cameraId, bothSlots: false, cardBytes: 128e9, cardBytesPerSecond: 60e6, cardIds },
})
