import { sql, type Kysely } from 'kysely'
import { findingKeyOf } from './core0022/cards/findings'
import { fileTitle } from './core0022/units/fileTitle'

/** Sites, mounts, cards and cameras; no cascade reaches a fact any more. */
const THINGS = [
  `create table site (
    id uuid primary key default gen_random_uuid(), name text not null unique, kind text not null default 'other',
    created_at timestamptz not null default clock_timestamp())`,
  `insert into site (name, kind)
    select distinct site, case when site ilike '%cloud%' then 'cloud' when site ilike '%bag%' or site ilike '%wallet%' or site ilike '%person%' then 'carried' else 'other' end
    from volume`,
  `alter table volume add column site_id uuid references site`,
  `update volume set site_id = (select id from site where site.name = volume.site)`,
  `alter table volume alter column site_id set not null`,
  `create index volume_site on volume (site_id)`,
  `create table mount (
    volume_id uuid not null references volume, host text not null, path text not null, connected boolean not null default false,
    last_seen timestamptz, capacity_bytes bigint, free_bytes bigint, device jsonb, primary key (volume_id, host))`,
  `insert into mount (volume_id, host, path) select id, host, root_path from volume where root_path is not null`,
  `alter table volume drop column site, drop column root_path, drop column host`,
  `create table camera (id uuid primary key default gen_random_uuid(), name text not null unique, created_at timestamptz not null default clock_timestamp())`,
  `create table card (id uuid primary key default gen_random_uuid(), name text not null, capacity_bytes bigint, created_at timestamptz not null default clock_timestamp())`,
  `alter table load add column card_id uuid references card, add column camera_id uuid references camera, add column look_done boolean not null default true`,
  `create index load_card on load (card_id)`,
  `create index load_camera on load (camera_id)`,
  `alter table production add column folder text, add column time_zone text not null default 'UTC'`,
  `alter table reader add column state text not null default 'unreachable', add column card_name text, add column load_id uuid references load,
    add column same boolean not null default false, add column difference text, add column device jsonb, add column seen_at timestamptz`,
  `create index reader_load on reader (load_id)`,
  // What follows from a fact's subject must never take the fact along.
  ...[
    ['load', 'production_id', 'production'],
    ['load', 'reader_id', 'reader'],
    ['load_entry', 'load_id', 'load'],
    ['clip', 'load_id', 'load'],
    ['clip', 'entry_id', 'load_entry'],
    ['proxy', 'clip_id', 'clip'],
    ['proxy', 'volume_id', 'volume'],
    ['deliverable', 'production_id', 'production'],
    ['deliverable', 'clip_id', 'clip'],
    ['deliverable', 'volume_id', 'volume'],
    ['bag', 'production_id', 'production'],
    ['bag', 'deliverable_id', 'deliverable'],
    ['bag', 'volume_id', 'volume'],
    ['ledger', 'production_id', 'production'],
    ['ledger', 'volume_id', 'volume'],
  ].flatMap(([table, column, of]) => [
    `alter table ${table} drop constraint ${table}_${column}_fkey`,
    `alter table ${table} add constraint ${table}_${column}_fkey foreign key (${column}) references ${of}`,
  ]),
  `alter table task drop constraint task_production_id_fkey, drop constraint task_load_id_fkey`,
  `alter table task add constraint task_production_id_fkey foreign key (production_id) references production on delete set null,
    add constraint task_load_id_fkey foreign key (load_id) references load on delete set null`,
  `alter table clip add column production_id uuid references production, add column cut text`,
  `update clip set production_id = (select production_id from load where load.id = clip.load_id)`,
  `alter table clip alter column production_id set not null`,
  `create index clip_production on clip (production_id)`,
  `create table clip_file (
    clip_id uuid not null references clip, entry_id bigint not null references load_entry,
    role text not null check (role in ('picture', 'sound', 'frames', 'sidecar', 'camera-proxy', 'thumbnail', 'part', 'lens')),
    number int, primary key (clip_id, entry_id))`,
  `create index clip_file_entry on clip_file (entry_id)`,
  `insert into clip_file (clip_id, entry_id, role) select id, entry_id, case when has_picture then 'picture' else 'sound' end from clip`,
  `insert into clip_file (clip_id, entry_id, role)
    select clip.id, beside.id, 'sidecar' from clip join load_entry beside on beside.load_id = clip.load_id and beside.kind = 'file'
      and regexp_replace(beside.path_text, '\\.[^./]*$', '') = regexp_replace(clip.path_text, '\\.[^./]*$', '')
    where not exists (select 1 from clip other where other.entry_id = beside.id) on conflict do nothing`,
]

