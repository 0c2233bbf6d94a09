import { sql } from 'kysely'
import type { DeviceIdentity } from '../../../core/copies/device'
import {
  commonShift,
  listedAs,
  NO_SHIFT,
  copyStateOf,
  type KnownShift,
  type Listed,
  type ListedFile,
  type CopyState,
} from '../../../core/copies/copyState'
import { anyNumberOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import { lockCopy } from '../lock'
import { mirror } from './copies'
import { addSeenChanges, type SeenChange } from './seen'

/** What a mirror listed at one scan. */
export interface MirrorListing {
  readonly loadId: string
  readonly volumeId: string
  /** By the database’s clock, before the listing began: what was proved later is not judged by it. */
  readonly begunAt: Date
  readonly present: boolean
  readonly node: string
  readonly device: DeviceIdentity
  /** Files below the mirror’s folder, keys being path bytes as latin1. */
  readonly files: ReadonlyMap<string, ListedFile>
  /** Where other file systems are mounted inside it. */
  readonly mounted: readonly string[]
  /**
   * Whether its times may move together at all, and whether the ends of a file are as they were read back; asked only
   * when all times moved by the same whole hours.
   */
  readonly keepsLocalTime: () => Promise<boolean>
  readonly endsOf: (path: Buffer, sizeBytes: number) => Promise<string | undefined>
}

/** Now, by the clock that facts are dated with. */
export const databaseTime = async (db: Db): Promise<Date> => {
  const { rows } = await sql<{ now: Date }>`select clock_timestamp() as now`.execute(db)
  return rows[0]?.now ?? new Date()
}

/** Writes down how a volume lists a mirror now. True when it differs from what was known. */
export async function putMirrorListing(db: Db, listing: MirrorListing): Promise<boolean> {
  const moved = await writeListing(db, listing)
  // Files are read for that, and nobody waits for a drive inside a transaction.
  return moved ?? (await writeListing(db, listing, await shiftsOf(db, listing))) ?? false
}

/**
 * `undefined`, and nothing written, where all times moved together and nobody has looked yet what became of the files.
 */
function writeListing(db: Db, listing: MirrorListing, looked?: Shifts): Promise<boolean | undefined> {
  const { loadId, volumeId } = listing
  return inTransaction(db, async (tx) => {
    await lockCopy(tx, loadId, volumeId)
    const before = await mirror(tx, loadId, volumeId)
    if (!before) return false
    const first = before.seenId === null
    const known = await knownFiles(tx, listing)
    if (!looked && commonShift(pairsOf(listing, known)) !== 0) return undefined
    const shifts = looked ?? { shiftMs: 0, ends: new Map() }
    const differing = differences(listing, known, shifts)
    const mounted = JSON.stringify(listing.mounted)
    const moved =
      differing.length > 0 ||
      shifts.shiftMs !== 0 ||
      before.present !== listing.present ||
      JSON.stringify(before.mounted) !== mounted
    const changes = first ? allThere(listing) : differing.map((file) => seenChange(file.path, file.now))
    const seenId = first || moved ? await addMirrorSeen(tx, listing, changes, shifts.shiftMs) : before.seenId
    await setListed(tx, volumeId, differing)
    await keepShift(tx, volumeId, shifts)
    await tx
      .updateTable('mirror')
      .set({ seenAt: listing.begunAt, present: listing.present, seenId, mounted })
      .where('loadId', '=', loadId)
      .where('volumeId', '=', volumeId)
      .execute()
    return moved
  })
}

interface Shifts {
  readonly shiftMs: number
  /** Of each file, by its id. */
  readonly ends: ReadonlyMap<number, KnownShift['ends']>
}

/**
 * A shift by whole hours is believed of a file system that keeps local time, and of each file whose ends are as they
 * were read back; what has no such hash is read whole before it counts.
 */
async function shiftsOf(db: Db, listing: MirrorListing): Promise<Shifts> {
  const known = await knownFiles(db, listing)
  const shiftMs = commonShift(pairsOf(listing, known))
  const ends = new Map<number, KnownShift['ends']>()
  if (shiftMs === 0 || !(await listing.keepsLocalTime())) return { shiftMs: 0, ends }
  const wanted = await endsOfProofs(db, listing)
  for (const row of known) {
    const now = nowOf(listing, row)
    if (!now || !row.proved) continue
    const before = wanted.get(row.entryId) ?? null
    const found = before === null ? undefined : await listing.endsOf(row.path, now.sizeBytes)
    ends.set(row.entryId, before === null ? 'unknown' : found === before ? 'equal' : 'differ')
  }
  return { shiftMs, ends }
}

const nowOf = (listing: MirrorListing, { path }: Pick<KnownFile, 'path'>): ListedFile | undefined =>
  listing.files.get(path.toString('latin1'))

/** Proved files that still lie there, each with how it is listed now. */
function* pairsOf(listing: MirrorListing, known: readonly KnownFile[]) {
  for (const row of known) {
    const now = row.proved && nowOf(listing, row)
    if (row.proved && now) yield [row.proved, now] as const
  }
}

/** Hashes of the ends as they were read back, by the id of the file. */
async function endsOfProofs(db: Db, { loadId, volumeId }: MirrorListing): Promise<ReadonlyMap<number, string | null>> {
  const rows = await db
    .selectFrom('copyFile')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['copyFile.entryId', 'proof.ends'])
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.volumeId', '=', volumeId)
    .execute()
  return new Map(rows.map((row) => [row.entryId, row.ends]))
}

