import { sql } from 'kysely'
import type { ByteClass } from '../../../core/storage/budget'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'

/** Bytes of one class that a production has on a volume. */
export interface KnownBytes {
  readonly productionId: string
  readonly volumeId: string
  readonly byteClass: ByteClass
  readonly sizeBytes: number
}

/** Bytes of productions by volume and class, as they were summed with the facts. */
export const knownBytes = (db: Db, productionIds: readonly string[]): Promise<KnownBytes[]> =>
  db
    .selectFrom('productionBytes')
    .selectAll()
    .where('sizeBytes', '>', 0)
    .where(anyOf('production_id', productionIds))
    .execute()

/** Bytes of all productions together on each volume, by class. */
export const volumeBytes = (db: Db): Promise<Omit<KnownBytes, 'productionId'>[]> =>
  db
    .selectFrom('productionBytes')
    .select(['volumeId', 'byteClass', sql<number>`sum(size_bytes)::bigint`.as('sizeBytes')])
    .where('sizeBytes', '>', 0)
    .groupBy(['volumeId', 'byteClass'])
    .execute()
