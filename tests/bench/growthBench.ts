import { readFileSync } from 'node:fs'
import { openDatabase } from '../../server/db/connection'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import type { LoadView } from '../../contract/cards'
import type { Figure } from './copyBench'
import { startStation, type Station } from '../clear/station'
import { fill, type Fill } from './fill'

/** Answers that are measured; the first production has as many loads and clips as fill a page in both. */
const QUESTIONS: readonly (readonly [string, (production: string, load: string) => string])[] = [
  ['overview', () => '/productions'],
  ['line of one production', (production) => `/productions/${production}`],
  ['loads', (production) => `/productions/${production}/loads`],
  ['clips by name', (production, load) => `/productions/${production}/clips?loadId=${load}`],
  [
    'clips by time, newest first',
    (production, load) => `/productions/${production}/clips?loadId=${load}&sort=recorded&down=true`,
  ],
  ['clips by typing', (production, load) => `/productions/${production}/clips?loadId=${load}&q=curl0042`],
  ['masters', (production) => `/productions/${production}/clips?show=film&limit=50`],
  ['copies and clear answer', (production) => `/productions/${production}/copies`],
  ['proxies', (production) => `/productions/${production}/proxies`],
  ['proxies, counted', (production) => `/productions/${production}/proxies/counts`],
  ['storage', (production) => `/productions/${production}/storage`],
  ['deliverables', (production) => `/productions/${production}/deliverables`],
  ['bags', (production) => `/productions/${production}/bags`],
  ['readers', () => '/readers'],
  ['tasks', () => '/tasks'],
  ['finding anything', () => '/search?q=curl0042'],
]
const TIMES = 50
const LEAST_MS = 5

const SMALL_PAGE: Fill = { productions: 24, loadsEach: 5, filesEach: 4, clipsEach: 2, readings: [1, 2] }
const FULL_PAGE: Fill = { productions: 1, loadsEach: 5, filesEach: 104, clipsEach: 100, readings: [1, 2] }
// 200 productions, 1 000 loads, 1 000 000 files, 100 000 clips, 3 000 000 proofs.
const LARGE: Fill = { productions: 199, loadsEach: 5, filesEach: 1000, clipsEach: 100, readings: [1, 2] }

interface Measured {
  readonly ms: readonly number[]
  readonly bytes: readonly number[]
  readonly httpMb: number
}

/**
 * Median answer times over HTTP with few files and with a million, asked in turns, since the speed of a machine changes
 * within minutes; sizes and memory with a million.
 */
export async function growthFigures(): Promise<Figure[]> {
  const stations: Station[] = []
  try {
    for (const fills of [
      [SMALL_PAGE, FULL_PAGE],
      [LARGE, FULL_PAGE],
    ])
      stations.push(await filled(fills))
    const [few, many] = await ask(stations)
    if (!few || !many) throw new Error('two stations were asked')
    return [
      ...QUESTIONS.map(([name], at): Figure => {
        const [theirs, ours] = [few.ms[at] ?? 0, many.ms[at] ?? 0]
        const ratio = Math.max(LEAST_MS, ours) / Math.max(LEAST_MS, theirs)
        return { name: `${name}, 1 000 000 files against 1 000`, ours, theirs, unit: 'ms', ratio, goal: 'at most 1.5' }
      }),
      against('largest answer', Math.max(...many.bytes) / 1000, 256, 'kB'),
      against('memory of the HTTP process', many.httpMb, 300, 'MB'),
    ]
  } finally {
    for (const station of stations) await station.stop()
  }
}

const against = (name: string, ours: number, theirs: number, unit: Figure['unit']): Figure => ({
  name,
  ours,
  theirs,
  unit,
  ratio: ours / theirs,
  goal: 'under 1',
})

async function filled(fills: readonly Fill[]): Promise<Station> {
  const station = await startStation()
  const db = await openDatabase(station.databaseUrl)
  for (const one of fills) await fill(db, one)
  await db.destroy()
  return station
}

async function ask(stations: readonly Station[]): Promise<Measured[]> {
  const asked = await Promise.all(
    stations.map(async (station) => {
      const production = (await station.get<Page<ProductionView>>('/productions')).rows[0]?.id ?? ''
      const load = (await station.get<Page<LoadView>>(`/productions/${production}/loads`)).rows[0]?.id ?? ''
      return { station, production, load, ms: [] as number[], bytes: [] as number[] }
    }),
  )
  for (const [, path] of QUESTIONS) {
    const times = asked.map((): number[] => [])
    for (let turn = 0; turn < TIMES; turn += 1)
      for (const [at, { station, production, load, bytes }] of asked.entries()) {
        const begun = performance.now()
        const response = await fetch(station.base + path(production, load), {
          headers: { 'accept-encoding': 'identity' },
        })
        const length = (await response.arrayBuffer()).byteLength
        times[at]?.push(performance.now() - begun)
        if (!response.ok) throw new Error(`${path(production, load)}: ${response.status}`)
        if (turn === 0) bytes.push(length)
      }
    for (const [at, { ms }] of asked.entries()) ms.push(times[at]?.sort((a, b) => a - b)[TIMES / 2] ?? 0)
  }
  return asked.map(({ station, ms, bytes }) => ({ ms, bytes, httpMb: residentMb(station.httpPid()) }))
}

const residentMb = (pid: number) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024
