import { sql, type Kysely } from 'kysely'

/** How fast a volume or a reader was in the latest copy that was long enough to tell. */
const STATEMENTS = [
  `alter table mount add column read_bytes_per_second double precision, add column write_bytes_per_second double precision`,
  `alter table reader add column read_bytes_per_second double precision`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
