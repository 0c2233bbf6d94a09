import { sql } from 'kysely'
import { testFacts } from '../../core/media/testFacts'
import type { Db } from '../../server/db/connection'

export interface Fill {
  readonly productions: number
  readonly loadsEach: number
  readonly filesEach: number
  readonly clipsEach: number
  /** How often each file was read on each volume. */
  readonly readings: readonly number[]
}

// Of the shape that the reader writes today, whatever that is; length and time differ from clip to clip.
const PROBE = `jsonb_set(jsonb_set('${JSON.stringify(testFacts())}'::jsonb || jsonb_build_object('seconds', 4 + n % 60,
    'sizeBytes', 55000000, 'recordedAt', '2026-11-01T09:' || lpad((n % 60)::text, 2, '0') || ':00Z'),
  '{video,seconds}', to_jsonb(4 + n % 60)), '{video,frames}', to_jsonb(25 * (4 + n % 60)))`

/**
 * Fills a database with productions, loads, files, clips and proofs of two volumes, as the application itself would
 * have written them.
 */
export async function fill(db: Db, { productions, loadsEach, filesEach, clipsEach, readings }: Fill): Promise<void> {
  const run = (statement: string) => sql.raw(statement).execute(db)
  await run(`insert into site (name) values ('house') on conflict do nothing`)
  await run(`insert into volume (id, name, kind, site_id, simulated, capacity_bytes)
    select gen_random_uuid(), 'Volume ' || n, 'archive', (select id from site where name = 'house'), false, 4000000000000
    from generate_series((select count(*) + 1 from volume), ${readings.length}) n`)
  const first = Number(
    (await sql<{ made: number }>`select count(*)::int as made from production`.execute(db)).rows[0]?.made ?? 0,
  )
  await run(`insert into client (name) values ('own channel') on conflict do nothing`)
  await run(`insert into production (title, client_id, folder) select 'Mast day ' || n, (select id from client where name = 'own channel'), 'Mast day ' || n
    from generate_series(${first + 1}, ${first + productions}) n`)
  for (let at = first + 1; at <= first + productions; at += 1) {
    await run(`insert into load (production_id, label, file_count, size_bytes, left_out)
      select (select id from production where title = 'Mast day ${at}'), 'Curlew ' || n, ${filesEach}, ${filesEach}::bigint * 55000000, 0
      from generate_series(1, ${loadsEach}) n`)
    const own = `(select id from load where production_id = (select id from production where title = 'Mast day ${at}'))`
    await run(`insert into load_entry (load_id, path, path_text, kind, size_bytes, modified_ms, copied)
      select load_id, convert_to(name, 'UTF8'), name, 'file', 55000000 + n, 1700000000000 + n, true
      from unnest(array${own}) as load_id, generate_series(1, ${filesEach}) n,
        lateral (select 'DCIM/100CURLW/CURL' || lpad(n::text, greatest(4, length(n::text)), '0') || case when n <= ${clipsEach} then '.MP4' else '.THM' end as name) as named`)
    await run(`insert into seen (place, load_id, print, file_count, size_bytes)
      select 'card', id, id::text, ${filesEach}, 0 from unnest(array${own}) as id`)
    await run(`insert into media_file (load_id, production_id, entry_id, path_text, name, size_bytes, probe, has_picture, picture_made, proxy_bytes)
      select e.load_id, l.production_id, e.id, e.path_text, split_part(e.path_text, '/', 3), e.size_bytes, ${PROBE}, true, true, 3000000
      from load_entry e join load l on l.id = e.load_id, lateral (select substring(e.path_text from 'CURL([0-9]+)')::int as n) as number
      where e.load_id = any(array${own}) and e.path_text like '%.MP4'`)
    for (const [volume, times] of readings.entries()) {
      const id = `(select id from volume order by name offset ${volume} limit 1)`
      await run(
        `insert into mirror (load_id, volume_id, folder, seen_at) select id, ${id}, 'Mast day/Cards/' || id, now() from unnest(array${own}) as id`,
      )
      await run(`insert into proof (what, outcome, volume_id, path, hash, size_bytes, modified_ms, past_cache, placed, run_id, load_id, entry_id)
        select 'copy', 'equal', ${id}, path, lpad(to_hex(id), 16, '0'), size_bytes, modified_ms, true, time = 1, load_id, load_id, id
        from load_entry, generate_series(1, ${times}) time where load_id = any(array${own})`)
      await run(`insert into copy_file (load_id, volume_id, entry_id, proof_id, proved_at, on_card, entry_bytes, placed_at, standing)
        select distinct on (entry_id) load_id, volume_id, entry_id, id, at, true, size_bytes, at, 'verified' from proof
        where load_id = any(array${own}) and volume_id = ${id} order by entry_id, id desc`)
    }
  }
  await run('vacuum analyze')
  // What the filling left to be written to disk is no part of what is measured.
  await run('checkpoint')
}
