import { sql } from 'kysely'
import { EARLY, MOST_COUNTED, type DueVolume } from '../../../core/copies/cycle'
import type { Db } from '../connection'

/** A tenth of a cycle before its end a copy is due, as `dueBefore` of core says. */
const IS_DUE = sql`c.oldest_at < now() - make_interval(secs => v.cycle_days * 86400 * ${1 - EARLY}::float8)`

interface DueCopyRow {
  readonly loadId: string
  readonly volumeId: string
  readonly label: string
  readonly volumeName: string
  readonly productionId: string
}

/**
 * Copies on connected drives of which something is due, the most endangered first: fewest other good copies, oldest
 * proof, oldest drive.
 */
export const dueCopies = async (db: Db, host: string, limit: number): Promise<DueCopyRow[]> =>
  (
    await sql<DueCopyRow>`
      select c.load_id, c.volume_id, l.label, v.name as volume_name, l.production_id
      from mount join volume v on v.id = mount.volume_id
        join chart_copy c on c.volume_id = v.id
        join mirror m on m.load_id = c.load_id and m.volume_id = c.volume_id
        join load l on l.id = c.load_id
      where mount.host = ${host} and mount.connected and m.present and ${IS_DUE}
      order by c.others, c.oldest_at, v.created_at, c.load_id
      limit ${limit}`.execute(db)
  ).rows

type DueVolumeRow = Omit<DueVolume, 'readBytesPerSecond'> & { readonly readBytesPerSecond: number | null }

/** Each volume with proved copies, also one that is put away, and what is due on it: more than any night can hold is counted no further. */
export const dueVolumes = async (db: Db, host: string): Promise<DueVolumeRow[]> =>
  (
    await sql<DueVolumeRow>`
      select v.name, coalesce(mount.connected, false) as connected, v.cycle_days, mount.read_bytes_per_second, due.*
      from volume v left join mount on mount.volume_id = v.id and mount.host = ${host},
        lateral (
          select count(*)::int as copies, coalesce(sum(bytes), 0)::bigint as bytes,
            (count(*) filter (where oldest_at < now() - make_interval(days => v.cycle_days)))::int as late
          from (
            select m.copied_bytes as bytes, c.oldest_at
            from chart_copy c join mirror m on m.load_id = c.load_id and m.volume_id = c.volume_id
            where c.volume_id = v.id and m.present and ${IS_DUE} order by c.oldest_at limit ${MOST_COUNTED}) as oldest) as due
      where exists (select from chart_copy where volume_id = v.id)
      order by v.created_at`.execute(db)
  ).rows

/** Bytes that were read by night since a moment. */
export const readByNight = async (db: Db, since: Date): Promise<number> => {
  const row = await db
    .selectFrom('reading')
    .select((at) => at.fn.coalesce(at.fn.sum<number>('sizeBytes'), sql<number>`0`).as('bytes'))
    .where('how', '=', 'cycle')
    .where('at', '>=', since)
    .executeTakeFirst()
  return Number(row?.bytes ?? 0)
}

/** Volumes that are connected to a computer. */
export const connectedVolumes = async (db: Db, host: string): Promise<string[]> =>
  (
    await db.selectFrom('mount').select('volumeId').where('host', '=', host).where('connected', '=', true).execute()
  ).map((row) => row.volumeId)

/** The newest load with a copy on a volume, where nothing of that copy was read for so long. */
export const newestUnread = async (db: Db, volumeId: string, before: Date): Promise<DueCopyRow | undefined> =>
  (
    await sql<DueCopyRow & { fresh: boolean }>`
      select newest.* from (
        select l.id as load_id, ${volumeId}::uuid as volume_id, l.label, v.name as volume_name, l.production_id
        from mirror m join load l on l.id = m.load_id join volume v on v.id = m.volume_id
        where m.volume_id = ${volumeId} and m.present and m.files_verified + m.files_memory > 0
        order by l.created_at desc limit 1) as newest
      where not exists (select from reading r where r.volume_id = newest.volume_id and r.load_id = newest.load_id and r.at > ${before})
        and not exists (select from copy_file f where f.volume_id = newest.volume_id and f.load_id = newest.load_id and f.proved_at > ${before})`.execute(
      db,
    )
  ).rows[0]
