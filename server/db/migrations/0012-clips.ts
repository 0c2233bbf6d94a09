import { sql, type Kysely } from 'kysely'

/** As in 0008; of a take that was split into files the first alone is a clip. */
const CLIP_COUNTS = `
  sum(sign) filter (where shown and coalesce(part, 1) = 1) as clips,
  sum(sign) filter (where shown) as media,
  sum(sign * length_ms) filter (where shown) as length_ms,
  sum(sign) filter (where shown and playable) as playable,
  sum(sign) filter (where shown and has_video) as videos,
  sum(sign) filter (where shown and has_video and proxy = 'equal') as proxies_equal,
  sum(sign) filter (where shown and has_video and proxy = 'differs') as proxies_differ,
  sum(sign * proxy_bytes) filter (where shown and has_video and proxy <> 'equal') as proxy_bytes_open`
const COUNTED = [
  'clips',
  'media',
  'length_ms',
  'playable',
  'videos',
  'proxies_equal',
  'proxies_differ',
  'proxy_bytes_open',
]

/** Clips of several files: what belongs to another clip is shown with it, and what was split knows its place. */
const STATEMENTS = [
  `alter table clip
    add column member_of uuid references clip, add column take_id uuid references clip, add column part int, add column parts int`,
  `create index clip_member on clip (member_of) where member_of is not null`,
  `create index clip_take on clip (take_id) where take_id is not null`,
  // Frames a file each are no film that a player or a coder can open.
  `alter table clip drop column has_video, drop column playable`,
  `alter table clip
    add column has_video boolean generated always as (probe->'video' is not null and trouble is null and probe->'sequence' is null) stored,
    add column playable boolean generated always as (probe is not null and trouble is null and probe->'sequence' is null) stored`,
  `create index clip_film_path on clip (production_id, sort_path, id) where shown and has_video`,
  `create index clip_film_size on clip (production_id, size_bytes, id) where shown and has_video`,
  `create index clip_film_proxy on clip (production_id, proxy, sort_path, id) where shown and has_video`,
  `create or replace function follow_entry() returns trigger language plpgsql as $$
    begin
      update clip set on_card = new.state = 'on-card',
        shown = member_of is null and (new.state = 'on-card' or (new.state = 'gone' and new.copied))
      where entry_id = new.id;
      return null;
    end $$`,
  `alter table load_summary add column media int not null default 0`,
  `update load_summary set media = clips`,
  ...['insert', 'update'].map((event) => {
    const old = event === 'update' ? 'union all select *, -1 as sign from old_clips' : ''
    return `create or replace function count_clips_${event}() returns trigger language plpgsql as $$
      begin
        update load_summary s set ${COUNTED.map((name) => `${name} = s.${name} + coalesce(delta.${name}, 0)`).join(', ')}
        from (select load_id, ${CLIP_COUNTS} from (select *, 1 as sign from new_clips ${old}) as clips group by load_id) as delta
        where s.load_id = delta.load_id;
        return null;
      end $$`
  }),
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
