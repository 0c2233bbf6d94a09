import { sql, type Kysely } from 'kysely'

/** Copies that wait for those before them, in the order in which they are made. */
const STATEMENTS = [
  `create table copy_queue (
    load_id uuid primary key references load, host text not null, volume_ids jsonb not null, plan jsonb,
    place bigint generated always as identity, order_id uuid not null default gen_random_uuid(),
    ordered_at timestamptz not null default clock_timestamp())`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
