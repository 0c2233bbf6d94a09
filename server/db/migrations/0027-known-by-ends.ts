import { sql, type Kysely } from 'kysely'

/** A card may also be known by the ends of its clips alone, where no proved copy could be compared: that says less. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table stay drop constraint stay_known_how_check`.execute(db)
  await sql`alter table stay add constraint stay_known_how_check check (known_how in ('first-look', 'compared', 'ends'))`.execute(
    db,
  )
}
