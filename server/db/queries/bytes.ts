import type { ByteClass } from '../../../core/storage/budget'
import type { Db } from '../connection'

export interface KnownBytes {
  readonly productionId: string
  readonly volumeId: string
  readonly byteClass: ByteClass
  readonly sizeBytes: number
}

/** All bytes that are known, by production, volume and class, as they were summed with the facts. */
export const knownBytes = (db: Db): Promise<KnownBytes[]> =>
  db.selectFrom('productionBytes').selectAll().where('sizeBytes', '>', 0).execute()
