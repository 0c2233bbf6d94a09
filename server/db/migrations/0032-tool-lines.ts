import { sql, type Kysely } from 'kysely'

/** What the reading program said of a file that cannot be read stays beside the reason that was made of it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw(`alter table media_file add column tool_lines jsonb not null default '[]'`).execute(db)
}
