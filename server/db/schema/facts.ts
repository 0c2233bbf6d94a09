import type { ColumnType, Generated, GeneratedAlways } from 'kysely'
import type { DeviceIdentity } from '../../../core/copies/device'
import type { Listed, CopyState } from '../../../core/copies/copyState'
import type { Difference } from '../../../core/copies/difference'
import type { KnownHow, StayMark } from '../../../core/cards/load/stay'
import type { Given, Json, JsonOrNull, Now } from './columns'

/** Seen, proof and said, and what is kept beside them: which of them is the latest, and how many say what. */
export interface FactTables {
  seen: {
    id: GeneratedAlways<number>
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
    id: GeneratedAlways<number>
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
    mediaFileId: string | null
    deliverableId: string | null
    bagId: string | null
    /** As the volume listed it when it was read, where its file system tells (`FileStamp`). */
    inode: Given<string | null>
    changedMs: Given<number | null>
    /** Hash of its first and last 64 KiB, from the same reading. */
    ends: Given<string | null>
    /** The volume that it was copied from, where that was not its card. */
    sourceVolumeId: Given<string | null>
    /** How it is not what was proved, where it is not. */
    difference: Given<Difference | null>
  }
  /** A copy was read again: from end to end, a sample of it, or what was due by its age. */
  reading: {
    id: GeneratedAlways<number>
    at: Now
    loadId: string
    volumeId: string
    how: 'whole' | 'sample' | 'cycle'
    seed: string | null
    files: number
    sizeBytes: number
    wrong: number
    runId: string
    /** Files that took a second reading. */
    retried: Given<number>
    /** `null` where too little was read to tell. */
    bytesPerSecond: number | null
  }
  /** A second card with the content of a load; it is told from the load’s own by its key. */
  twin: {
    id: Generated<string>
    loadId: string
    key: string
    name: string
    /** Its times are those of the load’s own card, not only near them. */
    exact: boolean
    firstSeenAt: Now
    /** When it was put in last, or scanned. */
    seenAt: ColumnType<Date, Date | undefined, Date>
  }
  /** A backup card was read whole and compared with the proofs of the load. */
  twinReading: {
    id: GeneratedAlways<number>
    at: Now
    twinId: string
    /** Of what it listed. */
    print: string
    filesEqual: number
    filesMemory: number
    filesWrong: number
    sizeBytes: number
    runId: string
    /** In which stay of the card. */
    stayId: Given<string | null>
  }
  /**
   * One stay of a card in a reader: from when it appeared until the disk, the mount, the root or the file system is
   * another one, the reader was empty, the computer slept, or the observer was restarted.
   */
  stay: {
    id: Generated<string>
    readerId: string
    host: string
    cameAt: Now
    seenAt: ColumnType<Date, Date | undefined, Date>
    leftAt: Given<Date | null>
    leftHow: Given<string | null>
    mark: Json<StayMark>
    /** False where nothing tells when another card takes its place. */
    swapsSeen: boolean
    /** The load whose card this is, or whose backup card, and how that is known. */
    loadId: Given<string | null>
    twinId: Given<string | null>
    knownHow: Given<KnownHow | null>
    /** What was tried by itself in this stay. */
    tried: Given<string[]>
  }
  /** How the file system of a card told its files from others, when it was last known to be the card of its load. */
  cardStamp: {
    loadId: string
    path: Buffer
    /** Size and time. */
    listed: string
    /** Inode and the last change of anything of it (ctime). */
    stamp: string
  }
  /** A card was compared with what is known of a load: at one place in every clip, or whole. */
  comparison: {
    id: GeneratedAlways<number>
    at: Now
    stayId: string
    loadId: string
    print: string
    how: 'places' | 'whole'
    clips: number
    compared: number
    withCopies: number
    unreadable: number
    differing: number
    volumeNames: Json<string[]>
    /** The first few that differ. */
    paths: Json<string[]>
    seed: string
  }
  /** Written on every volume, newest last: one that is not known here shows that these records are older. */
  booksMark: { token: Generated<string>; number: GeneratedAlways<number>; at: Now }
  loadSample: { loadId: string; entryId: number; hash: string; takenAt: Now }
  said: {
    id: GeneratedAlways<number>
    at: Now
    kind:
      | ('answered' | 'spot-played' | 'formatted' | 'unformatted' | 'different-drives' | 'found-wrong' | 'found-whole')
      /** Of all loads that a chart names, and that it is taken back; the detail names the import. */
      | ('kept-chart' | 'kept-chart-taken-back')
    loadId: string | null
    volumeId: string | null
    otherVolumeId: string | null
    entryId: number | null
    /** The card that was meant, where it was not the load’s own. */
    twinId: Given<string | null>
    /** The answer that stood when it was said, where it was said against it. */
    against: string | null
    detail: Json<object>
  }
  journal: {
    id: GeneratedAlways<number>
    at: Now
    kind: 'copied' | 'set-aside' | 'repaired' | 'rendering' | 'rendered' | 'shelved' | 'slept' | 'rescued' | 'let-go'
    productionId: string | null
    loadId: string | null
    volumeId: string | null
    mediaFileId: string | null
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
    filesDoubted: Given<number>
    filesDiffer: Given<number>
    filesConflict: Given<number>
    sizeBytes: Given<number>
    copiedBytes: Given<number>
    /** A sum over its files and how each of them stands: another one when one of them is otherwise. */
    print: Given<string>
    /** Places inside it where other file systems are mounted. */
    mounted: ColumnType<string[], string | undefined, string>
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
    standing: CopyState
    /** As it lay when it was proved, or after we ourselves gave it another name. */
    inode: Given<string | null>
    changedMs: Given<number | null>
    /**
     * Its time after a change of the clock that the ends of its content bore out; `null` while it has the time of its
     * proof.
     */
    modifiedMs: Given<number | null>
  }
  /** A load on the chart, as it was last reckoned from the facts. */
  chartLine: {
    loadId: string
    productionId: string
    clientId: string | null
    year: number
    /** In the order of the chart: the newest production first, its loads as they were taken in. */
    place: string
    /** A place in `DANGERS`. */
    danger: number
    oldestProofAt: Date | null
  }
  /** A chart that somebody kept by hand, as it came in. */
  keptChart: {
    id: Generated<string>
    at: Now
    fileName: string
    /** Of all its lines: the same chart again is known. */
    print: string
    lines: number
    takenBackAt: Date | null
  }
  /** What it says of a load. */
  keptLine: {
    id: Generated<string>
    importId: string
    number: number
    client: string
    clientId: string | null
    production: string
    productionId: string | null
    shootOn: string | null
    label: string
    camera: string
    sizeBytes: number | null
    formatted: string
    year: number
    /** Among the lines of the chart. */
    place: string
    /** The load of that name that was taken in since. */
    loadId: string | null
    /** No newer chart says something of the same load, and this one was not taken back. */
    shown: Given<boolean>
  }
  /** On which drive it says that the load is, and in which words. */
  keptCopy: { lineId: string; name: string; volumeId: string | null; said: string }
  /** Which loads have a copy on a volume, or at a site, by its id. */
  chartPlace: { ofId: string; place: string; loadId: string }
  /** Loads of which a line is to be reckoned anew, from that time on. */
  chartDue: { id: GeneratedAlways<number>; loadId: string; dueAt: Now }
  /** The oldest proof of each copy, and how many other good copies of its load there are. */
  chartCopy: { loadId: string; volumeId: string; oldestAt: Date; others: number }
}
