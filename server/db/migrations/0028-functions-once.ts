import { sql, type Kysely } from 'kysely'

/** Functions and triggers stand in `functions/` from here on; what was written twice there goes, and which of them a database has is kept. */
const STATEMENTS = [
  ...['count_copy_files', 'count_clips'].flatMap((name) => {
    const table = name === 'count_clips' ? 'clip' : 'copy_file'
    return ['insert', 'update'].flatMap((event) => [
      `drop trigger ${name}_${event} on ${table}`,
      `drop function ${name}_${event}()`,
    ])
  }),
  // A name without an ending had no words.
  `create or replace function search_words(name text) returns tsvector language sql immutable parallel safe as $$
    select to_tsvector('simple', regexp_replace(regexp_replace(name, '\\.[^.]*$', ''), '[^[:alnum:]]+', ' ', 'g')) $$`,
  `reindex index clip_words`,
  // They are made of what is never null.
  ...[
    'sort_path',
    'seconds',
    'length_ms',
    'recorded_at',
    'filmed_order',
    'frame_px',
    'rate',
    'codec',
    'has_video',
    'playable',
    'wrong',
  ].map((column) => `alter table clip alter column ${column} set not null`),
  `create table function_text (print text not null, applied_at timestamptz not null default clock_timestamp())`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
