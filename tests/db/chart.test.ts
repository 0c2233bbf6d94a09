import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ChartAsked } from '../../contract/chart'
import type { KeptLine } from '../../core/copies/keptChart'
import { markOf } from '../../core/copies/mark'
import { AT_HOME_ONLY } from '../../core/copies/rule'
import { inTransaction, type Db } from '../../server/db/connection'
import { addKeptChart, keptCharts, takeKeptChartBack } from '../../server/db/queries/keptCharts'
import * as cards from '../../server/db/queries/cards'
import { addRule, chooseRule } from '../../server/db/queries/clearRules'
import { copiedFiles, journalOf } from '../../server/db/queries/loadJournal'
import { addSaid } from '../../server/db/queries/said'
import { writeSettings } from '../../server/db/queries/settings'
import { chartHead, chartLines, refreshLines } from '../../server/facts/chart'
import { loadStates } from '../../server/facts/loadStates'
import { fill } from '../bench/fill'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
let db: Db
let loads: string[]
let volumeIds: string[]
let productions: string[]

const asked = () => ({ host: 'here', now: Date.now(), looked: true })
const idsOf = async (table: string) =>
  (await sql<{ id: string }>`select id from ${sql.table(table)} order by created_at, id`.execute(db)).rows.map(
    (row) => row.id,
  )

beforeAll(async () => {
  cluster = await testCluster()
  db = await cluster.open('yendra_chart')
  await fill(db, { productions: 3, loadsEach: 4, filesEach: 3, clipsEach: 2, readings: [1, 1, 2] })
  ;[loads, volumeIds, productions] = [await idsOf('load'), await idsOf('volume'), await idsOf('production')]
  for (const [at, id] of volumeIds.entries()) {
    const device = { fileSystem: `fs:${at}`, disks: [`serial:${at}`], known: true, pastCache: true }
    await sql`insert into mount (volume_id, host, path, connected, device) values (${id}, 'here', ${`/media/${at}`}, true, ${JSON.stringify(device)})`.execute(
      db,
    )
  }
})
afterAll(async () => {
  await db.destroy()
  await cluster.stop()
})

async function refreshed() {
  while ((await refreshLines(db, 'here', 40)) > 0);
  const lines = await db.selectFrom('chartLine').selectAll().execute()
  const places = await db.selectFrom('chartPlace').select(['ofId', 'loadId']).execute()
  const copies = await db.selectFrom('chartCopy').selectAll().execute()
  return {
    lines,
    places: places.map((row) => `${row.ofId} ${row.loadId}`).sort(),
    // What is read again first is drawn from these.
    aged: copies.map((row) => `${row.volumeId} ${row.loadId} ${row.oldestAt.toISOString()} ${row.others}`).sort(),
  }
}

/** The same from every fact there is, without what was kept. */
async function reckoned() {
  const states = await loadStates(db, await cards.loadsById(db, loads), asked())
  const { rows } = await sql<{ place: string }>`
    select volume_id || ' ' || load_id as place from mirror
    union select site_id || ' ' || load_id from mirror join volume on volume.id = volume_id`.execute(db)
  const aged = states.flatMap(({ load, copies, rule }) =>
    copies.flatMap(({ volumeId, firstVerifiedAt: oldest }) => {
      const others = copies.filter((other) => other.volumeId !== volumeId && markOf(other, rule) >= 2).length
      return oldest ? [`${volumeId} ${load.id} ${oldest} ${others}`] : []
    }),
  )
  return { states, places: rows.map((row) => row.place).sort(), aged: aged.sort() }
}

const ask = (more: Partial<ChartAsked> = {}) => ({
  ...{ clientId: '', productionId: '', siteId: '', volumeId: '', year: null, danger: false },
  ...{ sort: 'place' as const, down: false, limit: 40 },
  ...more,
})
const write = (statement: string) => sql.raw(statement).execute(db)

