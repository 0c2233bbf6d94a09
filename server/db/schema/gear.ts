import type { Generated } from 'kysely'
import type { Call } from '../../../core/shoot/day'
import type { RawKept } from '../../../core/copies/rule'
import type { MediaKind } from '../../../core/shoot/gear'
import type { CameraKind, RecordingMode } from '../../../core/shoot/mode'
import type { Away, Given, Json, Now } from './columns'

/** The gear book, what is planned with it, and what came of it. */
export interface GearTables {
  client: {
    id: Generated<string>
    name: string
    ruleId: Given<string | null>
    raw: Given<RawKept>
    putAwayAt: Away
    createdAt: Now
  }
  clearRule: {
    id: Generated<string>
    name: string
    copies: number
    devices: number
    media: number
    sites: number
    played: number
    cardOut: boolean
    atDesk: boolean
    proofHours: number
    acceptMemory: boolean
    shipped: Given<boolean>
    putAwayAt: Away
    createdAt: Now
  }
  camera: {
    id: Generated<string>
    name: string
    kind: Given<CameraKind>
    media: Given<MediaKind>
    internalBytes: Given<number>
    slots: Given<1 | 2>
    /** A take goes on on the next card. */
    spans: Given<boolean>
    batteryMinutes: Given<number>
    putAwayAt: Away
    createdAt: Now
  }
  recordingMode: {
    id: Generated<string>
    cameraId: string
    name: string
    figures: Json<Omit<RecordingMode, 'id' | 'name'>>
    putAwayAt: Away
    createdAt: Now
  }
  card: {
    id: Generated<string>
    name: string
    capacityBytes: number
    /** Sustained write at least. */
    bytesPerSecond: Given<number>
    putAwayAt: Away
    createdAt: Now
  }
  /** A plan is changed as a whole; its version tells whether somebody else has changed it meanwhile. */
  plan: { productionId: string; version: Given<number> }
  plannedTakes: {
    productionId: string
    place: number
    cameraId: string
    modeId: string
    secondsPerTake: number
    takes: number
    angles: number
    factor: number
  }
  plannedCamera: {
    productionId: string
    place: number
    cameraId: string
    bothSlots: boolean
    cardBytes: number
    cardBytesPerSecond: number
  }
  plannedCard: { productionId: string; cardId: string; cameraId: string; place: number }
  shot: {
    id: Generated<string>
    productionId: string
    /** Its place in the list, from 0. */
    place: number
    name: string
    cameraId: string | null
    deliverables: Json<string[]>
    notes: Given<string>
    filmedAt: Date | null
    createdAt: Now
  }
  daySheet: { productionId: string; place: Given<string>; calls: Json<Call[]> }
  /** What clips of one frame size, rate and codec of a load came to; without a load it is known from the records. */
  recorded: {
    id: Generated<string>
    productionId: string
    loadId: string | null
    cameraId: string | null
    label: string
    widthPx: number
    heightPx: number
    rate: string
    codec: string
    clips: number
    sizeBytes: number
    seconds: number
    at: Now
  }
  /** A card that was emptied: what it held, how long that took, and what raw frames became. */
  offload: {
    id: Generated<string>
    productionId: string
    loadId: string | null
    cameraId: string | null
    label: string
    sizeBytes: number
    seconds: number | null
    exportedBytes: number | null
    at: Now
  }
}
