import { sql, type Kysely } from 'kysely'

/** A row that was called a clip is a media file; its ids stay. */
const MEDIA_FILES = [
  `drop trigger if exists count_clips_insert on clip`,
  `drop trigger if exists count_clips_update on clip`,
  `drop trigger if exists clip_recorded on clip`,
  `drop trigger if exists move_proxy_bytes on clip`,
  `drop trigger if exists count_proxy_bytes on proxy`,
  `drop trigger if exists follow_entry on load_entry`,
  `drop function if exists count_clips()`,
  `drop function if exists clip_recorded()`,
  `alter table clip rename to media_file`,
  ...['proof', 'proxy', 'proxy_sample', 'deliverable', 'journal', 'review'].map(
    (table) => `alter table ${table} rename column clip_id to media_file_id`,
  ),
  // What stands on it is called after it.
  `do $$ declare one record; begin
    for one in select conrelid::regclass as table_name, conname as name from pg_constraint
      where connamespace = 'public'::regnamespace and conname like '%clip%' and conrelid::regclass::text <> 'clip_file' loop
      execute format('alter table %s rename constraint %I to %I', one.table_name, one.name,
        regexp_replace(regexp_replace(one.name, '^clip_', 'media_file_'), '_clip_', '_media_file_'));
    end loop;
    for one in select indexname as name from pg_indexes
      where schemaname = 'public' and tablename <> 'clip_file' and indexname ~ '(^clip_|_clip$)' loop
      execute format('alter index %I rename to %I', one.name,
        regexp_replace(regexp_replace(one.name, '^clip_', 'media_file_'), '_clip$', '_media_file'));
    end loop;
  end $$`,
]

/** What an editor sees as one: its files, of one card or of several, each with what it is there. */
const TAKES = [
  `create table take (
    id uuid primary key references media_file, parts int not null default 1, rig_take_id uuid references take on delete set null)`,
  `create index take_rig on take (rig_take_id) where rig_take_id is not null`,
  `create table take_file (
    entry_id bigint primary key references load_entry, take_id uuid not null references take,
    media_file_id uuid unique references media_file, main boolean not null,
    role text not null check (role in ('picture', 'sound', 'frames', 'sidecar', 'camera-proxy', 'thumbnail')),
    part int not null default 1, number int, check (not main or media_file_id is not null))`,
  `create index take_file_take on take_file (take_id, part)`,
  `create index take_file_goes_on on take_file (media_file_id) where main and part > 1`,
  `alter table media_file add column goes_on boolean not null default false`,
  `insert into take (id) select distinct coalesce(take_id, id) from media_file where member_of is null`,
  `insert into take_file (entry_id, take_id, media_file_id, main, role, part, number)
    select distinct on (f.entry_id) f.entry_id, coalesce(c.take_id, c.id), own.id, own.id is not distinct from c.id, f.role, coalesce(c.part, 1), f.number
    from clip_file f join media_file c on c.id = f.clip_id left join media_file own on own.entry_id = f.entry_id
    where c.member_of is null and f.role not in ('part', 'lens')
    order by f.entry_id, own.id is not distinct from c.id desc, c.on_card desc, c.id`,
  // Files of a look that did not end, and what was told of a card before clips had files.
  `insert into take (id) select id from media_file c
    where not exists (select from take_file f where f.entry_id = c.entry_id) on conflict do nothing`,
  `insert into take_file (entry_id, take_id, media_file_id, main, role)
    select entry_id, id, id, true, case when has_picture then 'picture' else 'sound' end from media_file c
    where not exists (select from take_file f where f.entry_id = c.entry_id)`,
  `update media_file set goes_on = true where part > 1`,
  `update take set parts = counted.parts from (
    select f.take_id, count(distinct f.part) as parts from take_file f join media_file file on file.id = f.media_file_id where f.main and file.shown group by f.take_id) counted
    where counted.take_id = take.id and counted.parts > 1`,
  `update take set rig_take_id = coalesce(head.take_id, head.id)
    from media_file lens join media_file head on head.id = lens.lens_of where take.id = coalesce(lens.take_id, lens.id)
      and exists (select from take t where t.id = coalesce(head.take_id, head.id))`,
  `update take set rig_take_id = id where id in (select rig_take_id from take)`,
  `drop table clip_file`,
  `alter table media_file drop column member_of, drop column take_id, drop column part, drop column parts, drop column lens_of, drop column sidecars`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of [...MEDIA_FILES, ...TAKES]) await sql.raw(statement).execute(db)
}