/** Seen, proof and said: written once, never changed. */
const FACTS = [
  `create table seen (
    id bigint generated always as identity primary key, at timestamptz not null default clock_timestamp(),
    place text not null check (place in ('card', 'mirror')), load_id uuid not null references load, volume_id uuid references volume,
    reader_id uuid references reader, node text, device jsonb, print text, file_count int not null, size_bytes bigint not null,
    shift_ms double precision not null default 0)`,
  `create index seen_place on seen (load_id, volume_id, id desc)`,
  `create index seen_volume on seen (volume_id)`,
  `create index seen_print on seen (print)`,
  `create index seen_reader on seen (reader_id, id desc)`,
  `create table seen_change (
    seen_id bigint not null references seen, path bytea not null, change text not null check (change in ('there', 'gone')),
    kind text not null default 'file', size_bytes bigint, modified_ms double precision, primary key (seen_id, path))`,
  `create table proof (
    id bigint generated always as identity primary key, at timestamptz not null default clock_timestamp(),
    what text not null check (what in ('copy', 'proxy', 'deliverable', 'bag')),
    outcome text not null check (outcome in ('equal', 'differs', 'conflict')),
    volume_id uuid not null references volume, path bytea not null, algorithm text not null default 'xxh64', hash text not null, found text,
    size_bytes bigint, modified_ms double precision, past_cache boolean not null, placed boolean not null, run_id uuid not null,
    load_id uuid references load, entry_id bigint references load_entry, clip_id uuid references clip,
    deliverable_id uuid references deliverable, bag_id uuid references bag)`,
  `insert into proof (at, what, outcome, volume_id, path, hash, found, size_bytes, modified_ms, past_cache, placed, run_id, load_id, entry_id)
    select f.at, 'copy', case f.kind when 'proved' then 'equal' when 'mismatch' then 'differs' else 'conflict' end, f.volume_id,
      convert_to(p.folder, 'UTF8') || '\\x2f'::bytea || e.path, f.hash, f.found, e.size_bytes, e.modified_ms, f.from_medium, true, f.task_id, f.load_id, f.entry_id
    from copy_fact f join load_entry e on e.id = f.entry_id join copy_plan p on p.load_id = f.load_id and p.volume_id = f.volume_id order by f.id`,
  `create index proof_entry on proof (entry_id, volume_id, id desc)`,
  `create index proof_load on proof (load_id, volume_id, id desc)`,
  `create index proof_volume on proof (volume_id)`,
  `create index proof_clip on proof (clip_id)`,
  `create index proof_deliverable on proof (deliverable_id)`,
  `create index proof_bag on proof (bag_id)`,
  `create table reading (
    id bigint generated always as identity primary key, at timestamptz not null default clock_timestamp(),
    load_id uuid not null references load, volume_id uuid not null references volume, how text not null check (how in ('whole', 'sample')),
    seed text, files int not null, size_bytes bigint not null, wrong int not null, run_id uuid not null)`,
  `create index reading_copy on reading (load_id, volume_id, id desc)`,
  `create index reading_volume on reading (volume_id)`,
  `create table load_sample (
    load_id uuid not null references load, entry_id bigint not null references load_entry, hash text not null,
    taken_at timestamptz not null default clock_timestamp(), primary key (entry_id))`,
  `create index load_sample_load on load_sample (load_id)`,
  `create table said (
    id bigint generated always as identity primary key, at timestamptz not null default clock_timestamp(),
    kind text not null check (kind in ('answered', 'spot-played', 'formatted', 'different-drives')),
    load_id uuid references load, volume_id uuid references volume, other_volume_id uuid references volume,
    entry_id bigint references load_entry, against text, detail jsonb not null default '{}')`,
  `create index said_load on said (load_id, kind, id desc)`,
  `create index said_volume on said (volume_id)`,
  `create index said_other on said (other_volume_id)`,
  `create index said_entry on said (entry_id)`,
  `insert into seen (at, place, load_id, reader_id, print, file_count, size_bytes)
    select e.at, 'card', e.load_id, (select id from reader where id::text = e.detail->>'readerId'), e.detail->>'print', l.file_count, l.size_bytes
    from event e join load l on l.id = e.load_id where e.kind = 'looked-at' order by e.id`,
  `insert into seen_change (seen_id, path, change, kind, size_bytes, modified_ms)
    select s.id, e.path, 'there', e.kind, e.size_bytes, e.modified_ms from load_entry e
    join (select load_id, max(id) as id from seen where place = 'card' group by load_id) s on s.load_id = e.load_id where e.state = 'on-card'`,
  `insert into said (at, kind, load_id, volume_id, entry_id, detail)
    select e.at, case e.kind when 'said-formatted' then 'formatted' else e.kind end, e.load_id, e.volume_id, clip.entry_id, e.detail
    from event e left join clip on clip.id = e.clip_id where e.kind in ('answered', 'spot-played', 'said-formatted') order by e.id`,
  // A copy that was looked at with a program of one's own: the mark belongs to its largest file.
  `update said set entry_id = (select e.id from load_entry e where e.load_id = said.load_id and e.kind = 'file' and e.state = 'on-card' order by e.size_bytes desc, e.id limit 1)
    where kind = 'spot-played' and entry_id is null`,
  `delete from event where kind in ('looked-at', 'answered', 'spot-played', 'said-formatted')`,
  `alter table event rename to journal`,
  `alter table journal drop constraint event_production_id_fkey, drop constraint event_load_id_fkey, drop constraint event_volume_id_fkey, drop constraint event_clip_id_fkey`,
  `drop index event_look`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of [...THINGS, ...FACTS]) await sql.raw(statement).execute(db)
  await giveFolders(db)
  await keepAnswers(db)
}

