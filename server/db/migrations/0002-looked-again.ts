import { sql, type Kysely } from 'kysely'

/** What became of an entry at the latest look at its card; proofs belong to the content they were made of. */
const STATEMENTS = [
  `alter table load_entry add column state text not null default 'on-card' check (state in ('on-card', 'gone', 'replaced'))`,
  `alter table load_entry drop constraint load_entry_load_id_path_key`,
  `create unique index load_entry_current on load_entry (load_id, path) where state <> 'replaced'`,
  `create index load_entry_load on load_entry (load_id, path)`,
  `create index event_look on event ((detail->>'readerId'), id desc) where kind = 'looked-at'`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
