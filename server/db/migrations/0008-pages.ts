import { sql, type Kysely } from 'kysely'
import { clipFindings } from './core0022/cards/findings'

/** The sign of each count of a load's clips: `new` adds a row, `old` takes it away. */
const CLIP_COUNTS = `
  sum(sign) filter (where shown) as clips,
  sum(sign * length_ms) filter (where shown) as length_ms,
  sum(sign) filter (where shown and playable) as playable,
  sum(sign) filter (where shown and has_video) as videos,
  sum(sign) filter (where shown and has_video and proxy = 'equal') as proxies_equal,
  sum(sign) filter (where shown and has_video and proxy = 'differs') as proxies_differ,
  sum(sign * proxy_bytes) filter (where shown and has_video and proxy <> 'equal') as proxy_bytes_open`
const COUNTED = ['clips', 'length_ms', 'playable', 'videos', 'proxies_equal', 'proxies_differ', 'proxy_bytes_open']

/** What pages show of clips, loads and copies is kept beside them, and every list has an order that an index holds. */
const STATEMENTS = [
  `alter table clip
    add column on_card boolean not null default true,
    add column shown boolean not null default true,
    add column proxy text not null default 'none' check (proxy in ('none', 'equal', 'differs')),
    add column proxy_bytes bigint not null default 0,
    add column sort_path text generated always as (left(path_text, 240)) stored,
    add column seconds double precision generated always as (coalesce((probe->>'seconds')::double precision, 0)) stored,
    add column length_ms bigint generated always as (round(coalesce((probe->>'seconds')::numeric, 0) * 1000)::bigint) stored,
    add column recorded_at text generated always as (coalesce(probe->>'recordedAt', '')) stored,
    add column frame_px bigint generated always as (coalesce((probe#>>'{video,widthPx}')::bigint * (probe#>>'{video,heightPx}')::bigint, 0)) stored,
    add column rate double precision generated always as (coalesce((probe#>>'{video,rate,num}')::double precision / nullif((probe#>>'{video,rate,den}')::double precision, 0), 0)) stored,
    add column codec text generated always as (coalesce(probe#>>'{video,codec}', probe#>>'{audio,codec}', '')) stored,
    add column has_video boolean generated always as (probe->'video' is not null and trouble is null) stored,
    add column playable boolean generated always as (probe is not null and trouble is null) stored,
    add column wrong boolean generated always as (trouble is not null or cut is not null or (has_picture and not picture_made)) stored`,
  `update clip set on_card = e.state = 'on-card', shown = e.state = 'on-card' or (e.state = 'gone' and e.copied)
    from load_entry e where e.id = clip.entry_id and e.state <> 'on-card'`,
  `create function follow_entry() returns trigger language plpgsql as $$
    begin
      update clip set on_card = new.state = 'on-card', shown = new.state = 'on-card' or (new.state = 'gone' and new.copied)
      where entry_id = new.id;
      return null;
    end $$`,
  `create trigger follow_entry after update of state, copied on load_entry for each row
    when (old.state <> new.state or (new.state = 'gone' and old.copied <> new.copied)) execute function follow_entry()`,
  `create index clip_load_path on clip (load_id, sort_path, id) where shown`,
  `create index clip_load_size on clip (load_id, size_bytes, id) where shown`,
  `create index clip_load_seconds on clip (load_id, seconds, id) where shown`,
  `create index clip_load_recorded on clip (load_id, recorded_at, id) where shown`,
  `create index clip_film_path on clip (production_id, sort_path, id) where shown and has_video`,
  `create index clip_film_size on clip (production_id, size_bytes, id) where shown and has_video`,
  `create index clip_film_proxy on clip (production_id, proxy, sort_path, id) where shown and has_video`,
  `create table load_summary (
    load_id uuid primary key references load, clips int not null default 0, length_ms bigint not null default 0, playable int not null default 0,
    videos int not null default 0, proxies_equal int not null default 0, proxies_differ int not null default 0, proxy_bytes_open bigint not null default 0)`,
  `create function new_load_summary() returns trigger language plpgsql as $$
    begin insert into load_summary (load_id) values (new.id); return null; end $$`,
  `create trigger new_load_summary after insert on load for each row execute function new_load_summary()`,
  ...['insert', 'update'].flatMap((event) => {
    const old = event === 'update' ? 'union all select *, -1 as sign from old_clips' : ''
    return [
      `create function count_clips_${event}() returns trigger language plpgsql as $$
      begin
        update load_summary s set ${COUNTED.map((name) => `${name} = s.${name} + coalesce(delta.${name}, 0)`).join(', ')}
        from (select load_id, ${CLIP_COUNTS} from (select *, 1 as sign from new_clips ${old}) as clips group by load_id) as delta
        where s.load_id = delta.load_id;
        return null;
      end $$`,
      `create trigger count_clips_${event} after ${event} on clip
        referencing new table as new_clips ${event === 'update' ? 'old table as old_clips' : ''}
        for each statement execute function count_clips_${event}()`,
    ]
  }),
  `insert into load_summary (load_id, ${COUNTED.join(', ')})
    select load.id, ${COUNTED.map((name) => `coalesce(sums.${name}, 0)`).join(', ')}
    from load left join (select load_id, ${CLIP_COUNTS} from (select *, 1 as sign from clip) as clips group by load_id) as sums on sums.load_id = load.id`,
  `alter table load add column clip_findings jsonb not null default '[]'`,
  `alter table load_finding add column paths jsonb not null default '[]'`,
  `update load_finding f set paths = coalesce((
    select jsonb_agg(path_text) from (
      select path_text from load_entry e where e.load_id = f.load_id and e.state <> 'replaced' and case f.kind
        when 'lost' then e.kind = 'file' and e.state = 'gone' and not e.copied
        when 'gone' then e.kind = 'file' and e.state = 'gone' and e.copied
        when 'odd-name' then e.kind = 'file' and e.state = 'on-card' and e.odd
        else e.kind = f.kind and e.state = 'on-card' end
      order by path limit 20) as first), '[]')`,
  `alter table deliverable add column pass boolean not null default false`,
  // Most proofs are of copies: the other kinds need no place in these.
  ...['clip', 'deliverable', 'bag'].flatMap((of) => [
    `drop index proof_${of}`,
    `create index proof_${of} on proof (${of}_id) where ${of}_id is not null`,
  ]),
  `create index seen_card on seen (load_id, id desc) where place = 'card'`,
  `create index load_entry_odd on load_entry (load_id) where odd and kind = 'file'`,
  `create index load_newest on load (production_id, created_at desc, id desc)`,
  `create index production_newest on production (created_at desc, id desc)`,
  `create index deliverable_newest on deliverable (production_id, made_at desc, id desc)`,
  `create index bag_newest on bag (production_id, written_at desc, id desc)`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
  // Proxies and deliverables are judged by 0010, once what is kept of them has its present shape.
  await findInClips(db)
}

