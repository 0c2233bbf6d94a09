import { sql, type Kysely } from 'kysely'

const STATEMENTS = [
  // The beginning of a name is found by the first index, the beginning of any later word by the second.
  `create index clip_name_begin on clip (lower(name) text_pattern_ops)`,
  `create function search_words(name text) returns tsvector language sql immutable parallel safe as $$
     select to_tsvector('simple', regexp_replace(regexp_replace(name, '\.[^.]*$', ''), '[^[:alnum:]]+', ' ', 'g')) $$`,
  `create index clip_words on clip using gin (search_words(name))`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
