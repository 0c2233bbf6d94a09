import { sql, type Kysely } from 'kysely'

/** When the files of the card in a reader were written, first and last: that tells for which production it may be. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql.raw(`alter table reader add column filmed_from timestamptz, add column filmed_to timestamptz`).execute(db)
}
