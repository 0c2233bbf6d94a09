import type { BlackBars } from '../../../core/exports/check'
import type { CropWindow } from '../../../core/exports/reframe'
import type { Probe } from '../../../core/media/probe'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'

export const deliverablesOf = (db: Db, productionIds: readonly string[]) =>
  db
    .selectFrom('deliverable')
    .innerJoin('clip', 'clip.id', 'deliverable.clipId')
    .innerJoin('volume', 'volume.id', 'deliverable.volumeId')
    .selectAll('deliverable')
    .select(['clip.name as clipName', 'clip.probe as master', 'volume.name as volumeName'])
    .where(anyOf('deliverable.production_id', productionIds))
    .orderBy('madeAt', 'desc')
    .execute()

export const deliverable = (db: Db, id: string) =>
  db.selectFrom('deliverable').selectAll().where('id', '=', id).executeTakeFirst()

/** Whether a file is known as a deliverable already. */
export const deliverableAt = (db: Db, volumeId: string, path: string) =>
  db.selectFrom('deliverable').select('id').where('volumeId', '=', volumeId).where('path', '=', path).executeTakeFirst()

export interface NewDeliverable {
  readonly productionId: string
  readonly clipId: string
  readonly destinationId: string
  readonly cropWindow: CropWindow
  readonly volumeId: string
  readonly path: string
  readonly sizeBytes: number
  readonly probe: Probe
  readonly bars: BlackBars
}

export const addDeliverable = (db: Db, { cropWindow, probe, bars, ...rest }: NewDeliverable) =>
  db
    .insertInto('deliverable')
    .values({
      ...rest,
      cropWindow: JSON.stringify(cropWindow),
      probe: JSON.stringify(probe),
      bars: JSON.stringify(bars),
    })
    .returning('id')
    .executeTakeFirstOrThrow()
