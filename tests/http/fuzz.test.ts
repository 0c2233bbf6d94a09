import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ENDPOINTS, type AnyEndpoint } from '../../contract/api'
import { CHANNELS } from '../../server/db/queries/tasks'
import type { Scanned } from '../../server/http/scanDesk'
import { isLong } from '../long'
import { bodiesNear } from './near'
import { newWorld, startStation, type Station } from '../clear/station'

/** Bodies that are tried at each endpoint. */
const BODIES = isLong ? 300 : 20
/** Addresses that are tried at each question. */
const QUESTIONS = isLong ? 60 : 10
/** What Node.js takes of an address before it answers by itself. */
const LONGEST_ADDRESS = 12_000
const SEED = 20261125

let station: Station
let db: pg.Pool
let observer: pg.Client
let ids: string[] = []
/** Of each table, what can be named in a path or a body. */
const idsIn = new Map<string, string[]>()

beforeAll(async () => {
  station = await startStation()
  db = new pg.Pool({ connectionString: station.databaseUrl, max: 2 })
  db.on('error', () => undefined)
  const world = await newWorld(station, ['CURL0041.MP4'])
  await world.look()
  await fillBooks(world.productionId)
  const { rows } = await db.query<{ name: string }>(
    `select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'id' and data_type = 'uuid'`,
  )
  for (const { name } of rows) {
    const found = await db.query<{ id: string }>(`select id from "${name}" order by id limit 3`)
    idsIn.set(
      name,
      found.rows.map((row) => row.id),
    )
  }
  ids = [...idsIn.values()].flat()
  // What is written in the background, by tasks that were let in, is none of a refusal’s doing.
  station.worker().kill('SIGKILL')
  observer = await standIn()
})
afterAll(async () => {
  await observer.end()
  await db.end()
  await station.stop()
})

/** One thing of each kind that is kept beside productions. */
async function fillBooks(productionId: string): Promise<void> {
  const made = async (path: string, body: object) => {
    const { status, body: answer } = await station.post(path, body)
    expect(status, path).toBe(201)
    return String(answer.id)
  }
  const camera = await made('/cameras', { name: 'Curlew' })
  await made(`/cameras/${camera}/modes`, { name: 'sound only', picture: null, audioBitsPerSecond: 1_536_000 })
  await made('/cards', { name: 'Curlew A', capacityBytes: 128e9, bytesPerSecond: 90e6 })
  await made('/clients', { name: 'the harbour office' })
  await made(`/productions/${productionId}/shots`, { shots: [{ name: 'The steam box opens' }] })
}

/** In the place of the worker: tells whoever asks for a look at once that nobody can. */
async function standIn(): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: station.databaseUrl })
  client.on('error', () => undefined)
  client.on('notification', ({ payload }) => {
    const { id } = JSON.parse(payload ?? '{}') as Scanned
    void db.query('select pg_notify($1, $2)', [CHANNELS.looked, JSON.stringify({ id, done: false })])
  })
  await client.connect()
  await client.query(`listen ${CHANNELS.look}`)
  return client
}

/** Ids of things that a word names: `load` of `loadIds`, `loads` of `/loads/:id`. */
const idsFor = (word: string): readonly string[] => {
  const thing = word.replace(/Ids?$/, '').replace(/s$/, '').toLowerCase()
  // What a person calls a clip is known by a media file.
  const table = thing === 'clip' ? 'media_file' : thing
  return [...idsIn].find(([name]) => name === table || name.endsWith(`_${table}`))?.[1] ?? []
}

/** Mostly with an id of the right kind, each fourth time with one of any. */
const pathOf = (endpoint: AnyEndpoint, turn: number) =>
  endpoint.path.replaceAll(/(\w+)\/:\w+/g, (_, word: string) => {
    const right = idsFor(word)
    const among = turn % 4 === 0 || right.length === 0 ? ids : right
    return `${word}/${among[turn % among.length] ?? ''}`
  })

const deep = '['.repeat(400_000) + ']'.repeat(400_000)
const RAW = ['', 'null', 'true', '1', '"text"', '[]', '{', '{"a":', '\u0000', '{"\\u0000":1}', '{"title":"\\ud800"}']

