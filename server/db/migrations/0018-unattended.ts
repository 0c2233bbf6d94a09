import { sql, type Kysely } from 'kysely'

/** How files on a card are called, by which its camera is known before anybody says so. */
const STATEMENTS = [`alter table reader add column habits jsonb not null default '[]', add column print text`]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
