import { sql } from 'kysely'
import { addressOf } from '../../contract/endpoint'
import { chartApi, type ChartAsked, type ChartHead } from '../../contract/chart'
import { cycleApi } from '../../contract/cycle'
import { openDatabase } from '../../server/db/connection'
import { startStation, until, type Station } from '../clear/station'
import type { Figure } from './copyBench'
import { fill } from './fill'

const TIMES = 30
/** Of a hundred loads each, every one with copies on twelve volumes. */
const FEW = 10
const MANY = 1000
const VOLUMES = 12

/** Ids that the chart is narrowed to, of the middle of what there is. */
interface Ids {
  readonly client: string
  readonly production: string
  readonly site: string
  readonly volume: string
}

const QUESTIONS: readonly (readonly [string, (ids: Ids) => Partial<ChartAsked>])[] = [
  ['all', () => ({})],
  ['by client', ({ client }) => ({ clientId: client })],
  ['by production', ({ production }) => ({ productionId: production })],
  ['by site', ({ site }) => ({ siteId: site })],
  ['by volume', ({ volume }) => ({ volumeId: volume })],
  ['by site and volume', ({ site, volume }) => ({ siteId: site, volumeId: volume })],
  ['by year', () => ({ year: 2026 })],
  ['only what is in danger', () => ({ danger: true })],
]

/** Pages of the chart, its sentence and that of the night with 1 000 loads and with 100 000, asked in turns. */
export async function chartFigures(): Promise<Figure[]> {
  const stations: { station: Station; ids: Ids }[] = []
  try {
    for (const productions of [FEW, MANY]) stations.push(await filled(productions))
    const figures: Figure[] = []
    const paths: readonly (readonly [string, (ids: Ids) => string])[] = [
      ['the sentence above', () => addressOf(chartApi.head, {})],
      ['where the night stands', () => addressOf(cycleApi.one, {})],
      ...QUESTIONS.map(
        ([name, asked]) => [`a page, ${name}`, (ids: Ids) => addressOf(chartApi.page, {}, asked(ids))] as const,
      ),
    ]
    for (const [name, path] of paths) {
      const times = stations.map((): number[] => [])
      for (let turn = 0; turn < TIMES; turn += 1)
        for (const [at, { station, ids }] of stations.entries()) {
          const begun = performance.now()
          const response = await fetch(station.base.replace(/\/api$/, '') + path(ids))
          await response.arrayBuffer()
          times[at]?.push(performance.now() - begun)
          if (!response.ok) throw new Error(`${path(ids)}: ${response.status}`)
        }
      const [theirs = 0, ours = 0] = times.map((all) => all.sort((a, b) => a - b)[TIMES / 2] ?? 0)
      figures.push({
        ...{ name: `chart, ${name}: 100 000 loads on 12 volumes against 1 000`, ours, theirs, unit: 'ms' },
        ...{ ratio: ours / theirs, goal: 'at most 1.5' },
      })
    }
    return figures
  } finally {
    for (const { station } of stations) await station.stop()
  }
}

async function filled(productions: number): Promise<{ station: Station; ids: Ids }> {
  const station = await startStation()
  const db = await openDatabase(station.databaseUrl)
  const readings = Array.from({ length: VOLUMES }, () => 1)
  await fill(db, { productions, loadsEach: 100, filesEach: 1, clipsEach: 0, readings })
  // A third of the copies is due.
  await sql`update copy_file set proved_at = now() - interval '170 days' where entry_id % 3 = 0`.execute(db)
  await until(
    () => station.get<ChartHead>('/chart/head'),
    ({ due }) => due === 0,
    3_600_000,
  )
  // As the database does by itself within minutes.
  await sql`vacuum analyze`.execute(db)
  const middle = async (table: 'client' | 'production' | 'site' | 'volume') => {
    const rows = await db.selectFrom(table).select('id').orderBy('id').execute()
    return rows[Math.floor(rows.length / 2)]?.id ?? ''
  }
  const [client, production, site, volume] = await Promise.all([
    ...[middle('client'), middle('production'), middle('site'), middle('volume')],
  ])
  await db.destroy()
  return {
    station,
    ids: { client: client ?? '', production: production ?? '', site: site ?? '', volume: volume ?? '' },
  }
}
