import { sql, type Kysely } from 'kysely'

/** What was last seen of a card goes on being true while it is out. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table load add column card_difference text, add column card_doubted_at timestamptz`.execute(db)
}
