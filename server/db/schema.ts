import type { ColumnType, Generated } from 'kysely'
import type { Fault } from '../../contract/bench'
import type { VolumeKind } from '../../contract/storage'
import type { TaskKind } from '../../contract/taskKinds'
import type { TaskOrder, TaskProgress, TaskState } from '../../contract/tasks'
import type { DeviceIdentity } from '../../core/copies/device'
import type { Listed, Standing } from '../../core/copies/standing'
import type { BlackBars } from '../../core/exports/check'
import type { CropWindow } from '../../core/exports/reframe'
import type { Probe } from '../../core/media/probe'
import type { ByteClass } from '../../core/storage/budget'

type Now = ColumnType<Date, Date | undefined, Date>
type Json<T extends object> = ColumnType<T, string, string>
type JsonOrNull<T extends object> = ColumnType<T | null, string | null | undefined, string | null>
/** Filled by the database when it is not given. */
type Given<T> = ColumnType<T, T | undefined, T>

export interface Database {
  setting: { key: string; value: Json<object> }
  production: {
    id: Generated<string>
    title: string
    client: string
    shootOn: string | null
    /** Its folder on every volume; no two productions share one. */
    folder: string
    timeZone: Given<string>
    createdAt: Now
  }
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
  site: { id: Generated<string>; name: string; kind: Given<string>; createdAt: Now }
  volume: {
    id: string
    name: string
    kind: VolumeKind
    siteId: string
    simulated: boolean
    capacityBytes: number
    createdAt: Now
  }
  /** Where a volume appears on one computer, and what the observer last saw of it there. */
  mount: {
    volumeId: string
    host: string
    path: string
    connected: Given<boolean>
    lastSeen: Date | null
    capacityBytes: number | null
    freeBytes: number | null
    device: JsonOrNull<DeviceIdentity>
  }
  reader: {
    id: Generated<string>
    name: string
    rootPath: string | null
    simulated: boolean
    host: string
    createdAt: Now
    /** What the observer last saw in it. */
    state: Given<'card' | 'empty' | 'unreachable'>
    cardName: string | null
    /** The load whose card this seems to be, and whether it lists just what it listed when it was looked at. */
    loadId: string | null
    same: Given<boolean>
    difference: string | null
    device: JsonOrNull<DeviceIdentity>
    seenAt: Date | null
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
  camera: { id: Generated<string>; name: string; createdAt: Now }
  card: { id: Generated<string>; name: string; capacityBytes: number | null; createdAt: Now }
  load: {
    id: Generated<string>
    productionId: string
    readerId: string | null
    cardId: string | null
    cameraId: string | null
    label: string
    /** False from the beginning of a look until everything it found is written down. */
    lookDone: Given<boolean>
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
    /** Whether any volume ever held a proved copy of it. */
    copied: Given<boolean>
    /** Its name has bytes that cannot be printed. */
    odd: Given<boolean>
  }
  clip: {
    id: Generated<string>
    loadId: string
    productionId: string
    entryId: number
    pathText: string
    name: string
    sizeBytes: number
    sidecars: number
    probe: JsonOrNull<Probe>
    trouble: string | null
    cut: string | null
    hasPicture: boolean
    pictureMade: boolean
  }
  clipFile: {
    clipId: string
    entryId: number
    role: 'picture' | 'sound' | 'frames' | 'sidecar' | 'camera-proxy' | 'thumbnail' | 'part' | 'lens'
    number: number | null
  }
  seen: {
    id: Generated<number>
    at: Now
    place: 'card' | 'mirror'
    loadId: string
    volumeId: string | null
    readerId: string | null
    node: string | null
    device: JsonOrNull<DeviceIdentity>
    print: string | null
    fileCount: number
    sizeBytes: number
    shiftMs: Given<number>
  }
  seenChange: {
    seenId: number
    path: Buffer
    change: 'there' | 'gone'
    kind: Given<string>
    sizeBytes: number | null
    modifiedMs: number | null
  }
  proof: {
    id: Generated<number>
    at: Now
    what: 'copy' | 'proxy' | 'deliverable' | 'bag'
    outcome: 'equal' | 'differs' | 'conflict'
    volumeId: string
    path: Buffer
    algorithm: Given<string>
    hash: string
    found: string | null
    sizeBytes: number | null
    modifiedMs: number | null
    pastCache: boolean
    placed: boolean
    runId: string
    loadId: string | null
    entryId: number | null
    clipId: string | null
    deliverableId: string | null
    bagId: string | null
  }
  /** A copy was read again from end to end, or a sample of it was. */
  reading: {
    id: Generated<number>
    at: Now
    loadId: string
    volumeId: string
    how: 'whole' | 'sample'
    seed: string | null
    files: number
    sizeBytes: number
    wrong: number
    runId: string
  }
  loadSample: { loadId: string; entryId: number; hash: string; takenAt: Now }
  said: {
    id: Generated<number>
    at: Now
    kind: 'answered' | 'spot-played' | 'formatted' | 'different-drives'
    loadId: string | null
    volumeId: string | null
    otherVolumeId: string | null
    entryId: number | null
    /** The answer that stood when it was said, where it was said against it. */
    against: string | null
    detail: Json<object>
  }
  journal: {
    id: Generated<number>
    at: Now
    kind: 'copied' | 'set-aside' | 'rendered' | 'shelved' | 'checked'
    productionId: string | null
    loadId: string | null
    volumeId: string | null
    clipId: string | null
    detail: Json<object>
  }
  /** One load on one volume: where its mirror is, and how many of its files stand how (kept with the facts). */
  mirror: {
    loadId: string
    volumeId: string
    folder: string
    plannedAt: Now
    present: Given<boolean>
    seenAt: Date | null
    seenId: number | null
    filesVerified: Given<number>
    filesMemory: Given<number>
    filesMissing: Given<number>
    filesChanged: Given<number>
    filesDiffer: Given<number>
    filesConflict: Given<number>
    sizeBytes: Given<number>
    copiedBytes: Given<number>
  }
  /** What is true now of one file of a mirror: its latest proof, and how the volume listed it since. */
  copyFile: {
    loadId: string
    volumeId: string
    entryId: number
    proofId: number
    provedAt: Date
    onCard: boolean
    entryBytes: number
    placedAt: Date
    listed: Given<Listed>
    absentAt: Date | null
    standing: Standing
  }
  productionBytes: { productionId: string; volumeId: string; byteClass: ByteClass; sizeBytes: number }
  loadFinding: { loadId: string; kind: string; files: number; print: string }
  task: {
    id: Generated<string>
    kind: TaskKind
    state: TaskState
    title: string
    productionId: string | null
    loadId: string | null
    /** What it is done to; a subject has one open task of a kind at most. */
    subject: string
    idempotencyKey: string | null
    /** How many attempts ended with their worker. */
    died: Given<number>
    input: Json<object>
    progress: JsonOrNull<TaskProgress>
    sentence: string | null
    troubles: Json<string[]>
    host: string
    bossId: string | null
    createdAt: Now
    endedAt: Date | null
  }
  attempt: {
    id: Generated<string>
    taskId: string
    host: string
    startedAt: Now
    endedAt: Date | null
    how: string | null
  }
  taskOrder: { id: Generated<number>; taskId: string; taskOrder: TaskOrder; at: Now; obeyedAt: Date | null }
  toolChild: { attemptId: string; pid: number; startedTicks: string }
  proxy: {
    id: Generated<string>
    clipId: string
    volumeId: string
    path: string
    sizeBytes: number
    probe: Json<Probe>
    madeAt: Now
    decodedFrames: number | null
    decodeErrors: number | null
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
  ledger: {
    id: Generated<number>
    productionId: string
    volumeId: string
    byteClass: ByteClass
    sizeBytes: number
  }
}
