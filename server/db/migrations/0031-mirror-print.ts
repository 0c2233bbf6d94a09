import { sql, type Kysely } from 'kysely'

/** Which files stand how is kept as one sum for each copy, so that a plan can name what it was made of without reading every file. */
export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of [
    `alter table mirror add column print numeric not null default 0`,
    `update mirror set print = counted.print
      from (select load_id, volume_id, sum(hashtextextended(standing, entry_id)) as print
        from copy_file where on_card group by load_id, volume_id) counted
      where counted.load_id = mirror.load_id and counted.volume_id = mirror.volume_id`,
  ])
    await sql.raw(statement).execute(db)
}
