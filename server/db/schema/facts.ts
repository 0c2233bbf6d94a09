import type { ColumnType, Generated } from 'kysely'
import type { DeviceIdentity } from '../../../core/copies/device'
import type { Listed, Standing } from '../../../core/copies/standing'
import type { Given, Json, JsonOrNull, Now } from './columns'

/** Seen, proof and said, and what is kept beside them: which of them is the latest, and how many say what. */
export interface FactTables {
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
  /** A second card with the content of a load; it is told from the load’s own by its key. */
  twin: {
    id: Generated<string>
    loadId: string
    key: string
    name: string
    /** Its times are those of the load’s own card, not only near them. */
    exact: boolean
    firstSeenAt: Now
    /** When it was put in last, or looked at. */
    seenAt: ColumnType<Date, Date | undefined, Date>
  }
  /** A twin was read whole and compared with the proofs of the load. */
  twinReading: {
    id: Generated<number>
    at: Now
    twinId: string
    /** Of what it listed. */
    print: string
    filesEqual: number
    filesMemory: number
    filesWrong: number
    sizeBytes: number
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
    /** The card that was meant, where it was not the load’s own. */
    twinId: Given<string | null>
    /** The answer that stood when it was said, where it was said against it. */
    against: string | null
    detail: Json<object>
  }
  journal: {
    id: Generated<number>
    at: Now
    kind: 'copied' | 'set-aside' | 'rendering' | 'rendered' | 'shelved'
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
}
