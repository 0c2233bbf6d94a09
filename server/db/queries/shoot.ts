import type { CameraPlan } from '../../../contract/shoot'
import type { Db } from '../connection'

export const cameraPlans = (db: Db, productionIds: readonly string[]) =>
  db
    .selectFrom('cameraPlan')
    .selectAll()
    .where('productionId', 'in', [...productionIds, NO_ID])
    .orderBy('createdAt')
    .execute()

/** Keeps an `in` list from being empty, which SQL does not allow. */
export const NO_ID = '00000000-0000-0000-0000-000000000000'

export const addCameraPlan = (db: Db, productionId: string, plan: CameraPlan) =>
  db
    .insertInto('cameraPlan')
    .values({ productionId, ...plan })
    .returning('id')
    .executeTakeFirstOrThrow()

export const changeCameraPlan = (db: Db, id: string, plan: CameraPlan) =>
  db.updateTable('cameraPlan').set(plan).where('id', '=', id).returning('id').executeTakeFirst()

export const removeCameraPlan = (db: Db, id: string) =>
  db.deleteFrom('cameraPlan').where('id', '=', id).returning('id').executeTakeFirst()
