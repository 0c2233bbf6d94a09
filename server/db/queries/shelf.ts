import type { Db } from '../connection'
import { NO_ID } from './shoot'

export const bagsOf = (db: Db, productionIds: readonly string[]) =>
  db
    .selectFrom('bag')
    .innerJoin('volume', 'volume.id', 'bag.volumeId')
    .innerJoin('deliverable', 'deliverable.id', 'bag.deliverableId')
    .selectAll('bag')
    .select(['volume.name as volumeName', 'volume.site', 'deliverable.path as deliverablePath'])
    .where('bag.productionId', 'in', [...productionIds, NO_ID])
    .orderBy('writtenAt', 'desc')
    .execute()

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
) => db.insertInto('bag').values(values).execute()
