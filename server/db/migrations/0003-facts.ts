import { sql, type Kysely } from 'kysely'
import { findingKeyOf } from '../../../core/cards/findings'
import { fileTitle } from '../../../core/shelf/bag'

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

/** What is true now of each file of a copy, and how many are so: kept with the facts, in the same transaction. */
const SUMMARIES = [
  `alter table load_entry add column copied boolean not null default false, add column odd boolean not null default false`,
  `update load_entry set odd = path_text like '%\\\\%', copied = exists (select 1 from proof where proof.entry_id = load_entry.id and outcome = 'equal')`,
  `alter table copy_plan rename to mirror`,
  `alter table mirror drop constraint copy_plan_load_id_fkey, drop constraint copy_plan_volume_id_fkey,
    add constraint mirror_load_id_fkey foreign key (load_id) references load, add constraint mirror_volume_id_fkey foreign key (volume_id) references volume,
    add column present boolean not null default true, add column seen_at timestamptz, add column seen_id bigint references seen,
    add column files_verified int not null default 0, add column files_memory int not null default 0, add column files_missing int not null default 0,
    add column files_changed int not null default 0, add column files_differ int not null default 0, add column files_conflict int not null default 0,
    add column size_bytes bigint not null default 0, add column copied_bytes bigint not null default 0`,
  `create index mirror_seen on mirror (seen_id)`,
  `create table production_bytes (
    production_id uuid not null references production, volume_id uuid not null references volume, byte_class text not null,
    size_bytes bigint not null default 0, primary key (production_id, volume_id, byte_class))`,
  `create index production_bytes_volume on production_bytes (volume_id)`,
  `create table copy_file (
    load_id uuid not null references load, volume_id uuid not null references volume, entry_id bigint not null references load_entry,
    proof_id bigint not null references proof, proved_at timestamptz not null, on_card boolean not null, entry_bytes bigint not null,
    placed_at timestamptz not null, listed text not null default 'as-proved' check (listed in ('as-proved', 'absent', 'changed')),
    absent_at timestamptz, standing text not null check (standing in ('verified', 'memory', 'missing', 'changed', 'differs', 'conflict')),
    primary key (volume_id, entry_id))`,
  `create index copy_file_copy on copy_file (load_id, volume_id, on_card, standing, proved_at)`,
  `create index copy_file_entry on copy_file (entry_id)`,
  `create index copy_file_proof on copy_file (proof_id)`,
  `create table load_finding (
    load_id uuid not null references load, kind text not null, files int not null, print text not null, primary key (load_id, kind))`,
  ...['insert', 'update'].flatMap((event) => {
    const old =
      event === 'update' ? `union all select load_id, volume_id, standing, on_card, entry_bytes, -1 from old_files` : ''
    return [
      `create function count_copy_files_${event}() returns trigger language plpgsql as $$
      begin
        update mirror set
          files_verified = mirror.files_verified + delta.verified, files_memory = mirror.files_memory + delta.memory,
          files_missing = mirror.files_missing + delta.missing, files_changed = mirror.files_changed + delta.changed,
          files_differ = mirror.files_differ + delta.differ, files_conflict = mirror.files_conflict + delta.conflict,
          size_bytes = mirror.size_bytes + delta.bytes, copied_bytes = mirror.copied_bytes + delta.all_bytes
        from (
          select load_id, volume_id,
            coalesce(sum(sign) filter (where on_card and standing = 'verified'), 0) as verified,
            coalesce(sum(sign) filter (where on_card and standing = 'memory'), 0) as memory,
            coalesce(sum(sign) filter (where on_card and standing = 'missing'), 0) as missing,
            coalesce(sum(sign) filter (where on_card and standing = 'changed'), 0) as changed,
            coalesce(sum(sign) filter (where on_card and standing = 'differs'), 0) as differ,
            coalesce(sum(sign) filter (where on_card and standing = 'conflict'), 0) as conflict,
            coalesce(sum(sign * entry_bytes) filter (where on_card and standing in ('verified', 'memory')), 0) as bytes,
            coalesce(sum(sign * entry_bytes) filter (where standing in ('verified', 'memory')), 0) as all_bytes
          from (select load_id, volume_id, standing, on_card, entry_bytes, 1 as sign from new_files ${old}) as files
          group by load_id, volume_id) as delta
        where mirror.load_id = delta.load_id and mirror.volume_id = delta.volume_id
          and (delta.verified, delta.memory, delta.missing, delta.changed, delta.differ, delta.conflict, delta.bytes, delta.all_bytes)
            is distinct from (0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::numeric, 0::numeric);
        return null;
      end $$`,
      `create trigger count_copy_files_${event} after ${event} on copy_file
        referencing new table as new_files ${event === 'update' ? 'old table as old_files' : ''}
        for each statement execute function count_copy_files_${event}()`,
    ]
  }),
  `create function add_production_bytes(production uuid, volume uuid, class text, bytes bigint) returns void language sql as $$
    insert into production_bytes (production_id, volume_id, byte_class, size_bytes) select production, volume, class, bytes where bytes <> 0
    on conflict (production_id, volume_id, byte_class) do update set size_bytes = production_bytes.size_bytes + excluded.size_bytes $$`,
  `create function count_mirror_bytes() returns trigger language plpgsql as $$
    begin
      perform add_production_bytes((select production_id from load where id = new.load_id), new.volume_id, 'originals', new.copied_bytes - old.copied_bytes);
      return null;
    end $$`,
  `create trigger count_mirror_bytes after update of copied_bytes on mirror for each row
    when (new.copied_bytes <> old.copied_bytes) execute function count_mirror_bytes()`,
  `create function count_proxy_bytes() returns trigger language plpgsql as $$
    begin
      if tg_op = 'UPDATE' then
        perform add_production_bytes((select production_id from clip where id = old.clip_id), old.volume_id, 'generated', -old.size_bytes);
      end if;
      perform add_production_bytes((select production_id from clip where id = new.clip_id), new.volume_id, 'generated', new.size_bytes);
      return null;
    end $$`,
  `create trigger count_proxy_bytes after insert or update on proxy for each row execute function count_proxy_bytes()`,
  `create function count_output_bytes() returns trigger language plpgsql as $$
    begin
      perform add_production_bytes(new.production_id, new.volume_id, 'outputs', new.size_bytes);
      return null;
    end $$`,
  ...['deliverable', 'bag'].map(
    (table) =>
      `create trigger count_output_bytes after insert on ${table} for each row execute function count_output_bytes()`,
  ),
  `create function count_ledger_bytes() returns trigger language plpgsql as $$
    begin
      perform add_production_bytes(new.production_id, new.volume_id, new.byte_class, new.size_bytes);
      return null;
    end $$`,
  `create trigger count_ledger_bytes after insert on ledger for each row execute function count_ledger_bytes()`,
  `select add_production_bytes(clip.production_id, proxy.volume_id, 'generated', proxy.size_bytes) from proxy join clip on clip.id = proxy.clip_id`,
  `select add_production_bytes(production_id, volume_id, 'outputs', size_bytes) from deliverable`,
  `select add_production_bytes(production_id, volume_id, 'outputs', size_bytes) from bag`,
  `select add_production_bytes(production_id, volume_id, byte_class, size_bytes) from ledger`,
  `insert into copy_file (load_id, volume_id, entry_id, proof_id, proved_at, on_card, entry_bytes, placed_at, standing)
    select p.load_id, p.volume_id, p.entry_id, p.id, p.at, e.state = 'on-card', e.size_bytes,
      (select min(q.at) from proof q where q.entry_id = p.entry_id and q.volume_id = p.volume_id),
      case p.outcome when 'equal' then case when p.past_cache then 'verified' else 'memory' end else p.outcome end
    from (select distinct on (volume_id, entry_id) * from proof order by volume_id, entry_id, id desc) p join load_entry e on e.id = p.entry_id
    where e.state <> 'replaced'`,
  `drop table copy_fact`,
]

