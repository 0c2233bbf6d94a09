import type { CameraPlan } from '../../../contract/shoot'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'

export const cameraPlans = (db: Db, productionIds: readonly string[]) =>
  db.selectFrom('cameraPlan').selectAll().where(anyOf('production_id', productionIds)).orderBy('createdAt').execute()

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
