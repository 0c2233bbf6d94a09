import fc from 'fast-check'
import pg from 'pg'
import type { Schema, SchemaObjectDescription } from 'yup'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ENDPOINTS, type AnyEndpoint } from '../../contract/api'
import { newWorld, startStation, type Station } from '../yes/station'

/** Bodies that are tried at each endpoint. */
const BODIES = 50
const SEED = 20261125

let station: Station
let db: pg.Client
let ids: string[] = []

beforeAll(async () => {
  station = await startStation()
  db = new pg.Client({ connectionString: station.databaseUrl })
  await db.connect()
  const world = await newWorld(station, ['CURL0041.MP4'])
  await world.look()
  const load = await world.load()
  ids = [world.productionId, world.readerId, ...world.volumeIds, load.id, (await world.clips())[0]?.id ?? '']
  // What is written in the background, by tasks that were let in, is none of a refusal’s doing.
  station.worker().kill('SIGKILL')
})
afterAll(async () => {
  await db.end()
  await station.stop()
})

const HARD_TEXTS = [
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  '2026-02-30',
  '0.0001',
  '24000/0',
  '../../etc',
  '/',
  '/etc',
  '%',
  '😀'.repeat(70),
  'x'.repeat(300_000),
]
const HARD_NUMBERS = [0, -1, 0.5, 1e308, -1e308, 2 ** 53, Number.MIN_VALUE, 25]

const text = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.constantFrom(...HARD_TEXTS),
  fc.string({ maxLength: 20 }),
)
const number = fc.oneof(fc.integer({ min: 0, max: 1e6 }), fc.double({ noNaN: true }), fc.constantFrom(...HARD_NUMBERS))
const anything = fc.oneof(fc.jsonValue({ maxDepth: 3 }), text, number)

type Described = ReturnType<Schema['describe']>

/** Values near what a schema wants: right, nearly right, and wrong altogether. */
function near(described: Described): fc.Arbitrary<unknown> {
  const right = (): fc.Arbitrary<unknown> => {
    if (described.type === 'object') return nearObject(described as SchemaObjectDescription)
    const inner = 'innerType' in described && !Array.isArray(described.innerType) ? described.innerType : undefined
    if (described.type === 'array') return fc.array(inner ? near(inner as Described) : anything, { maxLength: 4 })
    if (described.type === 'boolean') return fc.boolean()
    if (described.type === 'number') return number
    const known = 'oneOf' in described ? described.oneOf.filter((one) => typeof one === 'string') : []
    return fc.oneof(text, fc.constantFrom(...ids), ...(known.length > 0 ? [fc.constantFrom(...known)] : []))
  }
  return fc.oneof({ weight: 6, arbitrary: right() }, { weight: 1, arbitrary: anything })
}

const nearObject = ({ fields }: SchemaObjectDescription): fc.Arbitrary<unknown> => {
  const parts = Object.entries(fields).map(([name, field]) => [name, near(field as Described)] as const)
  const whole = fc.record(Object.fromEntries(parts))
  return fc.oneof(
    { weight: 4, arbitrary: whole },
    { weight: 2, arbitrary: fc.record(Object.fromEntries(parts), { requiredKeys: [] }) },
    {
      weight: 1,
      arbitrary: fc
        .tuple(whole, fc.dictionary(fc.string({ maxLength: 8 }), anything))
        .map(([a, b]) => ({ ...b, ...a })),
    },
  )
}

const pathOf = (endpoint: AnyEndpoint, turn: number) =>
  endpoint.path.replaceAll(/:\w+/g, () => ids[turn % ids.length] ?? '')

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
      const bodies = fc.sample(near(endpoint.body.describe()), { seed: SEED + at, numRuns: BODIES })
      await expectSound(
        bodies.map((body, turn) => ({
          method: endpoint.method,
          path: pathOf(endpoint, turn),
          body: JSON.stringify(body),
        })),
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
    }
    expect(await ask('GET', '/productions/%E0%A4%A/copies')).toMatchObject({
      status: 400,
      text: expect.stringContaining('%25'),
    })
    expect(await ask('GET', '/search?q=%00')).toMatchObject({ status: 422 })
    expect(await ask('GET', `/clips/${ids[5]}/frame?at=soon`)).toMatchObject({ status: 422 })
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
    const plans = await times(5, () => station.post(`/productions/${ids[0]}/offloads`, offload, key))
    expect(new Set(plans.map((answer) => answer.body.id)).size).toBe(1)
  })
})