async function ask(
  method: string,
  path: string,
  body?: string,
): Promise<{ status: number; type: string; text: string }> {
  const response = await fetch(`${station.base}${path}`, {
    method,
    ...(body === undefined ? {} : { body, headers: { 'Content-Type': 'application/json' } }),
  })
  return { status: response.status, type: response.headers.get('content-type') ?? '', text: await response.text() }
}

/** A print of everything that is kept, but for what the clock alone changes. */
async function print(): Promise<string> {
  const { rows } = await db.query<{ name: string }>(
    `select tablename as name from pg_tables where schemaname = 'public' and tablename not in ('mount', 'reader') order by 1`,
  )
  const parts = rows.map(
    ({ name }) => `select md5(coalesce(string_agg(t::text, '|' order by t::text), '')) as print from "${name}" t`,
  )
  const { rows: prints } = await db.query<{ print: string }>(parts.join(' union all '))
  return prints.map((row) => row.print).join()
}

interface Sent {
  readonly method: string
  readonly path: string
  readonly body?: string
}

/** A few at once, as several windows would. */
async function inRows<T>(all: readonly T[], work: (one: T) => Promise<void>): Promise<void> {
  const waiting = [...all]
  const line = async () => {
    for (let one = waiting.shift(); one !== undefined; one = waiting.shift()) await work(one)
  }
  await Promise.all(Array.from({ length: 6 }, line))
}

/** Of what was refused, each third is sent again. */
const AGAIN = 3