/** Everything by which a line may become otherwise, each done to one of the loads, productions or volumes. */
const CHANGES: readonly ((at: number) => Promise<unknown>)[] = [
  (at) => addSaid(db, { kind: 'formatted', loadId: nth(loads, at) }),
  (at) => addSaid(db, { kind: 'unformatted', loadId: nth(loads, at) }),
  (at) =>
    addSaid(db, { kind: 'different-drives', volumeId: nth(volumeIds, at), otherVolumeId: nth(volumeIds, at + 1) }),
  async (at) => {
    const loadId = nth(loads, at)
    const entry = (await cards.entriesOf(db, loadId))[0]
    await addSaid(db, { kind: 'found-wrong', loadId, volumeId: nth(volumeIds, at), entryId: entry?.id ?? 0 })
  },
  (at) =>
    write(
      `update copy_file set standing = 'missing' where load_id = '${nth(loads, at)}' and volume_id = '${nth(volumeIds, at)}'`,
    ),
  (at) =>
    write(
      `update copy_file set standing = 'verified', proved_at = now() - interval '${at * 90} days' where load_id = '${nth(loads, at)}'`,
    ),
  (at) =>
    write(
      `update mirror set present = not present where load_id = '${nth(loads, at)}' and volume_id = '${nth(volumeIds, at)}'`,
    ),
  (at) =>
    write(
      `insert into load_finding (load_id, kind, files, print, paths) values ('${nth(loads, at)}', 'gone', 1, '${at}', '["a"]') on conflict do nothing`,
    ),
  (at) => write(`delete from load_finding where load_id = '${nth(loads, at)}'`),
  (at) => write(`update site set kind = ${['null', `'stays'`, `'carried'`][at % 3]}`),
  async (at) => {
    await write(`insert into site (name, kind) values ('place ${at % 3}', 'stays') on conflict do nothing`)
    await write(
      `update volume set site_id = (select id from site where name = 'place ${at % 3}') where id = '${nth(volumeIds, at)}'`,
    )
  },
  (at) => write(`update volume set cycle_days = ${[1, 30, 180][at % 3]} where id = '${nth(volumeIds, at)}'`),
  (at) =>
    write(`update volume set medium = ${[`'disk'`, `'flash'`, 'null'][at % 3]} where id = '${nth(volumeIds, at)}'`),
  (at) =>
    write(
      `update mount set device = jsonb_set(device, '{disks}', ${at % 2 ? `'["serial:0"]'` : 'jsonb_build_array(path)'})`,
    ),
  (at) => write(`update production set shoot_on = date '2025-01-01' + ${at * 40} where id = '${nth(productions, at)}'`),
  async (at) => {
    const { id } = await addRule(db, { ...AT_HOME_ONLY, name: randomUUID(), copies: 2 + (at % 3), sites: 1 + (at % 2) })
    if (at % 4 === 0) await writeSettings(db, { ruleId: id })
    else if (at % 4 === 1) await write(`update client set rule_id = '${id}'`)
    else await chooseRule(db, nth(productions, at), id)
  },
  (at) => write(`update clear_rule set media = ${1 + (at % 2)} where not shipped`),
  (at) => write(`update load_summary set clips = clips where load_id = '${nth(loads, at)}'`),
]
/** Nothing is wrong with any copy, so that a worse danger hides none of what is done next. */
async function asBefore() {
  await write(`update copy_file set standing = 'verified', proved_at = now()`)
  await write(`update mirror set present = true`)
  await write(`delete from load_finding`)
  await write(`update site set kind = 'stays'`)
  await write(`update mount set device = jsonb_set(device, '{disks}', jsonb_build_array(path))`)
  await write(`delete from said`)
  await refreshed()
}
const RANDOM = 12
const nth = (all: readonly string[], at: number) => all[at % all.length] ?? ''

