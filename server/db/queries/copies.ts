import { sql } from 'kysely'
import { anyNumberOf, anyOf } from '../anyOf'
import type { Db } from '../connection'

/** Writes down that a load is to have a copy in a folder of a volume; nothing when it has one. */
export const planCopy = (db: Db, loadId: string, volumeId: string, folder: string) =>
  db
    .insertInto('mirror')
    .values({ loadId, volumeId, folder })
    .onConflict((at) => at.columns(['loadId', 'volumeId']).doNothing())
    .execute()

/** The copies of loads with their counts, in the order in which they were planned. */
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

/** The copy of a load on a volume, if there is or was one. */
export const mirror = (db: Db, loadId: string, volumeId: string) =>
  db.selectFrom('mirror').selectAll().where('loadId', '=', loadId).where('volumeId', '=', volumeId).executeTakeFirst()

/** The copies on a volume, the one that was not seen for longest first. */
export const mirrorsOn = (db: Db, volumeId: string) =>
  db
    .selectFrom('mirror')
    .selectAll()
    .where('volumeId', '=', volumeId)
    .orderBy('seenAt', (order) => order.asc().nullsFirst())
    .execute()

/** When the oldest and the newest proof that stands was made, for each copy of loads. */
export const proofTimes = async (db: Db, loadIds: readonly string[]) => {
  // Each is one step in an index, however many files a copy has. Asked for together, both ends are one walk over all
  // of them wherever the planner has no statistics yet: just after a copy.
  const end = (standing: string, direction: 'asc' | 'desc') => sql`(
    select proved_at from copy_file f
    where f.load_id = mirror.load_id and f.volume_id = mirror.volume_id and on_card and standing = ${standing}
    order by proved_at ${sql.raw(direction)} limit 1)`
  const times = (standing: string) =>
    sql`lateral (select ${end(standing, 'asc')} as first, ${end(standing, 'desc')} as last)`
  const { rows } = await sql<{ loadId: string; volumeId: string; first: Date; last: Date }>`
    select mirror.load_id, mirror.volume_id, least(verified.first, memory.first) as first, greatest(verified.last, memory.last) as last
    from mirror, ${times('verified')} as verified, ${times('memory')} as memory
    where mirror.load_id = any(${[...loadIds]}::uuid[]) and coalesce(verified.first, memory.first) is not null`.execute(
    db,
  )
  return rows
}

/** The latest readings of copies in which nothing was wrong. */
export const readingsOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('reading')
    .select((at) => ['loadId', 'volumeId', at.fn.max('at').as('at')])
    .where(anyOf('load_id', loadIds))
    .where('wrong', '=', 0)
    // What was due by its age says nothing of the rest of the copy.
    .where('how', '!=', 'cycle')
    .groupBy(['loadId', 'volumeId'])
    .execute()

/** Files of copies that are not as they should be: differing, in conflict, missing or changed. */
export const copyTroubles = (db: Db, loadId: string) =>
  db
    .selectFrom('copyFile')
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['copyFile.volumeId', 'copyFile.entryId', 'copyFile.standing', 'loadEntry.pathText', 'loadEntry.path'])
    .select('proof.difference')
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.onCard', '=', true)
    .where('copyFile.standing', 'in', ['differs', 'conflict', 'missing', 'changed', 'doubted'])
    .orderBy('loadEntry.path')

/**
 * Bytes of files that are in the way of a copy (they differ, collide or were changed), and of those that may have been
 * replaced. Mirrors count such files, so that only those which have some are asked about.
 */
export async function troubledBytes(db: Db, mirrors: readonly MirrorRow[]) {
  const troubled = mirrors.filter(
    (mirror) => mirror.filesDiffer + mirror.filesConflict + mirror.filesChanged + mirror.filesDoubted > 0,
  )
  if (troubled.length === 0) return []
  return db
    .selectFrom('copyFile')
    .select(['loadId', 'volumeId'])
    .select([
      sql<number>`coalesce(sum(entry_bytes) filter (where standing <> 'doubted'), 0)::bigint`.as('inTheWayBytes'),
      sql<number>`coalesce(sum(entry_bytes) filter (where standing = 'doubted'), 0)::bigint`.as('doubtedBytes'),
    ])
    .where(
      anyOf(
        'load_id',
        troubled.map((mirror) => mirror.loadId),
      ),
    )
    .where('onCard', '=', true)
    .where('standing', 'in', ['differs', 'conflict', 'changed', 'doubted'])
    .groupBy(['loadId', 'volumeId'])
    .execute()
}

