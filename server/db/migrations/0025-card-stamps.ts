import { sql, type Kysely } from 'kysely'

/** How the file system of a card told its files from others, when the card was last known to be that of its load. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table card_stamp (
      load_id uuid not null references load, path bytea not null, listed text not null, stamp text not null,
      primary key (load_id, path))`.execute(db)
}
