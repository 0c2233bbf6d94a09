import { sql, type Kysely } from 'kysely'

/** The sorted view of a production: how it is sorted, what lies where, and what was done, so that it can be undone. */
const STATEMENTS = [
  `alter table mount add column links text`,
  `alter table review add column folder text`,
  `create table sorted_view (
    production_id uuid primary key references production, volume_id uuid references volume, settings jsonb not null)`,
  `create index sorted_view_volume on sorted_view (volume_id)`,
  `create table sorted_file (
    volume_id uuid not null references volume, path text not null, production_id uuid not null references production,
    entry_id bigint not null references load_entry, size_bytes bigint not null, modified_ms double precision not null,
    primary key (volume_id, path))`,
  `create index sorted_file_production on sorted_file (production_id, volume_id)`,
  `create index sorted_file_entry on sorted_file (entry_id)`,
  `create table sorted_change (
    id bigint generated always as identity primary key, run_id uuid not null, production_id uuid not null references production,
    volume_id uuid not null references volume, kind text not null check (kind in ('add', 'move', 'remove')),
    path text not null, from_path text, entry_id bigint not null references load_entry,
    at timestamptz not null default clock_timestamp(), undone boolean not null default false)`,
  `create index sorted_change_production on sorted_change (production_id, id desc)`,
  `create index sorted_change_volume on sorted_change (volume_id)`,
  `create index sorted_change_entry on sorted_change (entry_id)`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
