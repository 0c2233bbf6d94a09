import type { FrameRate } from '../units/frameRate'

/** What one camera will record on a production. */
export interface RecordingPlan {
  readonly camera: string
  readonly widthPx: number
  readonly heightPx: number
  readonly rate: FrameRate
  readonly videoBitsPerSecond: number
  readonly audioBitsPerSecond: number
  readonly secondsPerTake: number
  readonly takes: number
  readonly cardBytes: number
  /** The card's guaranteed sustained write; video speed class V30 is 30 000 000 (SD Association speed classes). */
  readonly cardBytesPerSecond: number
  /** No card is planned fuller than this share, 0–1. */
  readonly fillLimit: number
}

export interface RecordingBudget {
  readonly seconds: number
  readonly sizeBytes: number
  readonly cards: number
  /** Length that fits on one card up to the fill limit. */
  readonly secondsPerCard: number
  readonly streamBytesPerSecond: number
  readonly sustained: boolean
  /** The slowest video speed class that sustains the stream, or `undefined` above V90. */
  readonly neededClass: SpeedClass | undefined
  readonly shutter: Shutter
}

export type SpeedClass = 'V6' | 'V10' | 'V30' | 'V60' | 'V90'

/** Minimum sustained write in bytes per second. Source: SD Association, video speed classes. */
export const SPEED_CLASSES: readonly { name: SpeedClass; bytesPerSecond: number }[] = [
  { name: 'V6', bytesPerSecond: 6e6 },
  { name: 'V10', bytesPerSecond: 10e6 },
  { name: 'V30', bytesPerSecond: 30e6 },
  { name: 'V60', bytesPerSecond: 60e6 },
  { name: 'V90', bytesPerSecond: 90e6 },
]

/** Recorded bytes: `recordingBytes(100e6, 3600)` is 45 000 000 000 (45.0 GB). Rounded up to a whole byte. */
export const recordingBytes = (bitsPerSecond: number, seconds: number): number =>
  Math.ceil((bitsPerSecond * seconds) / 8)

/** Seconds that fit: `recordingSeconds(128e9, 100e6)` is 10 240 s (2 h 50 min 40 s). */
export const recordingSeconds = (bytes: number, bitsPerSecond: number): number => (bytes * 8) / bitsPerSecond

/** The slowest video speed class that carries a stream: 600 Mb/s is 75 MB/s and needs V90. */
export const neededSpeedClass = (bitsPerSecond: number): SpeedClass | undefined =>
  SPEED_CLASSES.find((one) => one.bytesPerSecond >= bitsPerSecond / 8)?.name

export interface Shutter {
  /** Denominator of the exact 180° shutter, 1/(2 × rate). */
  readonly exact: number
  /** Denominator of the nearest stop that cameras offer. */
  readonly stop: number
}

/** Common practice, no source: the shutter denominators that most cameras offer near a 180° shutter. */
const SHUTTER_STOPS = [25, 30, 50, 60, 100, 125, 200, 250, 500, 1000]

/** Half-frame exposure for natural motion: 25 frames give 1/50, 24 give 1/48 and the stop 1/50. */
export function shutterFor(rate: FrameRate): Shutter {
  const exact = (2 * rate.num) / rate.den
  const distance = (stop: number) => Math.abs(Math.log(stop / exact))
  return { exact, stop: SHUTTER_STOPS.reduce((best, stop) => (distance(stop) < distance(best) ? stop : best)) }
}

/** Bytes, cards, speed class and shutter of one camera's plan. */
export function recordingBudget(plan: RecordingPlan): RecordingBudget {
  const bitsPerSecond = plan.videoBitsPerSecond + plan.audioBitsPerSecond
  const seconds = plan.secondsPerTake * plan.takes
  const sizeBytes = recordingBytes(bitsPerSecond, seconds)
  const usableBytes = plan.cardBytes * plan.fillLimit
  return {
    seconds,
    sizeBytes,
    cards: Math.ceil(sizeBytes / usableBytes),
    secondsPerCard: recordingSeconds(usableBytes, bitsPerSecond),
    streamBytesPerSecond: bitsPerSecond / 8,
    sustained: bitsPerSecond / 8 <= plan.cardBytesPerSecond,
    neededClass: neededSpeedClass(bitsPerSecond),
    shutter: shutterFor(plan.rate),
  }
}