type MirrorRow = Awaited<ReturnType<typeof mirrorsOf>>[number]

/** Copies with files that may have been replaced, on volumes that are connected to a computer. */
export const doubtedCopies = (db: Db, host: string) =>
  db
    .selectFrom('mirror')
    .innerJoin('mount', (join) => join.onRef('mount.volumeId', '=', 'mirror.volumeId').on('mount.host', '=', host))
    .innerJoin('volume', 'volume.id', 'mirror.volumeId')
    .innerJoin('load', 'load.id', 'mirror.loadId')
    .select([
      'mirror.loadId',
      'mirror.volumeId',
      'mirror.filesDoubted',
      'volume.name',
      'load.label',
      'load.productionId',
    ])
    .select('mount.readBytesPerSecond')
    .where('filesDoubted', '>', 0)
    .where('mirror.present', '=', true)
    .where('mount.connected', '=', true)
    .execute()

/** How a file of a copy lies on a volume, where its file system tells; `undefined` where there is no copy of it. */
export const stampedCopy = (db: Db, volumeId: string, entryId: number) =>
  db
    .selectFrom('copyFile')
    .innerJoin('mirror', (join) =>
      join.onRef('mirror.loadId', '=', 'copyFile.loadId').onRef('mirror.volumeId', '=', 'copyFile.volumeId'),
    )
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .select(['copyFile.inode', 'copyFile.changedMs', 'mirror.folder', 'loadEntry.path'])
    .where('copyFile.volumeId', '=', volumeId)
    .where('copyFile.entryId', '=', entryId)
    .executeTakeFirst()

/** Copies of one file that are proved, on volumes that are connected to a computer. */
export const provedCopies = (db: Db, host: string, entryId: number) =>
  db
    .selectFrom('copyFile')
    .innerJoin('mirror', (join) =>
      join.onRef('mirror.loadId', '=', 'copyFile.loadId').onRef('mirror.volumeId', '=', 'copyFile.volumeId'),
    )
    .innerJoin('mount', (join) => join.onRef('mount.volumeId', '=', 'copyFile.volumeId').on('mount.host', '=', host))
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .select(['copyFile.volumeId', 'copyFile.provedAt', 'copyFile.standing', 'mirror.folder', 'loadEntry.path'])
    .where('copyFile.entryId', '=', entryId)
    .where('copyFile.standing', 'in', ['verified', 'memory'])
    .where('mount.connected', '=', true)
    .execute()

/** Bytes of files of cards, by their ids. */
export const entrySizes = async (db: Db, ids: readonly number[]): Promise<ReadonlyMap<number, number>> =>
  ids.length === 0
    ? new Map()
    : new Map(
        (await db.selectFrom('loadEntry').select(['id', 'sizeBytes']).where(anyNumberOf('id', ids)).execute()).map(
          (row) => [row.id, row.sizeBytes],
        ),
      )

/** A copy was touched by us; not where it was proved anew meanwhile. */
export const touchCopy = (
  db: Db,
  { volumeId, entryId, from, to }: { volumeId: string; entryId: number; from: number; to: number },
) =>
  db
    .updateTable('copyFile')
    .set({ changedMs: to })
    .where('volumeId', '=', volumeId)
    .where('entryId', '=', entryId)
    .where('changedMs', '=', from)
    .execute()

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
    .select(['proof.sizeBytes as provedBytes', 'copyFile.inode', 'copyFile.changedMs'])
    // A clock that was put forward or back is no change.
    .select((at) => at.fn.coalesce('copyFile.modifiedMs', 'proof.modifiedMs').as('modifiedMs'))
    .select(['loadEntry.path', 'loadEntry.pathText', 'loadEntry.sizeBytes'])
    .where('copyFile.loadId', '=', loadId)
    .where('copyFile.volumeId', '=', volumeId)
    .where('loadEntry.state', '!=', 'replaced')
    .where('copyFile.standing', 'in', ['verified', 'memory', 'missing', 'changed', 'doubted'])
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
