import type { ColumnType, Generated } from 'kysely'
import type { CropWindow } from '../../core/exports/reframe'
import type { BlackBars } from '../../core/exports/check'
import type { Probe } from '../../core/media/probe'
import type { ByteClass } from '../../core/storage/budget'
import type { TaskKind, TaskProgress, TaskState } from '../../contract/tasks'
import type { VolumeKind } from '../../contract/storage'
import type { Fault } from '../bench/faults'

type Now = ColumnType<Date, Date | undefined, Date>
type Json<T extends object> = ColumnType<T, string, string>
type JsonOrNull<T extends object> = ColumnType<T | null, string | null | undefined, string | null>

export interface Database {
  setting: { key: string; value: Json<object> }
  production: { id: Generated<string>; title: string; client: string; shootOn: string | null; createdAt: Now }
  cameraPlan: {
    id: Generated<string>
    productionId: string
    camera: string
    widthPx: number
    heightPx: number
    rate: string
    videoBitsPerSecond: number
    audioBitsPerSecond: number
    secondsPerTake: number
    takes: number
    cardBytes: number
    cardBytesPerSecond: number
    fillLimit: number
    createdAt: Now
  }
  volume: {
    id: string
    name: string
    kind: VolumeKind
    site: string
    rootPath: string | null
    simulated: boolean
    capacityBytes: number
    host: string
    createdAt: Now
  }
  reader: {
    id: Generated<string>
    name: string
    rootPath: string | null
    simulated: boolean
    host: string
    createdAt: Now
  }
  benchDevice: {
    id: string
    role: 'reader' | 'volume'
    capacityBytes: number
    readBytesPerSecond: number
    writeBytesPerSecond: number
    plugged: boolean
    fault: JsonOrNull<Fault>
    card: string | null
    insertedAt: Date | null
  }
  benchCard: { name: string; folder: string; story: string }
  load: {
    id: Generated<string>
    productionId: string
    readerId: string | null
    label: string
    scannedAt: Now
    fileCount: number
    sizeBytes: number
    leftOut: number
    createdAt: Now
  }
  loadEntry: {
    id: Generated<number>
    loadId: string
    path: Buffer
    pathText: string
    kind: 'file' | 'folder' | 'link' | 'special'
    sizeBytes: number
    modifiedMs: number
    /** `gone` was not there at the latest look; `replaced` had other content, and another row has its path now. */
    state: Generated<'on-card' | 'gone' | 'replaced'>
  }
  clip: {
    id: Generated<string>
    loadId: string
    entryId: number
    pathText: string
    name: string
    sizeBytes: number
    sidecars: number
    probe: JsonOrNull<Probe>
    trouble: string | null
    hasPicture: boolean
    pictureMade: boolean
  }
  copyPlan: { loadId: string; volumeId: string; folder: string; plannedAt: Now }
  copyFact: {
    id: Generated<number>
    loadId: string
    entryId: number
    volumeId: string
    kind: 'proved' | 'mismatch' | 'conflict'
    hash: string
    found: string | null
    fromMedium: boolean
    at: Now
    taskId: string
  }
  event: {
    id: Generated<number>
    at: Now
    kind: EventKind
    productionId: string | null
    loadId: string | null
    volumeId: string | null
    clipId: string | null
    detail: Json<object>
  }
  task: {
    id: Generated<string>
    kind: TaskKind
    state: TaskState
    title: string
    productionId: string | null
    loadId: string | null
    input: Json<object>
    progress: JsonOrNull<TaskProgress>
    sentence: string | null
    troubles: Json<string[]>
    host: string
    bossId: string | null
    createdAt: Now
    endedAt: Date | null
  }
  proxy: {
    id: Generated<string>
    clipId: string
    volumeId: string
    path: string
    sizeBytes: number
    probe: Json<Probe>
    madeAt: Now
  }
  deliverable: {
    id: Generated<string>
    productionId: string
    clipId: string
    destinationId: string
    cropWindow: Json<CropWindow>
    volumeId: string
    path: string
    sizeBytes: number
    probe: Json<Probe>
    bars: Json<BlackBars>
    madeAt: Now
  }
  bag: {
    id: Generated<string>
    productionId: string
    deliverableId: string
    volumeId: string
    path: string
    fileCount: number
    sizeBytes: number
    writtenAt: Now
    verifiedAt: Date | null
  }
  ledger: { id: Generated<number>; productionId: string; volumeId: string; byteClass: ByteClass; sizeBytes: number }
}

/** What is written down once and never changed. */
export type EventKind =
  'looked-at' | 'answered' | 'copied' | 'spot-played' | 'said-formatted' | 'set-aside' | 'rendered' | 'shelved'
