import { sql, type Kysely } from 'kysely'

/** A clip that has the content of another clip of its card, as far as samples of both tell; a take that goes on on the next card. */
const STATEMENTS = [
  `alter table load add column goes_on jsonb`,
  `alter table clip add column same_as uuid references clip`,
  `create index clip_same on clip (same_as) where same_as is not null`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
