import { ProxiesByNight } from '../../server/jobs/rules/byNight'
import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ClipSort } from '../../contract/cards'
import type { Page } from '../../contract/page'
import type { Db } from '../../server/db/connection'
import { NoSuchPage } from '../../server/db/page'
import * as cards from '../../server/db/queries/cards'
import { proofTimes } from '../../server/db/queries/copies'
import { cardParts, giveClips } from '../../server/db/queries/reassigned'
import { addProduction } from '../../server/db/queries/productions'
import { putProxy, sayWithoutProxy } from '../../server/db/queries/proxies'
import { fill } from '../bench/fill'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
let db: Db
let productionId: string
let loadId: string

beforeAll(async () => {
  cluster = await testCluster()
  db = await cluster.open('yendra_pages')
  await fill(db, { productions: 2, loadsEach: 3, filesEach: 60, clipsEach: 50, readings: [1, 2] })
  const [load] = await db.selectFrom('load').select(['id', 'productionId']).orderBy('createdAt').execute()
  productionId = load?.productionId ?? ''
  loadId = load?.id ?? ''
})
afterAll(async () => {
  await db.destroy()
  await cluster.stop()
})

async function allPages<Row>(ask: (after: string | undefined) => Promise<Page<Row>>): Promise<Row[]> {
  const rows: Row[] = []
  for (let after: string | undefined; ;) {
    const page = await ask(after)
    rows.push(...page.rows)
    if (page.next === null) return rows
    after = page.next
  }
}

const clips = (limit: number, sort: ClipSort, down: boolean, more: { show?: 'all' | 'wrong'; q?: string } = {}) =>
  allPages((after) =>
    cards.clipPage(
      db,
      { productionId, loadId, show: 'all', q: '', sort, ...more },
      { limit, down, ...(after === undefined ? {} : { after }) },
    ),
  )

describe('a list by pages', () => {
  it('has each row once, in order, whatever the size of a page, the column and the direction', async () => {
    const sorts = ['name', 'frame', 'rate', 'length', 'codec', 'size', 'recorded'] as const
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 60 }),
        fc.constantFrom(...sorts),
        fc.boolean(),
        async (limit, sort, down) => {
          const ids = (await clips(limit, sort, down)).map((clip) => clip.id)
          expect(new Set(ids).size).toBe(50)
          // Source: PostgreSQL’s own ORDER BY over the whole list.
          const column = {
            name: 'sort_path',
            frame: 'frame_px',
            length: 'seconds',
            size: 'size_bytes',
            recorded: 'recorded_at',
          }
          const by = sql.ref(column[sort as keyof typeof column] ?? sort)
          const order = sql.raw(down ? 'desc' : 'asc')
          const { rows } = await sql<{ id: string }>`
          select id from media_file where load_id = ${loadId} and shown order by ${by} ${order}, id ${order}`.execute(
            db,
          )
          expect(ids).toEqual(rows.map((row) => row.id))
        },
      ),
      { numRuns: 30 },
    )
  })

  it('is narrowed down by the beginnings of words, and by what is wrong', async () => {
    expect((await clips(7, 'name', false, { q: 'curl0042' })).map((clip) => clip.name)).toEqual(['CURL0042.MP4'])
    expect(await clips(7, 'name', false, { q: 'url0042' })).toEqual([])
    expect(await clips(7, 'name', false, { show: 'wrong' })).toEqual([])
  })

  it('goes on behind a row that is deleted or added meanwhile', async () => {
    const asked = { productionId, loadId, show: 'all', q: '', sort: 'name' } as const
    const first = await cards.clipPage(db, asked, { limit: 10, down: false })
    const last = first.rows.at(-1)
    await db
      .updateTable('loadEntry')
      .set({ state: 'replaced' })
      .where('id', '=', last?.entryId ?? 0)
      .execute()
    const second = await cards.clipPage(db, asked, { limit: 10, down: false, after: first.next ?? '' })
    expect(second.rows[0]?.name).toBe('CURL0011.MP4')
    await db
      .updateTable('loadEntry')
      .set({ state: 'on-card' })
      .where('id', '=', last?.entryId ?? 0)
      .execute()
  })

  it('knows its own keys only', async () => {
    const asked = { productionId, loadId, show: 'all', q: '', sort: 'size' } as const
    const key = (value: unknown) => Buffer.from(JSON.stringify(value)).toString('base64url')
    for (const after of [
      'x',
      key(1),
      key(['1']),
      key(['x', randomUUID()]),
      key(['1', 'x']),
      key(['9'.repeat(30), randomUUID()]),
    ])
      await expect(cards.clipPage(db, asked, { limit: 10, down: false, after }), after).rejects.toThrow(NoSuchPage)
  })
})

