import type { Probe } from '../../../core/media/probe'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'

export const proxiesOf = (db: Db, productionIds: readonly string[]) =>
  db
    .selectFrom('proxy')
    .innerJoin('clip', 'clip.id', 'proxy.clipId')
    .innerJoin('volume', 'volume.id', 'proxy.volumeId')
    .selectAll('proxy')
    .select('volume.name as volumeName')
    .where(anyOf('clip.production_id', productionIds))
    .execute()

export const proxyOf = (db: Db, clipId: string) =>
  db.selectFrom('proxy').selectAll().where('clipId', '=', clipId).executeTakeFirst()

export interface NewProxy {
  readonly clipId: string
  readonly volumeId: string
  readonly path: string
  readonly sizeBytes: number
  readonly probe: Probe
  readonly decodedFrames: number
  readonly decodeErrors: number
}

export const putProxy = (db: Db, { probe, ...rest }: NewProxy) => {
  const values = { ...rest, probe: JSON.stringify(probe), madeAt: new Date() }
  return db
    .insertInto('proxy')
    .values(values)
    .onConflict((at) => at.column('clipId').doUpdateSet(values))
    .execute()
}
