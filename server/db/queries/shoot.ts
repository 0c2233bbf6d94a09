import { frameRate, parseFrameRate } from '../../../core/units/frameRate'
import type { CameraPlan } from '../../../contract/shoot'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'

/** The camera plans of productions, oldest first, each as it is reckoned with and with the rate as it was typed. */
export async function cameraPlans(db: Db, productionIds: readonly string[]) {
  const rows = await db
    .selectFrom('cameraPlan')
    .selectAll()
    .where(anyOf('production_id', productionIds))
    .orderBy('createdAt')
    .execute()
  return rows.map(({ id, productionId, rate, ...row }) => ({
    id,
    productionId,
    rate,
    plan: {
      camera: row.camera,
      widthPx: row.widthPx,
      heightPx: row.heightPx,
      rate: parseFrameRate(rate) ?? frameRate(25),
      videoBitsPerSecond: row.videoBitsPerSecond,
      audioBitsPerSecond: row.audioBitsPerSecond,
      secondsPerTake: row.secondsPerTake,
      takes: row.takes,
      cardBytes: row.cardBytes,
      cardBytesPerSecond: row.cardBytesPerSecond,
      fillLimit: row.fillLimit,
    },
  }))
}

/** Adds a camera’s plan and returns its id. */
export const addCameraPlan = (db: Db, productionId: string, plan: CameraPlan) =>
  db
    .insertInto('cameraPlan')
    .values({ productionId, ...plan })
    .returning('id')
    .executeTakeFirstOrThrow()

/** Changes a plan; `undefined` when there is none. */
export const changeCameraPlan = (db: Db, id: string, plan: CameraPlan) =>
  db.updateTable('cameraPlan').set(plan).where('id', '=', id).returning('id').executeTakeFirst()

/** Removes a plan, which is no fact; `undefined` when there is none. */
export const removeCameraPlan = (db: Db, id: string) =>
  db.deleteFrom('cameraPlan').where('id', '=', id).returning('id').executeTakeFirst()
