import { sql, type Kysely } from 'kysely'

/** What appeared by itself on a computer, and what the system calls the file system that a load was looked at on. */
const STATEMENTS = [
  `create table appeared (
    id uuid primary key default gen_random_uuid(), host text not null, path text not null, node text not null,
    name text not null, capacity_bytes bigint not null, free_bytes bigint not null, top_names jsonb not null,
    volume_uid text, marker uuid, left_alone boolean not null default false,
    appeared_at timestamptz not null default clock_timestamp(), unique (host, path))`,
  `alter table reader add column capacity_bytes bigint, add column free_bytes bigint, add column volume_uid text`,
  // The same file system is the same card: that is known without anybody saying so.
  `alter table load add column volume_uid text, add column card_by_uid boolean not null default false`,
  `create index load_volume_uid on load (volume_uid) where volume_uid is not null`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
