import { sql } from 'kysely'
import type { DeviceIdentity } from '../../../core/copies/device'
import type { CopyRecord, FileRecord } from '../../../core/copies/record'
import {
  commonShift,
  listedAs,
  standingOf,
  type Listed,
  type ListedFile,
  type Standing,
} from '../../../core/copies/standing'
import { anyNumberOf, anyOf } from '../anyOf'
import type { Db } from '../connection'
import { addSeenChanges, type SeenChange } from './seen'

export const planCopy = (db: Db, loadId: string, volumeId: string, folder: string) =>
  db
    .insertInto('mirror')
    .values({ loadId, volumeId, folder })
    .onConflict((at) => at.columns(['loadId', 'volumeId']).doNothing())
    .execute()

export const mirrorsOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('mirror')
    .innerJoin('volume', 'volume.id', 'mirror.volumeId')
    .selectAll('mirror')
    .select('volume.name as volumeName')
    .where(anyOf('mirror.load_id', loadIds))
    .orderBy('mirror.plannedAt')
    .orderBy('volume.name')
    .execute()

export const mirror = (db: Db, loadId: string, volumeId: string) =>
  db.selectFrom('mirror').selectAll().where('loadId', '=', loadId).where('volumeId', '=', volumeId).executeTakeFirst()

export const mirrorsOn = (db: Db, volumeId: string) =>
  db
    .selectFrom('mirror')
    .selectAll()
    .where('volumeId', '=', volumeId)
    .orderBy('seenAt', (order) => order.asc().nullsFirst())
    .execute()

/** When the oldest and the newest proof that stands was made, for each copy of loads. */
export const proofTimes = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('copyFile')
    .select((at) => ['loadId', 'volumeId', at.fn.min('provedAt').as('first'), at.fn.max('provedAt').as('last')])
    .where(anyOf('load_id', loadIds))
    .where('onCard', '=', true)
    .where('standing', 'in', ['verified', 'memory'])
    .groupBy(['loadId', 'volumeId'])
    .execute()

/** The latest readings of copies in which nothing was wrong. */
export const readingsOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('reading')
    .select((at) => ['loadId', 'volumeId', at.fn.max('at').as('at')])
    .where(anyOf('load_id', loadIds))
    .where('wrong', '=', 0)
    .groupBy(['loadId', 'volumeId'])
    .execute()

/** Files of copies that are not as they should be: differing, in conflict, missing or changed. */
export const copyTroubles = (db: Db, loadId: string) =>
  db
    .selectFrom('copyFile')
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .select(['copyFile.volumeId', 'copyFile.entryId', 'copyFile.standing', 'loadEntry.pathText', 'loadEntry.path'])
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.onCard', '=', true)
    .where('copyFile.standing', 'in', ['differs', 'conflict', 'missing', 'changed'])
    .orderBy('loadEntry.path')

/** Whether a copy holds files whose names only the second checksum list can name. */
export const oddNamesOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('loadEntry')
    .select('loadId')
    .distinct()
    .where(anyOf('load_id', loadIds))
    .where('odd', '=', true)
    .where('kind', '=', 'file')
    .execute()

/** Every file that a copy holds proved, also those that are gone from the card: what can be listed and read again. */
export const provedOn = (db: Db, loadId: string, volumeId: string) =>
  db
    .selectFrom('copyFile')
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['copyFile.entryId', 'copyFile.provedAt', 'copyFile.standing', 'proof.hash'])
    .select(['loadEntry.path', 'loadEntry.pathText', 'loadEntry.sizeBytes'])
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.volumeId', '=', volumeId)
    .where('loadEntry.state', '!=', 'replaced')
    .where('copyFile.standing', 'in', ['verified', 'memory', 'missing', 'changed'])
    .orderBy('loadEntry.path')
    .execute()

/** The hash of each file of a load that was proved anywhere: its content is known by it. */
export async function knownHashes(db: Db, loadId: string): Promise<Map<number, string>> {
  const rows = await db
    .selectFrom('copyFile')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['copyFile.entryId', 'proof.hash'])
    .where('copyFile.loadId', '=', loadId)
    .execute()
  return new Map(rows.map((row) => [row.entryId, row.hash]))
}

/** Volumes that hold a copy of one file as it was proved, the edit drive first. */
export const holdersOf = (db: Db, host: string, loadId: string, entryId: number) =>
  db
    .selectFrom('copyFile')
    .innerJoin('mirror', (join) =>
      join.onRef('mirror.loadId', '=', 'copyFile.loadId').onRef('mirror.volumeId', '=', 'copyFile.volumeId'),
    )
    .innerJoin('volume', 'volume.id', 'copyFile.volumeId')
    .leftJoin('mount', (join) => join.onRef('mount.volumeId', '=', 'volume.id').on('mount.host', '=', host))
    .select(['mirror.folder', 'volume.id', 'volume.name', 'volume.kind', 'volume.simulated', 'mount.path as rootPath'])
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.entryId', '=', entryId)
    .where('copyFile.standing', 'in', ['verified', 'memory'])
    .orderBy(sql`volume.kind = 'edit'`, 'desc')
    .execute()

/** Facts about one copy are written one after the other, so that what is counted with them stays right. */
const lockCopy = (tx: Db, loadId: string, volumeId: string) =>
  sql`select pg_advisory_xact_lock(hashtextextended(${`${loadId} ${volumeId}`}, 0))`.execute(tx)

