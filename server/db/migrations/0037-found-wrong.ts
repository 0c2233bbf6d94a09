import { sql, type Kysely } from 'kysely'

/** That something is wrong with a file of a copy, seen by whoever played it, or that nothing is after all. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    alter table said drop constraint said_kind_check, add constraint said_kind_check check (kind in
      ('answered', 'spot-played', 'formatted', 'unformatted', 'different-drives', 'found-wrong', 'found-whole'));`,
    )
    .execute(db)
}
