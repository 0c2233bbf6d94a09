import { sql } from 'kysely'
import type { DeviceIdentity } from '../../../core/copies/device'
import {
  commonShift,
  listedAs,
  standingOf,
  type Listed,
  type ListedFile,
  type Standing,
} from '../../../core/copies/standing'
import { anyNumberOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import { lockCopy } from '../lock'
import { mirror } from './copies'
import { addSeenChanges, type SeenChange } from './seen'

/** What a mirror listed at one look. */
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
  /** Whether samples of the content are equal, asked only when all times moved by the same whole hours. */
  readonly samplesEqual: () => Promise<boolean>
}

/** Now, by the clock that facts are dated with. */
export const databaseTime = async (db: Db): Promise<Date> => {
  const { rows } = await sql<{ now: Date }>`select clock_timestamp() as now`.execute(db)
  return rows[0]?.now ?? new Date()
}

/** Writes down how a volume lists a mirror now. True when it differs from what was known. */
export async function putMirrorListing(db: Db, listing: MirrorListing): Promise<boolean> {
  const { loadId, volumeId } = listing
  const known = await knownFiles(db, listing)
  const paired = known.flatMap((row) => {
    const now = listing.files.get(row.path.toString('latin1'))
    return now && row.proved ? [[row.proved, now] as const] : []
  })
  const shift = commonShift(paired)
  const shiftMs = shift !== 0 && (await listing.samplesEqual()) ? shift : 0
  return inTransaction(db, async (tx) => {
    await lockCopy(tx, loadId, volumeId)
    const before = await mirror(tx, loadId, volumeId)
    if (!before) return false
    const first = before.seenId === null
    const differing = differences(listing, await knownFiles(tx, listing), shiftMs)
    const moved = differing.length > 0 || before.present !== listing.present
    const changes = first ? allThere(listing) : differing.map((file) => seenChange(file.path, file.now))
    const seenId = first || moved ? await addMirrorSeen(tx, listing, changes, shiftMs) : before.seenId
    await setListed(tx, volumeId, differing)
    await tx
      .updateTable('mirror')
      .set({ seenAt: listing.begunAt, present: listing.present, seenId })
      .where('loadId', '=', loadId)
      .where('volumeId', '=', volumeId)
      .execute()
    return moved
  })
}

async function knownFiles(db: Db, { loadId, volumeId, begunAt }: MirrorListing) {
  const rows = await db
    .selectFrom('copyFile')
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['copyFile.entryId', 'copyFile.listed', 'loadEntry.path', 'proof.outcome'])
    .select(['proof.pastCache', 'proof.sizeBytes', 'proof.modifiedMs'])
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.volumeId', '=', volumeId)
    .where('copyFile.provedAt', '<', begunAt)
    .where('loadEntry.state', '<>', 'replaced')
    .execute()
  return rows.map(({ sizeBytes, modifiedMs, ...row }) => ({
    ...row,
    proved:
      row.outcome === 'equal' && sizeBytes !== null && modifiedMs !== null ? { sizeBytes, modifiedMs } : undefined,
  }))
}

type KnownFile = Awaited<ReturnType<typeof knownFiles>>[number]

interface DifferingFile {
  readonly entryId: number
  readonly path: Buffer
  readonly now: ListedFile | undefined
  readonly listed: Listed
  readonly standing: Standing
}

/** Files that are listed otherwise now than they were known to be. */
function differences(listing: MirrorListing, known: readonly KnownFile[], shiftMs: number): DifferingFile[] {
  return known.flatMap((row) => {
    if (!row.proved) return []
    const now = listing.files.get(row.path.toString('latin1'))
    const listed = listedAs(row.proved, row.listed, now, shiftMs)
    if (listed === row.listed) return []
    return { entryId: row.entryId, path: row.path, now, listed, standing: standingOf(row, listed) }
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

async function setListed(tx: Db, volumeId: string, files: readonly DifferingFile[]): Promise<void> {
  for (const standing of new Set(files.map((file) => file.standing))) {
    const [first, ...more] = files.filter((file) => file.standing === standing)
    if (!first) continue
    const { listed } = first
    await tx
      .updateTable('copyFile')
      .set({ listed, standing, ...(listed === 'as-proved' ? {} : { absentAt: new Date() }) })
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