/** Whatever is refused is refused with problem details (RFC 9457), and what is refused, sent again, changes nothing. */
async function expectSound(requests: readonly Sent[]): Promise<void> {
  const refused: Sent[] = []
  let count = 0
  await inRows(requests, async (request) => {
    const { method, path, body } = request
    const { status, type, text: answer } = await ask(method, path, body)
    const what = `${method} ${path} ${body?.slice(0, 300)}: ${status} ${answer.slice(0, 300)}`
    expect(status, what).toBeLessThan(500)
    if (status < 400) return
    expect(type, what).toContain('application/problem+json')
    const problem = JSON.parse(answer) as Record<string, unknown>
    expect(problem, what).toMatchObject({ status, type: expect.stringMatching(/^\/problems\//) })
    expect(String(problem.detail).length, what).toBeGreaterThan(10)
    expect(String(problem.detail).length, what).toBeLessThan(1000)
    // A name that was taken may be free by then.
    if (!String(problem.detail).includes('already') && count++ % AGAIN === 0) refused.push(request)
  })
  const before = await print()
  await inRows(refused, async ({ method, path, body }) => {
    const { status } = await ask(method, path, body)
    expect(status, `${method} ${path} ${body?.slice(0, 300)}`).toBeGreaterThanOrEqual(400)
  })
  expect(await print()).toBe(before)
}

describe('what is sent to the API', () => {
  it('never breaks it and is never half carried out, whatever it is', async () => {
    for (const [at, endpoint] of ENDPOINTS.entries()) {
      if (!endpoint.body) continue
      const bodies = bodiesNear(endpoint.body, idsFor, SEED + at, BODIES)
      await expectSound(
        bodies.map((body, turn) => ({
          method: endpoint.method,
          path: pathOf(endpoint, turn),
          body: JSON.stringify(body),
        })),
      )
    }
  })

  it('may be asked for in any words, and by ids of any kind', async () => {
    for (const [at, endpoint] of ENDPOINTS.entries()) {
      if (endpoint.method !== 'GET') continue
      const questions = endpoint.query ? bodiesNear(endpoint.query, idsFor, SEED + at, QUESTIONS) : [{}]
      await expectSound(
        questions.map((question, turn) => {
          const words = Object.entries(question ?? {}).map(([name, value]): [string, string] => [
            name.toWellFormed(),
            (typeof value === 'string' ? value : JSON.stringify(value)).toWellFormed(),
          ])
          const address = `${pathOf(endpoint, turn + 1)}?${new URLSearchParams(words).toString()}`
          return { method: 'GET', path: address.slice(0, LONGEST_ADDRESS).replace(/%[^%]?$/, '') }
        }),
      )
    }
  })

  it('may be ordered by many windows at the same moment', async () => {
    for (const endpoint of ENDPOINTS) {
      if (endpoint.method === 'GET' || endpoint.body) continue
      await expectSound(
        Array.from({ length: 12 }, (_, turn) => ({ method: endpoint.method, path: pathOf(endpoint, turn) })),
      )
    }
  })

  it('may be any bytes at all', async () => {
    const orders = ENDPOINTS.filter((endpoint) => endpoint.body)
    await expectSound(
      orders.flatMap((endpoint, turn) =>
        RAW.map((body) => ({ method: endpoint.method, path: pathOf(endpoint, turn), body })),
      ),
    )
    await expectSound([deep, `{"title":${deep}}`].map((body) => ({ method: 'POST', path: '/productions', body })))
    const response = await fetch(`${station.base}/productions`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: Buffer.from([0xff, 0xfe, 0x00, 0x7b]),
    })
    expect(response.status).toBe(400)
  })

  it('is asked for in the right way and at an address that can be read', async () => {
    for (const path of new Set(ENDPOINTS.map((endpoint) => endpoint.path))) {
      const known = ENDPOINTS.filter((endpoint) => endpoint.path === path).map((endpoint) => endpoint.method as string)
      const wrong = ['GET', 'POST', 'PUT', 'DELETE', 'PATCH'].filter((method) => !known.includes(method))
      for (const method of wrong) {
        const response = await fetch(station.base + path.replaceAll(/:\w+/g, ids[0] ?? ''), {
          method,
          ...(method === 'GET' ? {} : { body: '{}', headers: { 'Content-Type': 'application/json' } }),
        })
        expect(response.status, `${method} ${path}`).toBe(405)
        expect(response.headers.get('allow'), path).toContain(known[0])
      }
      expect((await ask('OPTIONS', path.replaceAll(/:\w+/g, ids[0] ?? ''))).status, path).toBe(405)
    }
    expect(await ask('GET', '/productions/%E0%A4%A/copies')).toMatchObject({
      status: 400,
      text: expect.stringContaining('%25'),
    })
    expect(await ask('GET', '/search?q=%00')).toMatchObject({ status: 422 })
    for (const path of ['/search?q=a&q=b', `/loads/${idsFor('load')[0]}/plan?volumeIds=&volumeIds=`])
      expect(await ask('GET', path), path).toMatchObject({
        status: 422,
        text: expect.stringContaining('more than once'),
      })
    for (const name of ['valueOf', '__proto__', 'constructor']) {
      expect(await ask('GET', `/search?q=x&${name}=1`), name).toMatchObject({ status: 422 })
      expect(await ask('POST', '/productions', `{"title":"x","${name}":1}`), name).toMatchObject({ status: 422 })
    }
    expect(await ask('GET', `/clips/${idsFor('clip')[0]}/frame?at=soon`)).toMatchObject({ status: 422 })
    expect(await ask('POST', '/productions', 'null')).toMatchObject({
      status: 422,
      text: expect.stringContaining('JSON object'),
    })
  })
})

describe('what is sent twice at the same moment', () => {
  const times = <T>(count: number, work: () => Promise<T>) => Promise.all(Array.from({ length: count }, work))

  it('with one key is done once, and without a key the second is refused', async () => {
    const key = { 'Idempotency-Key': 'one press' }
    const keyed = await times(10, () => station.post('/productions', { title: 'Keyed' }, key))
    expect(new Set(keyed.map(({ status, body }) => `${status} ${String(body.id)}`)).size).toBe(1)
    const bare = await times(10, () => station.post('/productions', { title: 'Bare' }))
    expect(bare.map((answer) => answer.status).sort()).toEqual([201, ...Array.from({ length: 9 }, () => 422)])
    const offload = { label: 'Heron 1', sizeBytes: 512e9, seconds: 10_800 }
    const plans = await times(5, () => station.post(`/productions/${idsFor('production')[0]}/offloads`, offload, key))
    expect(new Set(plans.map((answer) => answer.body.id)).size).toBe(1)
  })
})
