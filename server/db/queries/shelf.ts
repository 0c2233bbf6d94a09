import { anyOf } from '../anyOf'
import type { Db } from '../connection'

export const bagsOf = (db: Db, productionIds: readonly string[]) =>
  db
    .selectFrom('bag')
    .innerJoin('volume', 'volume.id', 'bag.volumeId')
    .innerJoin('site', 'site.id', 'volume.siteId')
    .innerJoin('deliverable', 'deliverable.id', 'bag.deliverableId')
    .selectAll('bag')
    .select(['volume.name as volumeName', 'site.name as site', 'deliverable.path as deliverablePath'])
    .where(anyOf('bag.production_id', productionIds))
    .orderBy('writtenAt', 'desc')
    .execute()

export const bagAt = (db: Db, volumeId: string, path: string) =>
  db.selectFrom('bag').select('id').where('volumeId', '=', volumeId).where('path', '=', path).executeTakeFirst()

export const addBag = (
  db: Db,
  values: {
    productionId: string
    deliverableId: string
    volumeId: string
    path: string
    fileCount: number
    sizeBytes: number
    verifiedAt: Date | null
  },
) => db.insertInto('bag').values(values).returning('id').executeTakeFirstOrThrow()
