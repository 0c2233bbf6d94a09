import { sql, type Kysely } from 'kysely'

/** As in 0012, and for each production that has clips of a card: one card may serve two. */
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

const STATEMENTS = [
  `alter table load_summary add column production_id uuid references production`,
  `update load_summary s set production_id = load.production_id from load where load.id = s.load_id`,
  `alter table load_summary alter column production_id set not null, drop constraint load_summary_pkey,
    add primary key (load_id, production_id)`,
  `create index load_summary_production on load_summary (production_id)`,
  `create or replace function new_load_summary() returns trigger language plpgsql as $$
    begin insert into load_summary (load_id, production_id) values (new.id, new.production_id); return null; end $$`,
  ...['insert', 'update'].map((event) => {
    const old = event === 'update' ? 'union all select *, -1 as sign from old_clips' : ''
    return `create or replace function count_clips_${event}() returns trigger language plpgsql as $$
      begin
        insert into load_summary as s (load_id, production_id, ${COUNTED.join(', ')})
        select load_id, production_id, ${COUNTED.map((name) => `coalesce(${name}, 0)`).join(', ')}
        from (select load_id, production_id, ${CLIP_COUNTS} from (select *, 1 as sign from new_clips ${old}) as clips
          group by load_id, production_id order by load_id, production_id) as delta
        on conflict (load_id, production_id) do update set ${COUNTED.map((name) => `${name} = s.${name} + excluded.${name}`).join(', ')};
        return null;
      end $$`
  }),
  // Bytes that were made of a clip go with it.
  `create function move_proxy_bytes() returns trigger language plpgsql as $$
    begin
      perform add_production_bytes(old.production_id, volume_id, 'generated', -size_bytes) from proxy where clip_id = new.id;
      perform add_production_bytes(new.production_id, volume_id, 'generated', size_bytes) from proxy where clip_id = new.id;
      return null;
    end $$`,
  `create trigger move_proxy_bytes after update of production_id on clip for each row
    when (old.production_id <> new.production_id) execute function move_proxy_bytes()`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