/** Tasks: one open task of a kind for each subject, attempts, orders that nothing can lose. */
const TASKS = [
  `alter table task add column subject text, add column idempotency_key text, add column died int not null default 0`,
  `update task set subject = id::text`,
  `alter table task alter column subject set not null`,
  `create unique index task_one_open on task (kind, subject) where state in ('queued', 'running', 'paused')`,
  `create unique index task_idempotency on task (idempotency_key)`,
  `alter table proxy add column decoded_frames int, add column decode_errors int`,
  `create index task_created on task (created_at desc)`,
  `create table attempt (
    id uuid primary key default gen_random_uuid(), task_id uuid not null references task, host text not null,
    started_at timestamptz not null default clock_timestamp(), ended_at timestamptz, how text)`,
  `create index attempt_task on attempt (task_id)`,
  `create index attempt_open on attempt (host) where ended_at is null`,
  `create table task_order (
    id bigint generated always as identity primary key, task_id uuid not null references task, task_order text not null,
    at timestamptz not null default clock_timestamp(), obeyed_at timestamptz)`,
  `create index task_order_open on task_order (task_id) where obeyed_at is null`,
  `create table tool_child (attempt_id uuid not null references attempt, pid int not null, started_ticks text not null, primary key (attempt_id, pid, started_ticks))`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of [...THINGS, ...FACTS, ...SUMMARIES, ...TASKS]) await sql.raw(statement).execute(db)
  await giveFolders(db)
  await keepAnswers(db)
  await countFindings(db)
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

async function countFindings(db: Kysely<unknown>): Promise<void> {
  const { rows: loads } = await sql<{ id: string }>`select id from load`.execute(db)
  for (const { id } of loads) await countEntryFindings(db, id)
}

/** Counts what findings are about, after the look of a card was written down; runs in the transaction that wrote it. */
async function countEntryFindings(db: Kysely<unknown>, loadId: string): Promise<void> {
  const { rows } = await sql<{ kind: string; pathText: string }>`
    select case when state = 'gone' and kind = 'file' then case when copied then 'gone' else 'lost' end
      when kind = 'file' then 'odd-name' else kind end as kind, path_text as "pathText"
    from load_entry where load_id = ${loadId} and state <> 'replaced' and kind <> 'folder' and (kind <> 'file' or odd or state = 'gone') order by path`.execute(
    db,
  )
  const paths = new Map<string, string[]>()
  for (const { kind, pathText } of rows) {
    const list = paths.get(kind)
    if (list) list.push(pathText)
    else paths.set(kind, [pathText])
  }
  for (const [kind, list] of paths) {
    await sql`insert into load_finding (load_id, kind, files, print) values (${loadId}, ${kind}, ${list.length}, ${findingKeyOf(kind, list)})`.execute(
      db,
    )
  }
}