/** Productions that shared a folder from now on have one each; the oldest keeps its own. */
async function giveFolders(db: Kysely<unknown>): Promise<void> {
  const taken = new Set<string>()
  const { rows } = await sql<{
    id: string
    title: string
  }>`select id, title from production order by created_at`.execute(db)
  for (const { id, title } of rows) {
    let folder = fileTitle(title)
    for (let turn = 2; taken.has(folder.toLowerCase()); turn += 1) folder = `${fileTitle(title)} (${turn})`
    taken.add(folder.toLowerCase())
    await sql`update production set folder = ${folder} where id = ${id}`.execute(db)
  }
  await sql.raw(`alter table production alter column folder set not null`).execute(db)
  await sql.raw(`create unique index production_folder on production (lower(folder))`).execute(db)
}

/** Answers were found again by the list of all paths; now by the print of it. */
async function keepAnswers(db: Kysely<unknown>): Promise<void> {
  const { rows } = await sql<{
    id: number
    key: string
  }>`select id, detail->>'key' as key from said where kind = 'answered'`.execute(db)
  for (const { id, key } of rows) {
    const [kind = '', ...paths] = key.split('\n')
    await sql`update said set detail = jsonb_set(detail, '{key}', to_jsonb(${findingKeyOf(kind, paths)}::text)) where id = ${id}`.execute(
      db,
    )
  }
}
