import { sql, type Kysely } from 'kysely'

/** Names that were given twice at the same moment get a number; then nobody can give one twice. */
const numbered = (table: string) => `
  update ${table} set name = ${table}.name || ' (' || twice.turn || ')'
  from (select id, row_number() over (partition by lower(name) order by created_at, id) as turn from ${table}) as twice
  where twice.id = ${table}.id and twice.turn > 1`

const STATEMENTS = [
  numbered('volume'),
  numbered('reader'),
  `create unique index volume_name on volume (lower(name))`,
  `create unique index reader_name on reader (lower(name))`,
  `update reader set root_path = null from (
     select id, row_number() over (partition by host, root_path order by created_at, id) as turn from reader where root_path is not null
   ) as twice where twice.id = reader.id and twice.turn > 1`,
  `create unique index reader_place on reader (host, root_path)`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
