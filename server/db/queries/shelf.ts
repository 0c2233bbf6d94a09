import { sql } from 'kysely'
import type { PageAsked } from '../../../contract/page'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import { pageOf } from '../page'

/** Bags of a production, the newest first where it is asked for. */
export const bagPage = (db: Db, productionId: string, asked: PageAsked) =>
  pageOf(
    db
      .selectFrom('bag')
      .innerJoin('volume', 'volume.id', 'bag.volumeId')
      .innerJoin('site', 'site.id', 'volume.siteId')
      .selectAll('bag')
      .select(['volume.name as volumeName', 'site.name as site'])
      .where('bag.productionId', '=', productionId),
    { by: 'bag.written_at', type: 'timestamptz', id: 'bag.id' },
    asked,
  )

/** How many bags each production has, how many were read back, and on which volumes they are. */
export const bagCounts = (db: Db, productionIds: readonly string[]) =>
  db
    .selectFrom('bag')
    .innerJoin('volume', 'volume.id', 'bag.volumeId')
    .select(['productionId', sql<number>`count(*)`.as('written'), sql<number>`count(verified_at)`.as('verified')])
    .select(sql<string[]>`array_agg(distinct volume.name)`.as('volumes'))
    .where(anyOf('production_id', productionIds))
    .groupBy('productionId')
    .execute()

/** The bag at a path of a volume, if one is known. */
export const bagAt = (db: Db, volumeId: string, path: string) =>
  db.selectFrom('bag').select('id').where('volumeId', '=', volumeId).where('path', '=', path).executeTakeFirst()

/** Writes a bag down and returns its id. */
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