async function knownFiles(db: Db, { loadId, volumeId, begunAt }: MirrorListing) {
  const rows = await db
    .selectFrom('copyFile')
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['copyFile.entryId', 'copyFile.listed', 'loadEntry.path', 'proof.outcome'])
    .select(['proof.pastCache', 'proof.sizeBytes', 'proof.modifiedMs'])
    .select(['copyFile.inode', 'copyFile.changedMs', 'copyFile.modifiedMs as shiftedMs'])
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.volumeId', '=', volumeId)
    .where('copyFile.provedAt', '<', begunAt)
    .where('loadEntry.state', '<>', 'replaced')
    .execute()
  return rows.map(({ sizeBytes, modifiedMs, shiftedMs, inode, changedMs, ...row }) => ({
    ...row,
    proved:
      row.outcome === 'equal' && sizeBytes !== null && modifiedMs !== null
        ? { sizeBytes, modifiedMs: shiftedMs ?? modifiedMs, inode, changedMs }
        : undefined,
  }))
}

type KnownFile = Awaited<ReturnType<typeof knownFiles>>[number]

interface DifferingFile {
  readonly entryId: number
  readonly path: Buffer
  readonly now: ListedFile | undefined
  readonly listed: Listed
  readonly standing: CopyState
}

/** Files that are listed otherwise now than they were known to be. */
function differences(listing: MirrorListing, known: readonly KnownFile[], shifts: Shifts): DifferingFile[] {
  return known.flatMap((row) => {
    if (!row.proved) return []
    const now = nowOf(listing, row)
    const ends = shifts.ends.get(row.entryId)
    const shift = ends === undefined ? NO_SHIFT : { shiftMs: shifts.shiftMs, ends }
    const listed = listedAs(row.proved, row.listed, now, shift)
    if (listed === row.listed) return []
    return { entryId: row.entryId, path: row.path, now, listed, standing: copyStateOf(row, listed) }
  })
}

const seenChange = (path: Buffer, now: ListedFile | undefined): SeenChange => ({
  path,
  kind: 'file',
  change: now ? 'there' : 'gone',
  sizeBytes: now?.sizeBytes ?? null,
  modifiedMs: now?.modifiedMs ?? null,
})

const allThere = ({ files }: MirrorListing): SeenChange[] =>
  [...files].map(([path, file]) => seenChange(Buffer.from(path, 'latin1'), file))

async function addMirrorSeen(
  tx: Db,
  listing: MirrorListing,
  changes: readonly SeenChange[],
  shiftMs: number,
): Promise<number> {
  const { id } = await tx
    .insertInto('seen')
    .values({
      place: 'mirror',
      at: listing.begunAt,
      loadId: listing.loadId,
      volumeId: listing.volumeId,
      readerId: null,
      node: listing.node,
      device: JSON.stringify(listing.device),
      print: null,
      fileCount: listing.files.size,
      sizeBytes: [...listing.files.values()].reduce((sum, file) => sum + file.sizeBytes, 0),
      shiftMs,
    })
    .returning('id')
    .executeTakeFirstOrThrow()
  await addSeenChanges(tx, id, changes)
  return id
}

/** The clock moved, not the content: from now on the file has its new time. */
async function keepShift(tx: Db, volumeId: string, { shiftMs, ends }: Shifts): Promise<void> {
  const moved = [...ends].flatMap(([entryId, how]) => (how === 'equal' ? entryId : []))
  if (moved.length === 0) return
  await sql`update copy_file set modified_ms = coalesce(copy_file.modified_ms, proof.modified_ms) + ${shiftMs}
    from proof where proof.id = copy_file.proof_id and copy_file.volume_id = ${volumeId} and ${anyNumberOf('copy_file.entry_id', moved)}`.execute(
    tx,
  )
}

async function setListed(tx: Db, volumeId: string, files: readonly DifferingFile[]): Promise<void> {
  for (const standing of new Set(files.map((file) => file.standing))) {
    const [first, ...more] = files.filter((file) => file.standing === standing)
    if (!first) continue
    const { listed } = first
    await tx
      .updateTable('copyFile')
      .set({ listed, standing, ...(listed === 'absent' || listed === 'changed' ? { absentAt: new Date() } : {}) })
      .where('volumeId', '=', volumeId)
      .where(
        anyNumberOf(
          'entry_id',
          [first, ...more].map((file) => file.entryId),
        ),
      )
      .execute()
  }
}

/** Paths of everything that was ever on the card of a load. */
export const entryPaths = (db: Db, loadId: string) =>
  db.selectFrom('loadEntry').select('path').where('loadId', '=', loadId).execute()