describe('the lines of the chart', () => {
  it('are what every fact together says, whatever became otherwise', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(CHANGES.length - 1), fc.nat(11)), { minLength: 1, maxLength: 4 }),
        async (changes) => {
          await asBefore()
          for (const [change, at] of changes) await CHANGES[change]?.(at)
          const { lines, places, aged } = await refreshed()
          const truth = await reckoned()
          expect(places).toEqual(truth.places)
          expect(aged).toEqual(truth.aged)
          for (const { load, danger } of truth.states) {
            const line = lines.find((one) => one.loadId === load.id)
            expect([line?.danger, line?.oldestProofAt?.toISOString(), line?.clientId, line?.productionId]).toEqual([
              danger.rank,
              danger.oldestProofAt,
              (
                await db
                  .selectFrom('production')
                  .select('clientId')
                  .where('id', '=', load.productionId)
                  .executeTakeFirstOrThrow()
              ).clientId,
              load.productionId,
            ])
          }
        },
      ),
      {
        numRuns: CHANGES.length * 2 + RANDOM,
        seed: 4711,
        examples: CHANGES.flatMap((_, at) => [[[[at, 1]]], [[[at, 4]]]] as [[number, number][]][]),
      },
    )
  }, 120_000)

  it('are what is true also where several write them at once', async () => {
    await asBefore()
    for (let turn = 0; turn < 8; turn += 1) {
      const act = () => CHANGES[turn % 2 ? 0 : 1]?.(turn)
      await Promise.all([
        act(),
        refreshLines(db, 'here', 3),
        act(),
        refreshLines(db, 'here', 3),
        refreshLines(db, 'here', 3),
      ])
    }
    const [{ lines }, { states }] = [await refreshed(), await reckoned()]
    expect(new Map(lines.map((line) => [line.loadId, line.danger]))).toEqual(
      new Map(states.map(({ load, danger }) => [load.id, danger.rank])),
    )
  })

  it('are found by what they are narrowed to, each once, in pages of any size', async () => {
    await refreshed()
    const { states } = await reckoned()
    const all = async (more: Partial<ChartAsked>) => {
      const rows = []
      for (let after: string | undefined; ;) {
        const page = await chartLines(db, asked(), ask({ ...more, limit: 5, after }))
        rows.push(...page.rows)
        if (page.next === null) return rows.map((row) => row.id)
        after = page.next
      }
    }
    const want = (keep: (state: (typeof states)[number]) => boolean) =>
      states
        .filter(keep)
        .map(({ load }) => load.id)
        .sort()
    expect((await all({})).sort()).toEqual([...loads].sort())
    expect((await all({ danger: true })).sort()).toEqual(want(({ danger }) => danger.rank > 0))
    expect((await all({ productionId: nth(productions, 1) })).sort()).toEqual(
      want(({ load }) => load.productionId === productions[1]),
    )
    expect((await all({ volumeId: nth(volumeIds, 2), productionId: nth(productions, 0) })).sort()).toEqual(
      want(
        ({ load, copies }) =>
          load.productionId === productions[0] && copies.some((copy) => copy.volumeId === volumeIds[2]),
      ),
    )
    const { years, clients } = await chartHead(db, asked())
    const byYear = await Promise.all(years.map((year) => all({ year })))
    expect(byYear.flat().sort()).toEqual([...loads].sort())
    expect((await all({ clientId: clients[0]?.id ?? '' })).sort()).toEqual([...loads].sort())
    // Newest production first, its loads as they were taken in.
    const order = await all({})
    const at = (id: string | null) => states.find((state) => state.load.id === id)?.load
    const keys = order.map(
      (id) =>
        `${99999999 - Number((at(id)?.shootOn ?? new Date().toISOString().slice(0, 10)).replaceAll('-', ''))} ${at(id)?.productionId} ${at(id)?.createdAt.toISOString()}`,
    )
    expect(keys).toEqual([...keys].sort())
  })

  it('become due by time alone where a copy is not read', async () => {
    const loadId = nth(loads, 0)
    await write(`update volume set cycle_days = 180`)
    await write(
      `update copy_file set standing = 'verified', proved_at = now() - interval '180 days' + interval '1 second' where load_id = '${loadId}'`,
    )
    await write(`update mirror set present = true where load_id = '${loadId}'`)
    await refreshed()
    expect((await db.selectFrom('chartDue').select('loadId').where('loadId', '=', loadId).execute()).length).toBe(1)
    await sql`select pg_sleep(1.2)`.execute(db)
    await refreshed()
    const [state] = await loadStates(db, await cards.loadsById(db, [loadId]), asked())
    expect(state?.danger.sentences.join(' ')).toContain(
      'has files that were last read 180 days ago; every 180 they are to be.',
    )
  })

  it('open to their files and their journal', async () => {
    const loadId = nth(loads, 1)
    await addSaid(db, { kind: 'formatted', loadId, against: 'Not yet: no', detail: { reason: 'Full' } })
    const { rows } = await journalOf(db, loadId, { limit: 3, down: true })
    expect(rows[0]?.detail).toMatchObject({ kind: 'said', said: 'formatted', against: 'Not yet: no', note: 'Full' })
    const files = await copiedFiles(db, loadId, false, { limit: 2, down: false })
    expect(files.rows.map((file) => file.on.length)).toEqual([3, 3])
    const next = await copiedFiles(db, loadId, false, { limit: 2, down: false, after: files.next ?? '' })
    expect([next.rows.length, next.next]).toEqual([1, null])
  })

  it('say what was kept by hand beside what is proved, the newest of each load, and give it back when it is taken back', async () => {
    const line = (load: string, more: Partial<KeptLine> = {}): KeptLine => ({
      ...{ client: '', production: 'MAST day 1', shootOn: null, load, camera: '', sizeBytes: 5e9, formatted: '' },
      copies: [{ name: 'Grey 2', said: 'x' }],
      ...more,
    })
    const bring = (...lines: KeptLine[]) => inTransaction(db, (tx) => addKeptChart(tx, { fileName: 'a.csv', lines }))
    const shown = async () =>
      (await chartLines(db, asked(), ask({ limit: 80 }))).rows.flatMap((row) =>
        row.said.map((copy) => `${row.production.title} ${row.label} ${row.loadId === null} ${copy.name} ${copy.said}`),
      )
    expect(await bring(line('curlew 1'), line('Reel 9'))).toEqual({ added: 2, already: 0, known: 1 })
    expect(await bring(line('curlew 1'), line('Reel 9'))).toBeUndefined()
    // Letters of other alphabets have their place and their sums too.
    await bring(line('Reel 1', { production: 'ÖL über Ärger' }), line('Reel 2', { production: 'ÖL über Ärger' }))
    const [oil] = (await chartLines(db, asked(), ask({ limit: 80 }))).rows.filter((row) => row.label === 'Reel 1')
    expect(oil?.production).toMatchObject({ title: 'ÖL über Ärger', loads: 2, sizeBytes: 10e9 })
    expect(await db.selectFrom('keptLine').select('id').where('place', '=', '').execute()).toEqual([])
    const [oily] = await keptCharts(db)
    await inTransaction(db, (tx) => takeKeptChartBack(tx, oily?.id ?? ''))
    const first = ['Mast day 1 Curlew 1 false Grey 2 x', 'Mast day 1 Reel 9 true Grey 2 x']
    expect((await shown()).sort()).toEqual(first)
    const newer = line('REEL 9', { copies: [{ name: 'Volume 1', said: 'since May' }] })
    expect(await bring(line('curlew 1'), newer)).toEqual({ added: 1, already: 1, known: 1 })
    expect((await shown()).sort()).toEqual([first[0], 'Mast day 1 REEL 9 true Volume 1 since May'])
    // A load of that name is taken in later.
    await write(
      `insert into load (production_id, label, file_count, size_bytes, left_out) select id, 'Reel 9', 1, 1, 0 from production where title = 'Mast day 1'`,
    )
    await refreshed()
    expect((await shown()).sort()).toEqual([first[0], 'Mast day 1 Reel 9 false Volume 1 since May'])
    const [last] = await keptCharts(db)
    expect(await inTransaction(db, (tx) => takeKeptChartBack(tx, last?.id ?? ''))).toBe(true)
    expect(await inTransaction(db, (tx) => takeKeptChartBack(tx, last?.id ?? ''))).toBe(false)
    expect((await shown()).sort()).toEqual([first[0], 'Mast day 1 Reel 9 false Grey 2 x'])
    const said = await db
      .selectFrom('said')
      .select('kind')
      .where('kind', 'in', ['kept-chart', 'kept-chart-taken-back'])
      .orderBy('id')
      .execute()
    expect(said.map((row) => row.kind)).toEqual([
      'kept-chart',
      'kept-chart',
      'kept-chart-taken-back',
      'kept-chart',
      'kept-chart-taken-back',
    ])
  })

  it('of a kept chart come in whole or not at all, wherever the database is cut', async () => {
    const lines = Array.from({ length: 800 }, (_, at): KeptLine => ({
      ...{
        client: '',
        production: 'Sail loft',
        shootOn: null,
        load: `Reel ${at}`,
        camera: '',
        sizeBytes: 5e9,
        formatted: '',
      },
      copies: [{ name: 'Grey 2', said: 'x' }],
    }))
    const bring = () => inTransaction(db, (tx) => addKeptChart(tx, { fileName: 'cut.csv', lines }))
    const count = async () =>
      (
        await sql<{
          lines: number
        }>`select count(*)::int as lines from kept_line where production = 'Sail loft'`.execute(db)
      ).rows[0]?.lines
    let cut = 0
    for (let turn = 0; turn < 6; turn += 1) {
      const coming = bring().then(
        () => false,
        () => true,
      )
      await new Promise((resolve) => setTimeout(resolve, 3 + turn * 12))
      await sql`select pg_terminate_backend(pid) from pg_stat_activity
        where datname = current_database() and pid <> pg_backend_pid() and state <> 'idle'`.execute(db)
      const isCut = await coming
      cut += Number(isCut)
      expect(await count()).toBe(isCut ? 0 : 800)
      if (!isCut) break
    }
    expect(cut).toBeGreaterThan(0)
    await bring()
    expect(await count()).toBe(800)
    for (const { id } of await keptCharts(db)) await inTransaction(db, (tx) => takeKeptChartBack(tx, id))
  })
})