const OUTCOMES = { proved: 'equal', mismatch: 'differs', conflict: 'conflict' } as const
type Provable = Exclude<FileRecord, { kind: 'refused' }>
const isProvable = (record: CopyRecord): record is Provable =>
  record.kind === 'proved' || record.kind === 'mismatch' || record.kind === 'conflict'

export interface CopyRunFacts {
  readonly loadId: string
  readonly runId: string
  /** The mirror’s folder on each volume. */
  readonly folders: ReadonlyMap<string, string>
}

/** Writes what the engine reported of single files; records about a whole side are the task's to tell. */
export async function addCopyProofs(db: Db, run: CopyRunFacts, records: readonly CopyRecord[]): Promise<void> {
  const provable = records.filter(isProvable)
  const volumeIds = [...new Set(provable.map((record) => record.destinationId))].sort()
  for (const volumeId of volumeIds) {
    const own = provable.filter((record) => record.destinationId === volumeId)
    for (let at = 0; at < own.length; at += 1000)
      await db.transaction().execute((tx) => addProofs(tx, run, volumeId, own.slice(at, at + 1000)))
  }
}

async function addProofs(tx: Db, run: CopyRunFacts, volumeId: string, records: readonly Provable[]): Promise<void> {
  const { loadId, runId } = run
  await lockCopy(tx, loadId, volumeId)
  const ids = records.map((record) => record.fileId)
  const entries = await tx
    .selectFrom('loadEntry')
    .select(['id', 'path', 'sizeBytes', 'state'])
    .where(anyNumberOf('id', ids))
    .execute()
  const byId = new Map(entries.map((entry) => [entry.id, entry]))
  const folder = Buffer.from(`${run.folders.get(volumeId) ?? ''}/`)
  const proofs = await tx
    .insertInto('proof')
    .values(
      records.map((record) => ({
        what: 'copy' as const,
        outcome: OUTCOMES[record.kind],
        volumeId,
        path: Buffer.concat([folder, byId.get(record.fileId)?.path ?? Buffer.alloc(0)]),
        hash: record.kind === 'proved' ? record.hash : record.wanted,
        found: record.kind === 'proved' ? null : record.found,
        sizeBytes: record.kind === 'proved' ? record.sizeBytes : null,
        modifiedMs: record.kind === 'proved' ? record.modifiedMs : null,
        pastCache: record.kind === 'proved' && record.fromMedium,
        placed: record.kind === 'proved' && record.placed,
        runId,
        loadId,
        entryId: record.fileId,
        clipId: null,
        deliverableId: null,
        bagId: null,
      })),
    )
    .returning(['id', 'entryId', 'at', 'outcome', 'pastCache', 'placed'])
    .execute()
  const rows = proofs.flatMap((proof) => {
    const entry = byId.get(proof.entryId ?? -1)
    if (!entry) return []
    return {
      loadId,
      volumeId,
      entryId: entry.id,
      proofId: proof.id,
      provedAt: proof.at,
      onCard: entry.state === 'on-card',
      entryBytes: entry.sizeBytes,
      placedAt: proof.at,
      absentAt: null,
      standing: standingOf(proof, 'as-proved'),
    }
  })
  await tx
    .insertInto('copyFile')
    .values(rows)
    .onConflict((at) =>
      at.columns(['volumeId', 'entryId']).doUpdateSet((set) => ({
        proofId: set.ref('excluded.proofId'),
        provedAt: set.ref('excluded.provedAt'),
        onCard: set.ref('excluded.onCard'),
        standing: set.ref('excluded.standing'),
        listed: 'as-proved' as const,
        // A file that was found there lies there since it was placed.
        placedAt: sql<Date>`case when (select placed from proof where proof.id = excluded.proof_id) then excluded.placed_at else copy_file.placed_at end`,
      })),
    )
    .execute()
  const equal = records.filter((record) => record.kind === 'proved').map((record) => record.fileId)
  await tx
    .updateTable('loadEntry')
    .set({ copied: true })
    .where(anyNumberOf('id', equal))
    .where('copied', '=', false)
    .execute()
  await tx
    .updateTable('mirror')
    .set({ present: true })
    .where('loadId', '=', loadId)
    .where('volumeId', '=', volumeId)
    .where('present', '=', false)
    .execute()
}

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
  return db.transaction().execute(async (tx) => {
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
    const listed = listedAs(row.proved, now, shiftMs)
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

export const addReading = (
  db: Db,
  values: {
    loadId: string
    volumeId: string
    how: 'whole' | 'sample'
    seed: string | null
    files: number
    sizeBytes: number
    wrong: number
    runId: string
  },
) => db.insertInto('reading').values(values).execute()

export interface FileProof {
  readonly what: 'proxy' | 'deliverable' | 'bag'
  readonly volumeId: string
  readonly path: string
  readonly algorithm: 'xxh64' | 'sha256'
  readonly hash: string
  readonly sizeBytes: number
  readonly modifiedMs: number
  readonly pastCache: boolean
  readonly runId: string
  readonly clipId?: string
  readonly deliverableId?: string
  readonly bagId?: string
}

/** Proofs of what was made here: proxies, deliverables, the files of bags. */
export async function addFileProofs(db: Db, proofs: readonly FileProof[]): Promise<void> {
  if (proofs.length === 0) return
  await db
    .insertInto('proof')
    .values(
      proofs.map(({ path, ...proof }) => ({
        ...proof,
        outcome: 'equal' as const,
        path: Buffer.from(path),
        placed: true,
        found: null,
        loadId: null,
        entryId: null,
        clipId: proof.clipId ?? null,
        deliverableId: proof.deliverableId ?? null,
        bagId: proof.bagId ?? null,
      })),
    )
    .execute()
}
