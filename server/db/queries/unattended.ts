import { sql } from 'kysely'
import type { Db } from '../connection'

/**
 * Names of files of each camera, one of all that differ in their numbers alone, from the newest loads that somebody
 * said it filmed.
 */
export async function cameraFileNames(db: Db): Promise<{ cameraId: string; names: string[] }[]> {
  const { rows } = await sql<{ cameraId: string; names: string[] }>`
    select camera_id, array_agg(distinct regexp_replace(regexp_replace(path_text, '^.*/', ''), '[0-9]+', '0', 'g')) as names
    from (select id, camera_id from load where camera_id is not null order by scanned_at desc limit 60) known
    join load_entry on load_entry.load_id = known.id and load_entry.kind = 'file'
    group by camera_id`.execute(db)
  return rows
}

/** The newest scan of the card in a reader, and the newest copy of a load, with how they ended. */
export const latestTask = (db: Db, kind: 'scan' | 'copy', subject: string) =>
  db
    .selectFrom('task')
    .select(['state', 'sentence', 'troubles', 'progress', 'createdAt', 'endedAt'])
    .where('kind', '=', kind)
    .where('subject', '=', subject)
    .orderBy('createdAt', 'desc')
    .limit(1)
    .executeTakeFirst()

/** Loads of a production that were copied in the last hours. */
export const copiedLately = async (db: Db, productionId: string, since: Date): Promise<string[]> =>
  (
    await db
      .selectFrom('task')
      .select('loadId')
      .distinct()
      .where('kind', '=', 'copy')
      .where('productionId', '=', productionId)
      .where('createdAt', '>', since)
      .limit(50)
      .execute()
  ).flatMap((row) => row.loadId ?? [])
