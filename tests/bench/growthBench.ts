import { readFileSync } from 'node:fs'
import { openDatabase } from '../../server/db/connection'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import type { LoadView } from '../../contract/cards'
import type { Figure } from './copyBench'
import { startStation, type Station } from '../yes/station'
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

/** Median answer times over HTTP with few files and with a million; sizes and memory with a million. */
export async function growthFigures(): Promise<Figure[]> {
  const few = await measured([SMALL_PAGE, FULL_PAGE])
  const many = await measured([LARGE, FULL_PAGE])
  const largest = Math.max(...many.bytes) / 1000
  return [
    ...QUESTIONS.map(([name], at): Figure => {
      const [theirs, ours] = [few.ms[at] ?? 0, many.ms[at] ?? 0]
      const ratio = Math.max(LEAST_MS, ours) / Math.max(LEAST_MS, theirs)
      return { name: `${name}, 1 000 000 files against 1 000`, ours, theirs, unit: 'ms', ratio, goal: 'at most 1.5' }
    }),
    against('largest answer', largest, 256, 'kB'),
    against('memory of the HTTP process', many.httpMb, 300, 'MB'),
  ]
}

const against = (name: string, ours: number, theirs: number, unit: Figure['unit']): Figure => ({
  name,
  ours,
  theirs,
  unit,
  ratio: ours / theirs,
  goal: 'under 1',
})

async function measured(fills: readonly Fill[]): Promise<Measured> {
  const station = await startStation()
  try {
    const db = await openDatabase(station.databaseUrl)
    for (const one of fills) await fill(db, one)
    await db.destroy()
    return await ask(station)
  } finally {
    await station.stop()
  }
}

async function ask(station: Station): Promise<Measured> {
  const production = (await station.get<Page<ProductionView>>('/productions')).rows[0]?.id ?? ''
  const load = (await station.get<Page<LoadView>>(`/productions/${production}/loads`)).rows[0]?.id ?? ''
  const ms: number[] = []
  const bytes: number[] = []
  for (const [, path] of QUESTIONS) {
    const times: number[] = []
    let length = 0
    for (let turn = 0; turn < TIMES; turn += 1) {
      const begun = performance.now()
      const response = await fetch(station.base + path(production, load), {
        headers: { 'accept-encoding': 'identity' },
      })
      length = (await response.arrayBuffer()).byteLength
      times.push(performance.now() - begun)
      if (!response.ok) throw new Error(`${path(production, load)}: ${response.status}`)
    }
    ms.push(times.sort((a, b) => a - b)[TIMES / 2] ?? 0)
    bytes.push(length)
  }
  return { ms, bytes, httpMb: residentMb(station.httpPid()) }
}

const residentMb = (pid: number) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024
