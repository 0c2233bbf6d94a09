import type { ColumnType, Generated, GeneratedAlways } from 'kysely'
import type { Fault } from '../../../contract/bench'
import type { VolumeKind } from '../../../contract/storage'
import type { Medium, SiteKind } from '../../../core/copies/medium'
import type { DeviceIdentity } from '../../../core/copies/device'
import type { ClockShift } from '../../../core/cards/load/clock'
import type { RigOddity } from '../../../core/cards/load/rig'
import type { GoesOn } from '../../../core/cards/files/spans'
import type { Finding } from '../../../core/cards/findings/findings'
import type { MeasuredDelivery } from '../../../core/exports/check'
import type { DeliveryChoice } from '../../../core/exports/plan'
import type { CropWindow } from '../../../core/exports/reframe'
import type { MediaFacts } from '../../../core/media/facts'
import type { ByteClass } from '../../../core/storage/budget'
import type { Away, Given, Json, JsonOrNull, Now } from './columns'
import type { FactTables } from './facts'
import type { GearTables } from './gear'
import type { ListTables } from './lists'
import type { MediaTables } from './media'
import type { SortedTables } from './sorted'
import type { TaskTables } from './tasks'

export interface Database extends FactTables, GearTables, ListTables, MediaTables, SortedTables, TaskTables {
  setting: { key: string; value: Json<object> }
  /** Which functions and triggers this database has: a print of their text. */
  functionText: { print: string; appliedAt: Now }
  production: {
    id: Generated<string>
    title: string
    clientId: string | null
    shootOn: string | null
    /** Its folder on every volume; no two productions share one. */
    folder: string
    timeZone: Given<string>
    /** Chosen for it alone; else that of its client holds, else that of everything. */
    ruleId: Given<string | null>
    putAwayAt: Away
    createdAt: Now
  }
  site: { id: Generated<string>; name: string; kind: Given<SiteKind | null>; putAwayAt: Away; createdAt: Now }
  volume: {
    id: string
    name: string
    kind: VolumeKind
    /** As a person said; the system’s word comes before it. */
    medium: Given<Medium | null>
    /** Within how many days every file on it is to be read again. */
    cycleDays: Given<number>
    siteId: string
    simulated: boolean
    capacityBytes: number
    putAwayAt: Away
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
    /** Whether its files can share bytes, have a second name, or neither. */
    links: 'reflink' | 'hard' | 'none' | null
    /** In the latest copy that was long enough to tell. */
    readBytesPerSecond: number | null
    writeBytesPerSecond: number | null
    /** The newest state of the records that is written on it. */
    booksNumber: Given<number | null>
    booksAt: Given<Date | null>
  }
  reader: {
    id: Generated<string>
    name: string
    rootPath: string | null
    simulated: boolean
    host: string
    putAwayAt: Away
    createdAt: Now
    /** What the observer last saw in it. */
    state: Given<'card' | 'empty' | 'unreachable'>
    cardName: string | null
    /** The load whose card this seems to be, and whether it lists just what it listed when it was scanned. */
    loadId: string | null
    same: Given<boolean>
    /** It is not the load’s own card, but one with the same content. */
    twinId: Given<string | null>
    difference: string | null
    device: JsonOrNull<DeviceIdentity>
    seenAt: Date | null
    readBytesPerSecond: number | null
    capacityBytes: number | null
    freeBytes: number | null
    /** What the system calls the file system in it. */
    volumeUid: string | null
    /** Of what is listed on it: another when another card lies there. */
    print: string | null
    /** How the files on it are called. */
    habits: ColumnType<string[], string | undefined, string>
    /** When its files were written, first and last. */
    filmedFrom: Date | null
    filmedTo: Date | null
    /** The stay of the card that lies in it now. */
    stayId: Given<string | null>
  }
  /** A file system that was mounted and is not registered. */
  appeared: {
    id: Generated<string>
    host: string
    path: string
    /** Device and inode of its root. */
    node: string
    name: string
    capacityBytes: number
    freeBytes: number
    topNames: Json<string[]>
    volumeUid: string | null
    marker: string | null
    /** A person does not want to be asked; until it is taken out. */
    leftAlone: Given<boolean>
    appearedAt: Now
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
    cardId: string | null
    cameraId: string | null
    /** What the system calls the file system that it was scanned on. */
    volumeUid: Given<string | null>
    /** The card is known by that, and nobody said so. */
    cardByUid: Given<boolean>
    /** By how much its clock seems to be off, and by how much its times are shown moved. */
    clock: JsonOrNull<ClockShift>
    clockShiftMs: Given<number>
    /** Something of it was copied from its backup card, and not from its own card. */
    readFromTwin: Given<boolean>
    /** How its card differed from what was scanned when it was last in a reader, in words. */
    cardDifference: Given<string | null>
    /** Since then only reading its card whole tells what is on it. */
    cardDoubtedAt: Given<Date | null>
    /** The rig that its card is a lens of, which one from 1, and what is odd about it there. */
    rigId: Given<string | null>
    lens: Given<number | null>
    rigOdd: JsonOrNull<RigOddity[]>
    /** It seems to be a lens of a rig, with others of its production; a person said that it is of none. */
    rigProposed: Given<boolean>
    noRig: Given<boolean>
    /** Its first clip goes on where the last one of another load ended. */
    goesOn: JsonOrNull<GoesOn>
    label: string
    /** False from the beginning of a scan until everything it found is written down. */
    lookDone: Given<boolean>
    scannedAt: Now
    fileCount: number
    sizeBytes: number
    leftOut: number
    /** What is odd about its clips, worked out when a scan ended. */
    clipFindings: ColumnType<Finding[], string | undefined, string>
    createdAt: Now
  }
  loadEntry: {
    id: GeneratedAlways<number>
    loadId: string
    path: Buffer
    pathText: string
    kind: 'file' | 'folder' | 'link' | 'special'
    sizeBytes: number
    modifiedMs: number
    /** `gone` was not there at the latest scan; `replaced` had other content, and another row has its path now. */
    state: Generated<'on-card' | 'gone' | 'replaced'>
    /** Whether any volume ever held a proved copy of it. */
    copied: Given<boolean>
    /** Its name has bytes that cannot be printed. */
    odd: Given<boolean>
  }
  rig: { id: Generated<string>; productionId: string; name: string; sentence: Given<string>; createdAt: Now }
  /** What is counted of a load's clips, kept by triggers in the transaction that writes them. */
  loadSummary: {
    loadId: string
    /** Clips of one card may belong to several. */
    productionId: string
    /** A take that was split into files counts once; each of its files is one of `media`. */
    clips: Given<number>
    media: Given<number>
    lengthMs: Given<number>
    playable: Given<number>
    videos: Given<number>
    proxiesEqual: Given<number>
    proxiesDiffer: Given<number>
    proxiesUnchecked: Given<number>
    /** Clips that are edited without a proxy; none of the other figures counts them. */
    proxiesWithout: Given<number>
    proxyBytesOpen: Given<number>
  }
  productionBytes: { productionId: string; volumeId: string; byteClass: ByteClass; sizeBytes: number }
  /** What is odd about a load's other entries, with the first few paths. */
  loadFinding: { loadId: string; kind: string; files: number; print: string; paths: Json<string[]> }
  deliverable: {
    id: Generated<string>
    productionId: string
    mediaFileId: string
    destinationId: string
    cropWindow: Json<CropWindow>
    volumeId: string
    path: string
    sizeBytes: number
    probe: Json<MediaFacts>
    /** What was chosen beside the window. */
    choice: Json<DeliveryChoice>
    measured: Json<MeasuredDelivery>
    /** Passed every check when it was made. */
    pass: Given<boolean>
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
    id: GeneratedAlways<number>
    productionId: string
    volumeId: string
    byteClass: ByteClass
    sizeBytes: number
  }
}