describe('what is counted of a load', () => {
  it('stays what counting anew would give, whatever becomes of its clips and to whom they are given', async () => {
    const other = await addProduction(db, { title: 'Given clips' })
    const [owner, second] = [productionId, other?.id ?? '']
    const entries = await db.selectFrom('mediaFile').select(['id', 'entryId']).where('loadId', '=', loadId).execute()
    const step = fc.record({
      at: fc.integer({ min: 0, max: entries.length - 1 }),
      what: fc.constantFrom(
        'gone',
        'replaced',
        'on-card',
        'equal',
        'differs',
        'unchecked',
        'trouble',
        'well',
        'given',
        'back',
        'without',
        'wanted',
      ),
    })
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 12 }), async (steps) => {
        for (const { at, what } of steps) {
          const entry = entries[at] ?? { id: '', entryId: 0 }
          if (what !== 'given' && what !== 'back') await change(entry, what)
          else expect(await giveClips(db, [entry.id], what === 'given' ? second : owner)).toBe(true)
        }
        const parts = (await cardParts(db, [owner, second])).filter((part) => part.loadId === loadId)
        const load = await cards.load(db, loadId)
        const { rows } = await sql<Record<string, number> & { productionId: string }>`
          select clip.production_id, count(*)::int as clips, coalesce(sum(length_ms), 0)::bigint as length_ms, count(*) filter (where playable)::int as playable,
            count(*) filter (where has_video and is_wanted)::int as videos,
            count(*) filter (where has_video and not is_wanted)::int as proxies_without,
            count(*) filter (where has_video and is_wanted and proxy = 'equal')::int as proxies_equal,
            count(*) filter (where has_video and is_wanted and proxy = 'differs')::int as proxies_differ,
            count(*) filter (where has_video and is_wanted and proxy = 'unchecked')::int as proxies_unchecked,
            coalesce(sum(proxy_bytes) filter (where has_video and is_wanted and proxy not in ('equal', 'unchecked')), 0)::bigint as proxy_bytes_open
          from (select *, not exists (select from without_proxy w where w.media_file_id = media_file.id) as is_wanted from media_file) clip
            join load_entry e on e.id = clip.entry_id
          where clip.load_id = ${loadId} and (e.state = 'on-card' or (e.state = 'gone' and e.copied))
          group by clip.production_id`.execute(db)
        for (const row of rows) expect(parts.find((part) => part.productionId === row.productionId)).toMatchObject(row)
        const sum = (name: string) => rows.reduce((total, row) => total + (row[name] ?? 0), 0)
        expect(load).toMatchObject({ clips: sum('clips'), lengthMs: sum('lengthMs'), playable: sum('playable') })
        expect((await cards.loadsOf(db, [second])).map((one) => one.id)).toEqual(
          rows.some((row) => row.productionId === second) ? [loadId] : [],
        )
        // Source: the proxies of each production, added up anew.
        const made = await sql<{ productionId: string; sizeBytes: number }>`
          select b.production_id, sum(b.size_bytes)::bigint as size_bytes from production_bytes b
          where byte_class = 'generated' and b.production_id in (${owner}, ${second}) group by b.production_id
          having sum(b.size_bytes) <> 0 order by 1`.execute(db)
        const anew = await sql<{ productionId: string; sizeBytes: number }>`
          select clip.production_id, sum(proxy.size_bytes)::bigint as size_bytes from proxy join media_file clip on clip.id = proxy.media_file_id
          where clip.production_id in (${owner}, ${second}) group by clip.production_id order by 1`.execute(db)
        expect(made.rows).toEqual(anew.rows)
      }),
      { numRuns: 40 },
    )
  })

  async function change({ id, entryId }: { id: string; entryId: number }, what: string): Promise<void> {
    if (what === 'equal' || what === 'differs' || what === 'unchecked') {
      const [volume] = await db.selectFrom('volume').select('id').execute()
      const { probe } = await db.selectFrom('mediaFile').select('probe').where('id', '=', id).executeTakeFirstOrThrow()
      if (!probe || !volume) return
      const file = {
        volumeId: volume.id,
        path: `${id}.mp4`,
        sizeBytes: 1,
        decodedFrames: 1,
        decodeErrors: 0,
        timesCompared: 1,
        worstSeconds: 0,
      }
      await putProxy(db, { mediaFileId: id, probe, sounds: [], state: what, ...file })
    } else if (what === 'without' || what === 'wanted') await sayWithoutProxy(db, [id], what === 'without')
    else if (what === 'trouble' || what === 'well')
      await db
        .updateTable('mediaFile')
        .set({ trouble: what === 'trouble' ? 'no index' : null })
        .where('id', '=', id)
        .execute()
    else
      await db
        .updateTable('loadEntry')
        .set({ state: what as 'gone' })
        .where('id', '=', entryId)
        .execute()
  }

  it('and of a copy, when its oldest and newest proof was made', async () => {
    const times = await proofTimes(db, [loadId])
    const { rows } = await sql<{ volumeId: string; first: Date; last: Date }>`
      select volume_id, min(proved_at) as first, max(proved_at) as last from copy_file
      where load_id = ${loadId} and on_card and standing in ('verified', 'memory') group by volume_id`.execute(db)
    expect(rows).toHaveLength(2)
    for (const row of rows) expect(times.find((one) => one.volumeId === row.volumeId)).toMatchObject(row)
  })
})

describe('proxies that are to be checked', () => {
  it('are compared at night, when nothing else is under way, and not again within the hour', async () => {
    await db.updateTable('mediaFile').set({ proxy: 'unchecked' }).where('loadId', '=', loadId).execute()
    let now = new Date(2026, 4, 9, 14, 0)
    const ordered: string[] = []
    const order = (task: { title: string }) => Promise.resolve(void ordered.push(task.title))
    const byNight = new ProxiesByNight(db, 'a computer', order, () => now)
    await byNight.turn()
    expect(ordered).toEqual([])
    now = new Date(2026, 4, 9, 23, 0)
    const [task] = await db
      .insertInto('task')
      .values({
        ...{ kind: 'sort', title: 'Sort', host: 'a computer', bossId: '', subject: '', state: 'running' },
        ...{ productionId: null, loadId: null, input: '{}', troubles: '[]', idempotencyKey: null },
      })
      .returning('id')
      .execute()
    await byNight.turn()
    expect(ordered).toEqual([])
    await db.deleteFrom('task').where('id', '=', String(task?.id)).execute()
    await byNight.turn()
    const first = [...ordered]
    await byNight.turn()
    expect(first).toContain('Compare the proxies of “Mast day 1” with their originals')
    expect(ordered).toEqual(first)
    now = new Date(2026, 4, 10, 0, 30)
    await byNight.turn()
    expect(ordered).toEqual([...first, ...first])
  })
})
