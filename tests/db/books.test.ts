import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { bookAnswers } from './books/answers'
import { makeBooks } from './books/make'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
beforeAll(async () => {
  cluster = await testCluster()
})
afterAll(() => cluster.stop())

const KEPT = ['2026-11-28'] as const
const kept = (name: string) => join(import.meta.dirname, 'books', name)

/** Puts a kept database back as it was written. */
function restored(file: string, name: string): string {
  const url = cluster.url(name)
  execFileSync('psql', ['-q', '-v', 'ON_ERROR_STOP=1', '-f', file, url])
  return url
}

/** What nobody may lose: facts, and what was decided. */
const FACTS = [
  ...['seen', 'seen_change', 'proof', 'reading', 'twin', 'twin_reading', 'load_sample', 'said', 'journal'],
  ...['load_entry', 'clip', 'clip_file', 'review', 'rig', 'mirror', 'copy_file', 'load_summary', 'load_finding'],
  ...['proxy', 'deliverable', 'bag', 'sorted_file', 'sorted_change', 'production_bytes', 'shot', 'setting'],
] as const

/** Columns whose facts stand in others now: they are compared among the answers, and how proxies stand by itself. */
const BECAME_OTHERS: readonly string[] = ['review.ranges', 'clip.proxy', 'load_summary.proxies_equal']

/** How facts that stand elsewhere now are told as they were written then. */
const AS_IT_WAS: Record<string, string> = {
  clip: `select file.*, (select count(*)::int from take_file s where s.take_id = place.take_id and s.part = place.part and s.role = 'sidecar' and place.main) as sidecars,
      case when not place.main then own.media_file_id end as member_of,
      case when place.main and take.parts > 1 then take.id end as take_id,
      case when place.main and take.parts > 1 then place.part end as part,
      case when place.main and take.parts > 1 then take.parts end as parts,
      (select head.media_file_id from take_file head where head.take_id = nullif(take.rig_take_id, take.id) and head.part = place.part and head.main and place.main) as lens_of
    from media_file file join take_file place on place.media_file_id = file.id join take on take.id = place.take_id
      join take_file own on own.take_id = place.take_id and own.part = place.part and own.main`,
  clip_file: `select own.media_file_id as clip_id, place.entry_id, place.role, place.number
    from take_file place join take_file own on own.take_id = place.take_id and own.part = place.part and own.main`,
  ...Object.fromEntries(
    ['proof', 'proxy', 'deliverable', 'journal', 'review'].map((table) => [
      table,
      `select *, media_file_id as clip_id from ${table}`,
    ]),
  ),
}

/** Every row of those tables, with the columns that they had when they were written. */
async function factsIn(url: string, columnsOf?: ReadonlyMap<string, readonly string[]>) {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  const columns = new Map<string, readonly string[]>(columnsOf)
  const rows: Record<string, string[]> = {}
  for (const table of FACTS) {
    if (!columns.has(table)) {
      const { rows: found } = await client.query<{ name: string }>(
        `select column_name as name from information_schema.columns where table_schema = 'public' and table_name = $1 order by 1`,
        [table],
      )
      columns.set(
        table,
        found.map((one) => one.name).filter((one) => !BECAME_OTHERS.includes(`${table}.${one}`)),
      )
    }
    const names = (columns.get(table) ?? []).map((name) => `"${name}"`).join(', ')
    const { rows: found } = await client.query<{ row: string }>(
      `select row_to_json(kept)::text as row from (
        select ${names} from ${columnsOf && AS_IT_WAS[table] ? `(${AS_IT_WAS[table]}) told` : table}) kept order by 1`,
    )
    rows[table] = found.map((one) => one.row)
  }
  await client.end()
  return { columns, rows }
}

describe.each(KEPT)('a database of %s', (day) => {
  it('opens with every fact it had, and says of every copy what it said then', async () => {
    const name = `books_${day.replaceAll('-', '_')}`
    const url = restored(kept(`${day}.sql`), name)
    const before = await factsIn(url)
    expect(before.rows.proof?.length).toBeGreaterThan(20)
    const psql = (text: string) => execFileSync('psql', [url, '-Atqc', text], { encoding: 'utf8' }).trim()
    const equal = psql(`select id from clip where proxy = 'equal' and probe -> 'audio' is not null order by 1`)
    expect(equal).not.toBe('')
    const db = await cluster.open(name)
    const answers: unknown = JSON.parse(JSON.stringify(await bookAnswers(db)))
    await db.destroy()
    const after = await factsIn(url, before.columns)
    expect(after.rows).toEqual(before.rows)
    // Nobody had compared what they sound like: they are to be checked, and counted so.
    expect(psql(`select id from media_file where proxy = 'unchecked' order by 1`)).toBe(equal)
    expect(psql('select sum(proxies_unchecked) from load_summary')).toBe(String(equal.split('\n').length))
    // Which files stand how is one sum for each copy, filled for those of before.
    const sums = `select load_id, volume_id, sum(hashtextextended(standing, entry_id)) from copy_file where on_card group by 1, 2`
    expect(psql('select count(*) > 1 from mirror where print <> 0')).toBe('t')
    expect(psql(`select load_id, volume_id, print from mirror where print <> 0 except ${sums}`)).toBe('')
    const wasSaid = readFileSync(kept(`${day}.json`), 'utf8').replaceAll('"proxy": "equal"', '"proxy": "unchecked"')
    expect(answers).toMatchObject(JSON.parse(wasSaid) as object)
  })
})

// Written once for each shape of the database: YENDRA_MAKE_BOOKS=tests/db/books/DAY npx vitest run
// tests/db/books.test.ts
describe.runIf(process.env.YENDRA_MAKE_BOOKS)('a database of today', () => {
  it('is written down, with what is said of it', async () => {
    const to = String(process.env.YENDRA_MAKE_BOOKS)
    writeFileSync(`${to}.sql`, await makeBooks())
    restored(`${to}.sql`, 'made')
    const db = await cluster.open('made')
    const answers = await bookAnswers(db)
    await db.destroy()
    writeFileSync(`${to}.json`, `${JSON.stringify(answers, null, 1)}\n`)
    expect(answers.loads.map((load) => load.clear.clear)).toContain(true)
  })
})