interface ScannedRow {
  readonly path: string
  readonly sizeBytes: number
  readonly seconds: number | null
  readonly recordedAt: string | null
  readonly pictureMade: boolean
  readonly trouble: string | null
  readonly hasPicture: boolean
  readonly cut: string | null
}

async function findInClips(db: Kysely<unknown>): Promise<void> {
  const { rows: loads } = await sql<{ id: string; shootOn: string | null }>`
    select load.id, production.shoot_on as "shootOn" from load join production on production.id = load.production_id`.execute(
    db,
  )
  for (const { id, shootOn } of loads) {
    const { rows } = await sql<ScannedRow>`
      select path_text as path, size_bytes as "sizeBytes", (probe->>'seconds')::double precision as seconds, probe->>'recordedAt' as "recordedAt",
        picture_made as "pictureMade", trouble, has_picture as "hasPicture", cut from clip where load_id = ${id} and shown order by path_text`.execute(
      db,
    )
    const clips = rows.map((row) => ({
      ...row,
      seconds: row.seconds ?? undefined,
      recordedAt: row.recordedAt ?? undefined,
      trouble: row.trouble ?? undefined,
      cut: row.cut ?? undefined,
    }))
    const found = JSON.stringify(clipFindings(clips, shootOn ?? undefined))
    await sql`update load set clip_findings = ${found}::jsonb where id = ${id}`.execute(db)
  }
}
