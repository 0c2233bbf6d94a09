import { sql, type Kysely } from 'kysely'

/** What a person says of clips: an opinion that changes, no fact. */
const STATEMENTS = [
  `create table review (
    clip_id uuid primary key references clip, verdict text check (verdict in ('keep', 'maybe', 'reject')),
    ranges jsonb not null default '[]', note text not null default '', name text,
    shot_id uuid references shot on delete set null, changed_at timestamptz not null default clock_timestamp())`,
  `create index review_shot on review (shot_id) where shot_id is not null`,
  // As they were filmed; those that do not say when, by their names.
  `alter table clip add column filmed_order text
    generated always as (coalesce(probe->>'recordedAt', '') || ' ' || left(path_text, 240)) stored`,
  `create index clip_filmed on clip (production_id, filmed_order, id) where shown`,
  `create index clip_path on clip (production_id, sort_path, id) where shown`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
