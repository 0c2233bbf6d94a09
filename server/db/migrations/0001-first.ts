import { sql, type Kysely } from 'kysely'

const STATEMENTS = [
  `create table setting (key text primary key, value jsonb not null)`,
  `create table production (
    id uuid primary key default gen_random_uuid(), title text not null, client text not null, shoot_on date,
    created_at timestamptz not null default clock_timestamp())`,
  `create table camera_plan (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production on delete cascade,
    camera text not null, width_px int not null, height_px int not null, rate text not null,
    video_bits_per_second bigint not null, audio_bits_per_second bigint not null, seconds_per_take int not null, takes int not null,
    card_bytes bigint not null, card_bytes_per_second bigint not null, fill_limit double precision not null,
    created_at timestamptz not null default clock_timestamp())`,
  `create index camera_plan_production on camera_plan (production_id)`,
  `create table volume (
    id uuid primary key, name text not null unique, kind text not null, site text not null, root_path text unique, simulated boolean not null,
    capacity_bytes bigint not null, host text not null, created_at timestamptz not null default clock_timestamp())`,
  `create table reader (
    id uuid primary key default gen_random_uuid(), name text not null unique, root_path text unique, simulated boolean not null,
    host text not null, created_at timestamptz not null default clock_timestamp())`,
  `create table bench_device (
    id uuid primary key, role text not null, capacity_bytes bigint not null, read_bytes_per_second bigint not null,
    write_bytes_per_second bigint not null, plugged boolean not null, fault jsonb, card text, inserted_at timestamptz)`,
  `create table bench_card (name text primary key, folder text not null, story text not null)`,
  `create table load (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production on delete cascade,
    reader_id uuid references reader on delete set null, label text not null, scanned_at timestamptz not null default clock_timestamp(),
    file_count int not null, size_bytes bigint not null, left_out int not null, created_at timestamptz not null default clock_timestamp())`,
  `create index load_production on load (production_id)`,
  `create index load_reader on load (reader_id)`,
  `create table load_entry (
    id bigint generated always as identity primary key, load_id uuid not null references load on delete cascade,
    path bytea not null, path_text text not null, kind text not null, size_bytes bigint not null, modified_ms double precision not null,
    unique (load_id, path))`,
  `create table clip (
    id uuid primary key default gen_random_uuid(), load_id uuid not null references load on delete cascade,
    entry_id bigint not null unique references load_entry on delete cascade, path_text text not null, name text not null,
    size_bytes bigint not null, sidecars int not null, probe jsonb, trouble text, has_picture boolean not null, picture_made boolean not null)`,
  `create index clip_load on clip (load_id)`,
  `create table copy_plan (
    load_id uuid not null references load on delete cascade, volume_id uuid not null references volume on delete cascade,
    folder text not null, planned_at timestamptz not null default clock_timestamp(), primary key (load_id, volume_id))`,
  `create index copy_plan_volume on copy_plan (volume_id)`,
  `create table task (
    id uuid primary key default gen_random_uuid(), kind text not null, state text not null, title text not null,
    production_id uuid references production on delete cascade, load_id uuid references load on delete cascade,
    input jsonb not null, progress jsonb, sentence text, troubles jsonb not null default '[]', host text not null, boss_id text,
    created_at timestamptz not null default clock_timestamp(), ended_at timestamptz)`,
  `create index task_production on task (production_id)`,
  `create index task_load on task (load_id)`,
  `create index task_state on task (state)`,
  `create table copy_fact (
    id bigint generated always as identity primary key, load_id uuid not null references load on delete cascade,
    entry_id bigint not null references load_entry on delete cascade, volume_id uuid not null references volume on delete cascade,
    kind text not null, hash text not null, found text, from_medium boolean not null, at timestamptz not null default clock_timestamp(),
    task_id uuid not null references task on delete cascade)`,
  `create index copy_fact_load on copy_fact (load_id, volume_id, entry_id, id desc)`,
  `create index copy_fact_entry on copy_fact (entry_id)`,
  `create index copy_fact_volume on copy_fact (volume_id)`,
  `create index copy_fact_task on copy_fact (task_id)`,
  `create table event (
    id bigint generated always as identity primary key, at timestamptz not null default clock_timestamp(), kind text not null,
    production_id uuid references production on delete cascade, load_id uuid references load on delete cascade,
    volume_id uuid references volume on delete cascade, clip_id uuid references clip on delete cascade, detail jsonb not null default '{}')`,
  `create index event_production on event (production_id)`,
  `create index event_load on event (load_id, kind)`,
  `create index event_volume on event (volume_id)`,
  `create index event_clip on event (clip_id)`,
  `create table proxy (
    id uuid primary key default gen_random_uuid(), clip_id uuid not null unique references clip on delete cascade,
    volume_id uuid not null references volume on delete cascade, path text not null, size_bytes bigint not null, probe jsonb not null,
    made_at timestamptz not null default clock_timestamp())`,
  `create index proxy_volume on proxy (volume_id)`,
  `create table deliverable (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production on delete cascade,
    clip_id uuid not null references clip on delete cascade, destination_id text not null, crop_window jsonb not null,
    volume_id uuid not null references volume on delete cascade, path text not null, size_bytes bigint not null, probe jsonb not null,
    bars jsonb not null, made_at timestamptz not null default clock_timestamp())`,
  `create index deliverable_production on deliverable (production_id)`,
  `create index deliverable_clip on deliverable (clip_id)`,
  `create index deliverable_volume on deliverable (volume_id)`,
  `create table bag (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production on delete cascade,
    deliverable_id uuid not null references deliverable on delete cascade, volume_id uuid not null references volume on delete cascade,
    path text not null, file_count int not null, size_bytes bigint not null, written_at timestamptz not null default clock_timestamp(), verified_at timestamptz)`,
  `create index bag_production on bag (production_id)`,
  `create index bag_deliverable on bag (deliverable_id)`,
  `create index bag_volume on bag (volume_id)`,
  `create table ledger (
    id bigint generated always as identity primary key, production_id uuid not null references production on delete cascade,
    volume_id uuid not null references volume on delete cascade, byte_class text not null, size_bytes bigint not null)`,
  `create index ledger_production on ledger (production_id)`,
  `create index ledger_volume on ledger (volume_id)`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
