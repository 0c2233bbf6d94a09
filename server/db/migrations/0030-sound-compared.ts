import { sql, type Kysely } from 'kysely'

/** Decoded sound is compared with the original's from now on: proxies with sound that an older check called equal are to be checked. */
export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of [
    `alter table proxy add column sounds jsonb`,
    `alter table load_summary add column proxies_unchecked int not null default 0`,
    `alter table media_file drop constraint if exists media_file_proxy_check`,
    `alter table media_file add constraint media_file_proxy_check check (proxy in ('none', 'unchecked', 'equal', 'differs'))`,
    `update media_file set proxy = 'unchecked' where proxy = 'equal' and probe -> 'audio' is not null`,
    `update load_summary s set
      proxies_equal = counted.equal, proxies_unchecked = counted.unchecked, proxy_bytes_open = counted.open
      from (select load_id, production_id,
        count(*) filter (where shown and has_video and proxy = 'equal') as equal,
        count(*) filter (where shown and has_video and proxy = 'unchecked') as unchecked,
        coalesce(sum(proxy_bytes) filter (where shown and has_video and proxy not in ('equal', 'unchecked')), 0) as open
        from media_file group by load_id, production_id) counted
      where counted.load_id = s.load_id and counted.production_id = s.production_id`,
    `create index media_file_unchecked on media_file (production_id, sort_path) where proxy = 'unchecked'`,
  ])
    await sql.raw(statement).execute(db)
}
