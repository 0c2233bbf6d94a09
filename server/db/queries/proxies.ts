import type { Probe } from '../../../core/media/probe'
import type { Db } from '../connection'
import { NO_ID } from './shoot'

export const proxiesOf = (db: Db, clipIds: readonly string[]) =>
  db
    .selectFrom('proxy')
    .innerJoin('volume', 'volume.id', 'proxy.volumeId')
    .selectAll('proxy')
    .select('volume.name as volumeName')
    .where('clipId', 'in', [...clipIds, NO_ID])
    .execute()

export const putProxy = (
  db: Db,
  { probe, ...rest }: { clipId: string; volumeId: string; path: string; sizeBytes: number; probe: Probe },
) => {
  const values = { ...rest, probe: JSON.stringify(probe), madeAt: new Date() }
  return db
    .insertInto('proxy')
    .values(values)
    .onConflict((at) => at.column('clipId').doUpdateSet(values))
    .execute()
}
