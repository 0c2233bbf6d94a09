import { sql, type Kysely } from 'kysely'

/** A second card with the content of a load, as a camera with two slots writes it; its readings are facts, and stay. */
const STATEMENTS = [
  `create table twin (
    id uuid primary key default gen_random_uuid(), load_id uuid not null references load, key text not null, name text not null,
    exact boolean not null, first_seen_at timestamptz not null default clock_timestamp(),
    seen_at timestamptz not null default clock_timestamp(), unique (load_id, key))`,
  `create table twin_reading (
    id bigint generated always as identity primary key, at timestamptz not null default clock_timestamp(),
    twin_id uuid not null references twin, print text not null, files_equal int not null, files_memory int not null,
    files_wrong int not null, size_bytes bigint not null, run_id uuid not null)`,
  `create index twin_reading_latest on twin_reading (twin_id, id)`,
  `alter table reader add column twin_id uuid references twin`,
  // Of its own card only samples are known then.
  `alter table load add column read_from_twin boolean not null default false`,
  `alter table said add column twin_id uuid references twin`,
  `create index said_twin on said (twin_id) where twin_id is not null`,
  `create index reader_twin on reader (twin_id) where twin_id is not null`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
