import { sql } from 'kysely'
import type { CopyRecord } from '../../engine/copy'
import type { Db } from '../connection'
import { NO_ID } from './shoot'

export const planCopy = (db: Db, loadId: string, volumeId: string, folder: string) =>
  db
    .insertInto('copyPlan')
    .values({ loadId, volumeId, folder })
    .onConflict((at) => at.columns(['loadId', 'volumeId']).doNothing())
    .execute()

export const copyPlans = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('copyPlan')
    .innerJoin('volume', 'volume.id', 'copyPlan.volumeId')
    .select(['loadId', 'volumeId', 'folder', 'volume.name', 'volume.site'])
    .where('loadId', 'in', [...loadIds, NO_ID])
    .orderBy('copyPlan.plannedAt')
    .orderBy('volume.name')
    .execute()

/** The latest fact of each file on each volume. */
const latestFacts = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('copyFact')
    .distinctOn(['loadId', 'volumeId', 'entryId'])
    .selectAll()
    .where('loadId', 'in', [...loadIds, NO_ID])
    .orderBy('loadId')
    .orderBy('volumeId')
    .orderBy('entryId')
    .orderBy('id', 'desc')

/** Files on the card by what their latest fact says, for each load and volume. */
export const copyCounts = (db: Db, loadIds: readonly string[]) =>
  db
    .with('latest', () => latestFacts(db, loadIds))
    .selectFrom('latest')
    .innerJoin('loadEntry', 'loadEntry.id', 'latest.entryId')
    .select([
      'latest.loadId',
      'latest.volumeId',
      sql<number>`count(*) filter (where latest.kind = 'proved')`.as('proved'),
      sql<number>`count(*) filter (where latest.kind = 'proved' and latest.from_medium)`.as('fromMedium'),
      sql<number>`count(*) filter (where latest.kind = 'mismatch')`.as('mismatched'),
      sql<number>`count(*) filter (where latest.kind = 'conflict')`.as('conflicts'),
      sql<number>`coalesce(sum(load_entry.size_bytes) filter (where latest.kind = 'proved'), 0)::bigint`.as(
        'sizeBytes',
      ),
      sql<Date | null>`max(latest.at) filter (where latest.kind = 'proved')`.as('lastProvedAt'),
    ])
    .where('loadEntry.state', '=', 'on-card')
    .groupBy(['latest.loadId', 'latest.volumeId'])
    .execute()

export const copyTroubles = (db: Db, loadId: string) =>
  db
    .with('latest', () => latestFacts(db, [loadId]))
    .selectFrom('latest')
    .innerJoin('loadEntry', 'loadEntry.id', 'latest.entryId')
    .select([
      'latest.volumeId',
      'latest.entryId',
      'latest.kind',
      'latest.hash',
      'latest.found',
      'loadEntry.pathText',
      'loadEntry.path',
    ])
    .where('latest.kind', '!=', 'proved')
    .where('loadEntry.state', '=', 'on-card')
    .orderBy('loadEntry.path')
    .limit(500)
    .execute()

/** Hash and path of every file that is proved on a volume, also of those that are gone from the card. */
export const provedOn = (db: Db, loadId: string, volumeId: string) =>
  db
    .with('latest', () => latestFacts(db, [loadId]))
    .selectFrom('latest')
    .innerJoin('loadEntry', 'loadEntry.id', 'latest.entryId')
    .select(['latest.entryId', 'latest.hash', 'loadEntry.path', 'loadEntry.sizeBytes'])
    .where('latest.volumeId', '=', volumeId)
    .where('latest.kind', '=', 'proved')
    .where('loadEntry.state', '!=', 'replaced')
    .orderBy('loadEntry.path')
    .execute()

/** Volumes that hold a proved copy of one file, with the folder of the mirror there. */
export const holdersOf = (db: Db, loadId: string, entryId: number) =>
  db
    .with('latest', () => latestFacts(db, [loadId]))
    .selectFrom('latest')
    .innerJoin('copyPlan', (join) =>
      join.onRef('copyPlan.loadId', '=', 'latest.loadId').onRef('copyPlan.volumeId', '=', 'latest.volumeId'),
    )
    .innerJoin('volume', 'volume.id', 'latest.volumeId')
    .select(['copyPlan.folder'])
    .selectAll('volume')
    .where('latest.entryId', '=', entryId)
    .where('latest.kind', '=', 'proved')
    .orderBy(sql`volume.kind = 'edit'`, 'desc')
    .execute()

/** Writes what the engine reported of single files; records about a whole side are the task's to tell. */
export async function addCopyFacts(
  db: Db,
  loadId: string,
  taskId: string,
  records: readonly CopyRecord[],
): Promise<void> {
  const rows = records.flatMap((record) => {
    if (record.kind === 'source-failed' || record.kind === 'destination-failed') return []
    const shared = { loadId, taskId, entryId: record.fileId, volumeId: record.destinationId, kind: record.kind }
    return [
      record.kind === 'proved'
        ? { ...shared, hash: record.hash, found: null, fromMedium: record.fromMedium }
        : { ...shared, hash: record.wanted, found: record.found, fromMedium: false },
    ]
  })
  for (let at = 0; at < rows.length; at += 1000)
    await db
      .insertInto('copyFact')
      .values(rows.slice(at, at + 1000))
      .execute()
}
