import { sql, type Kysely } from 'kysely'

/** Cards that are lenses of one rig, and which of their clips are one take. */
const STATEMENTS = [
  `create table rig (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production, name text not null,
    sentence text not null default '', created_at timestamptz not null default clock_timestamp(), unique (production_id, name))`,
  // A card whose lens is not known is in no rig; what was said to be none is not proposed again.
  `alter table load add column rig_id uuid references rig, add column lens int, add column rig_odd jsonb, add column no_rig boolean not null default false,
    add column rig_proposed boolean not null default false,
    add constraint load_lens check ((rig_id is null) = (lens is null))`,
  `create index load_rig on load (rig_id) where rig_id is not null`,
  `alter table clip add column lens_of uuid references clip`,
  `create index clip_lens on clip (lens_of) where lens_of is not null`,
  `create index clip_lens_production on clip (production_id) where lens_of is not null`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
