import { sql, type Kysely } from 'kysely'

/** As in 0004, with files that may have been replaced since they were proved. */
const COUNTED = ['verified', 'memory', 'missing', 'changed', 'doubted', 'differs', 'conflict'] as const
const columnOf = (standing: (typeof COUNTED)[number]) => `files_${standing === 'differs' ? 'differ' : standing}`

const countFiles = (event: 'insert' | 'update') => `
  create or replace function count_copy_files_${event}() returns trigger language plpgsql as $$
    begin
      update mirror set
        ${COUNTED.map((one) => `${columnOf(one)} = mirror.${columnOf(one)} + delta.${one}`).join(', ')},
        size_bytes = mirror.size_bytes + delta.bytes, copied_bytes = mirror.copied_bytes + delta.all_bytes
      from (
        select load_id, volume_id,
          ${COUNTED.map((one) => `coalesce(sum(sign) filter (where on_card and standing = '${one}'), 0) as ${one}`).join(', ')},
          coalesce(sum(sign * entry_bytes) filter (where on_card and standing in ('verified', 'memory')), 0) as bytes,
          coalesce(sum(sign * entry_bytes) filter (where standing in ('verified', 'memory')), 0) as all_bytes
        from (select load_id, volume_id, standing, on_card, entry_bytes, 1 as sign from new_files
          ${event === 'update' ? 'union all select load_id, volume_id, standing, on_card, entry_bytes, -1 from old_files' : ''}) as files
        group by load_id, volume_id) as delta
      where mirror.load_id = delta.load_id and mirror.volume_id = delta.volume_id
        and not (${COUNTED.map((one) => `delta.${one} = 0`).join(' and ')} and delta.bytes = 0 and delta.all_bytes = 0);
      return null;
    end $$`

/** Columns that two migrations got after some databases had been opened by them. */
const LACKING = [
  `alter table load_summary add column if not exists media int not null default 0`,
  `update load_summary s set media = counted.media from (
    select load_id, production_id, count(*) filter (where shown) as media from clip group by load_id, production_id) counted
    where counted.load_id = s.load_id and counted.production_id = s.production_id and counted.media <> s.media`,
  `alter table load add column if not exists read_from_twin boolean not null default false,
    add column if not exists rig_proposed boolean not null default false`,
]

/** Stays of cards in readers, and how each was compared with what is known of its load. */
const STAYS = [
  `create table stay (
    id uuid primary key default gen_random_uuid(), reader_id uuid not null references reader, host text not null,
    came_at timestamptz not null default clock_timestamp(), seen_at timestamptz not null default clock_timestamp(),
    left_at timestamptz, left_how text, mark jsonb not null, swaps_seen boolean not null,
    load_id uuid references load, twin_id uuid references twin, known_how text check (known_how in ('first-look', 'compared')), tried text[] not null default '{}')`,
  `create unique index stay_open on stay (reader_id) where left_at is null`,
  `create index stay_load on stay (load_id)`,
  `create index stay_twin on stay (twin_id) where twin_id is not null`,
  `create index stay_reader on stay (reader_id, came_at desc)`,
  `alter table reader add column stay_id uuid references stay`,
  `create index reader_stay on reader (stay_id)`,
  `create table comparison (
    id bigint generated always as identity primary key, at timestamptz not null default clock_timestamp(),
    stay_id uuid not null references stay, load_id uuid not null references load, print text not null, how text not null check (how in ('places', 'whole')),
    clips int not null, compared int not null, with_copies int not null, unreadable int not null, differing int not null,
    volume_names jsonb not null, paths jsonb not null, seed text not null)`,
  `create index comparison_stay on comparison (stay_id, id desc)`,
  `create index comparison_load on comparison (load_id)`,
  `alter table twin_reading add column stay_id uuid references stay`,
  `create index twin_reading_stay on twin_reading (stay_id)`,
  // Two computers may call a reader alike, and mount their cards at one path.
  `alter table reader drop constraint if exists reader_name_key, drop constraint if exists reader_root_path_key`,
  `drop index reader_name`,
  `create unique index reader_name on reader (host, lower(name))`,
]

/** What a file system tells of a file beside size and time, and the ends of what was read. */
const STAMPS = [
  `alter table proof add column inode text, add column changed_ms double precision, add column ends text,
    add column source_volume_id uuid references volume`,
  `create index proof_source on proof (source_volume_id) where source_volume_id is not null`,
  `alter table copy_file add column inode text, add column changed_ms double precision, add column modified_ms double precision`,
  `alter table copy_file drop constraint copy_file_listed_check,
    add constraint copy_file_listed_check check (listed in ('as-proved', 'absent', 'changed', 'doubted'))`,
  `alter table copy_file drop constraint copy_file_standing_check, add constraint copy_file_standing_check
    check (standing in ('verified', 'memory', 'missing', 'changed', 'doubted', 'differs', 'conflict'))`,
  `alter table mirror add column files_doubted int not null default 0, add column mounted jsonb not null default '[]'`,
  countFiles('insert'),
  countFiles('update'),
]

/** What was said by mistake is taken back by saying so. */
const SAID = [
  `alter table said drop constraint said_kind_check, add constraint said_kind_check
    check (kind in ('answered', 'spot-played', 'formatted', 'unformatted', 'different-drives'))`,
]

/** Who runs what, and how the books know that they are older than a drive. */
const WORK = [
  `alter table attempt add column alive_at timestamptz not null default clock_timestamp()`,
  `create table books_mark (
    token uuid primary key default gen_random_uuid(), number bigint generated always as identity unique,
    at timestamptz not null default clock_timestamp())`,
  `alter table mount add column books_number bigint, add column books_at timestamptz`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of [...LACKING, ...STAYS, ...STAMPS, ...SAID, ...WORK]) await sql.raw(statement).execute(db)
}
