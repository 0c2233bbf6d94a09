import { sql } from 'kysely'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'

/** Recordings that are looked at: the newest of each camera tell more than all of ten years. */
const MOST = 200

/** What clips of cameras came to, by load and kind, the newest first. */
export const recordedBy = (db: Db, cameraIds: readonly string[]) =>
  db
    .selectFrom('recorded')
    .innerJoin('production', 'production.id', 'recorded.productionId')
    .selectAll('recorded')
    .select('production.title as production')
    .where(anyOf('recorded.camera_id', cameraIds))
    .orderBy('recorded.at', 'desc')
    .limit(MOST)
    .execute()

/** Cards that were emptied, the newest first: with the time it took, or with what raw frames became. */
export const offloads = (db: Db) => db.selectFrom('offload').selectAll().orderBy('at', 'desc').limit(MOST).execute()

/** Loads of a production of which nobody has said which camera filmed them. */
export const loadsWithoutCamera = async (db: Db, productionId: string): Promise<number> =>
  (
    await db
      .selectFrom('load')
      .select(({ fn }) => fn.countAll<number>().as('n'))
      .where('productionId', '=', productionId)
      .where('cameraId', 'is', null)
      .executeTakeFirstOrThrow()
  ).n

/** Counts what the clips of a load came to, by frame, rate and codec, in place of what was counted before. */
export async function countRecorded(db: Db, loadId: string): Promise<void> {
  await db.deleteFrom('recorded').where('loadId', '=', loadId).execute()
  await sql`
    insert into recorded (production_id, load_id, camera_id, label, width_px, height_px, rate, codec, clips, size_bytes, seconds)
    select load.production_id, load.id, load.camera_id, load.label,
      coalesce((probe#>>'{video,widthPx}')::int, 0), coalesce((probe#>>'{video,heightPx}')::int, 0),
      coalesce((probe#>>'{video,rate,num}') || '/' || (probe#>>'{video,rate,den}'), ''), file.codec,
      count(*), sum(file.size_bytes), sum(file.seconds)
    from media_file file join load on load.id = file.load_id
    where file.load_id = ${loadId} and file.shown and not file.wrong and file.seconds > 0
    group by load.id, 5, 6, 7, file.codec`.execute(db)
}

export interface NewOffload {
  readonly productionId: string
  readonly loadId: string | null
  readonly cameraId: string | null
  readonly label: string
  readonly sizeBytes: number
  readonly seconds: number | null
  readonly exportedBytes: number | null
}

export const addOffload = (db: Db, values: NewOffload) =>
  db.insertInto('offload').values(values).returning('id').executeTakeFirstOrThrow()

/** Removes what a person typed of a card that was emptied; what was measured stays. `undefined` when there is none. */
export const removeOffload = (db: Db, id: string) =>
  db.deleteFrom('offload').where('id', '=', id).where('loadId', 'is', null).returning('id').executeTakeFirst()

/** The newest load of each camera with a finding about its clock. */
export const clocksOff = (db: Db, cameraIds: readonly string[]) =>
  db
    .selectFrom('camera')
    .innerJoinLateral(
      (at) =>
        at
          .selectFrom('load')
          .whereRef('load.cameraId', '=', 'camera.id')
          .select(['load.label', 'load.clipFindings'])
          .orderBy('load.createdAt', 'desc')
          .limit(1)
          .as('newest'),
      (join) => join.onTrue(),
    )
    .select(['camera.name as camera', 'newest.label as load'])
    .where(anyOf('camera.id', cameraIds))
    .where(sql<boolean>`newest.clip_findings @> '[{"kind": "clock"}]'::jsonb`)
    .orderBy('camera.name')
    .execute()
