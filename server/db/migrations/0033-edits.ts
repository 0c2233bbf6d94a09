import { sql, type Kysely } from 'kysely'

/** What people changed, each with the rows before and after it, so that it can be taken back. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `create table edit (
        id uuid primary key default gen_random_uuid(),
        at timestamptz not null default clock_timestamp(),
        title text not null,
        turn integer not null default 0,
        undone boolean not null default false,
        rows jsonb not null
      );
      create index edit_at on edit (at)`,
    )
    .execute(db)
}
