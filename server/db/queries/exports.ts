import { sql } from 'kysely'
import type { MeasuredDelivery } from '../../../core/exports/check'
import type { DeliveryChoice } from '../../../core/exports/plan'
import type { CropWindow } from '../../../core/exports/reframe'
import type { MediaFacts } from '../../../core/media/facts'
import type { PageAsked } from '../../../contract/page'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import { pageOf } from '../page'

const withMaster = (db: Db) =>
  db
    .selectFrom('deliverable')
    .innerJoin('mediaFile', 'mediaFile.id', 'deliverable.mediaFileId')
    .innerJoin('volume', 'volume.id', 'deliverable.volumeId')
    .selectAll('deliverable')
    .select(['mediaFile.name as clipName', 'mediaFile.probe as master', 'volume.name as volumeName'])

/** Deliverables of a production, the newest first where it is asked for. */
export const deliverablePage = (db: Db, productionId: string, asked: PageAsked) =>
  pageOf(
    withMaster(db).where('deliverable.productionId', '=', productionId),
    { by: 'deliverable.made_at', type: 'timestamptz', id: 'deliverable.id' },
    asked,
  )

export type DeliverableRow = Awaited<ReturnType<typeof deliverablePage>>['rows'][number]

/** How many deliverables each production has, and how many of them fail a check. */
export const deliverableCounts = (db: Db, productionIds: readonly string[]) =>
  db
    .selectFrom('deliverable')
    .select([
      'productionId',
      sql<number>`count(*)`.as('made'),
      // One that was rendered again since, and passed, is no trouble any more, nor one that lies on the shelf, where
      // somebody said why.
      sql<number>`count(*) filter (where not pass and not exists (select from deliverable again
        where again.media_file_id = deliverable.media_file_id and again.destination_id = deliverable.destination_id
          and again.pass and again.made_at > deliverable.made_at)
        and not exists (select from bag where bag.deliverable_id = deliverable.id))`.as('failed'),
      sql<number>`count(*) filter (where pass and not exists (select from bag where bag.deliverable_id = deliverable.id))`.as(
        'unshelved',
      ),
      // The volumes that hold the bags of each.
      sql<
        string[][]
      >`jsonb_agg(coalesce((select jsonb_agg(distinct bag.volume_id) from bag where bag.deliverable_id = deliverable.id), '[]'))`.as(
        'shelves',
      ),
    ])
    .where(anyOf('production_id', productionIds))
    .groupBy('productionId')
    .execute()

/** A deliverable; `undefined` when there is none. */
export const deliverable = (db: Db, id: string) => withMaster(db).where('deliverable.id', '=', id).executeTakeFirst()

/** Whether a file is known as a deliverable already. */
export const deliverableAt = (db: Db, volumeId: string, path: string) =>
  db.selectFrom('deliverable').select('id').where('volumeId', '=', volumeId).where('path', '=', path).executeTakeFirst()

/** A finished file with what was measured of it. */
export interface NewDeliverable {
  readonly productionId: string
  readonly mediaFileId: string
  readonly destinationId: string
  readonly cropWindow: CropWindow
  readonly volumeId: string
  readonly path: string
  readonly sizeBytes: number
  readonly probe: MediaFacts
  readonly choice: DeliveryChoice
  readonly measured: MeasuredDelivery
  /** Passes every check. */
  readonly pass: boolean
}

/** Writes a finished file down and returns its id. */
export const addDeliverable = (db: Db, { cropWindow, choice, probe, measured, ...rest }: NewDeliverable) =>
  db
    .insertInto('deliverable')
    .values({
      ...rest,
      cropWindow: JSON.stringify(cropWindow),
      probe: JSON.stringify(probe),
      choice: JSON.stringify(choice),
      measured: JSON.stringify(measured),
    })
    .returning('id')
    .executeTakeFirstOrThrow()
