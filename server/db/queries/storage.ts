import { sql } from 'kysely'
import type { Db } from '../connection'
import type { VolumeKind } from '../../../contract/storage'
import type { ByteClass } from '../../../core/storage/budget'

export const volumes = (db: Db) => db.selectFrom('volume').selectAll().orderBy('createdAt').execute()

export const volume = (db: Db, id: string) =>
  db.selectFrom('volume').selectAll().where('id', '=', id).executeTakeFirst()

export const addVolume = (
  db: Db,
  values: {
    id: string
    name: string
    kind: VolumeKind
    site: string
    rootPath: string | null
    simulated: boolean
    capacityBytes: number
    host: string
  },
) => db.insertInto('volume').values(values).execute()

/** A volume that was found again at another place by its marker, or that has lost its place to another. */
export const moveVolume = (db: Db, id: string, place: { rootPath: string | null; host: string }) =>
  db.updateTable('volume').set(place).where('id', '=', id).execute()

export interface KnownBytes {
  readonly productionId: string
  readonly volumeId: string
  readonly byteClass: ByteClass
  readonly sizeBytes: number
}

/** All bytes that are known, by production, volume and class: proved copies, proxies, deliverables, bags and the ledger of the past. */
export async function knownBytes(db: Db): Promise<KnownBytes[]> {
  const { rows } = await sql<KnownBytes>`
    with latest as (
      select distinct on (load_id, volume_id, entry_id) load_id, volume_id, entry_id, kind from copy_fact
      order by load_id, volume_id, entry_id, id desc)
    select load.production_id, latest.volume_id, 'originals' as byte_class, sum(load_entry.size_bytes)::bigint as size_bytes
      from latest join load on load.id = latest.load_id join load_entry on load_entry.id = latest.entry_id
      where latest.kind = 'proved' group by 1, 2
    union all
    select load.production_id, proxy.volume_id, 'generated', sum(proxy.size_bytes)::bigint
      from proxy join clip on clip.id = proxy.clip_id join load on load.id = clip.load_id group by 1, 2
    union all
    select production_id, volume_id, 'outputs', sum(size_bytes)::bigint from deliverable group by 1, 2
    union all
    select production_id, volume_id, 'outputs', sum(size_bytes)::bigint from bag group by 1, 2
    union all
    select production_id, volume_id, byte_class, sum(size_bytes)::bigint from ledger group by 1, 2, 3`.execute(db)
  return rows
}
