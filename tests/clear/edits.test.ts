import fc from 'fast-check'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Edit } from '../../core/units/edit'
import type { GearView } from '../../contract/gear'
import type { PlanView, ShotView } from '../../contract/shoot'
import { EDIT_HEADER } from '../../contract/edits'
import { isLong } from '../long'
import { clearWorld, startStation, type Station, type World } from './station'

let station: Station
let db: pg.Client
let world: World
let clipIds: string[]
let camera: { id: string; modeId: string }
beforeAll(async () => {
  station = await startStation()
  db = new pg.Client({ connectionString: station.databaseUrl })
  await db.connect()
  world = await clearWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'])
  clipIds = (await world.clips()).map(({ id }) => id)
  const made = async (path: string, body: object) => String((await station.post(path, body)).body.id)
  const id = await made('/cameras', CAMERA)
  camera = { id, modeId: await made(`/cameras/${id}/modes`, MODE) }
  await made('/cards', { name: 'Curlew A', capacityBytes: 128e9, bytesPerSecond: 90e6 })
})
afterAll(async () => {
  await db.end()
  await station.stop()
})

const CAMERA = {
  name: 'Curlew',
  kind: 'camera',
  media: 'cards',
  internalBytes: 0,
  slots: 1,
  spans: false,
  batteryMinutes: 90,
}
const MODE = { name: 'sound only', picture: null, audioBitsPerSecond: 1_536_000 }

/** An order as a browser sends it, with the change that it can be taken back by. */
async function sent(method: string, path: string, body: object = {}) {
  const response = await fetch(station.base + path, {
    method,
    headers: { 'Content-Type': 'application/json', Connection: 'close' },
    body: JSON.stringify(body),
  })
  const header = response.headers.get(EDIT_HEADER)
  const text = await response.text()
  return {
    status: response.status,
    detail: text.includes('"detail"') ? (JSON.parse(text) as { detail: string }).detail : '',
    edit: header === null ? undefined : (JSON.parse(decodeURIComponent(header)) as Edit),
  }
}
const back = (edit: Edit | undefined) => sent('POST', `/edits/${edit?.id ?? ''}/back`)

/** Every row that people edit, by the database itself; the version of a plan only ever goes on. */
async function everything(): Promise<string> {
  const tables = [
    'shot',
    'review',
    'planned_camera',
    'planned_card',
    'planned_takes',
    'camera',
    'recording_mode',
    'card',
    'without_proxy',
  ]
  const rows: { rows: { row: string }[] }[] = []
  for (const table of tables)
    rows.push(await db.query<{ row: string }>(`select to_jsonb(x)::text as row from ${table} x order by 1`))
  const wanted = await db.query('select id, proxy_wanted from media_file order by 1')
  return JSON.stringify([...rows.map((one, n) => [tables[n], ...one.rows]), wanted.rows])
}

const shots = () => station.get<ShotView[]>(`/productions/${world.productionId}/shots`)
const names = fc.constantFrom('The steam box opens', 'Ribs', 'Keel “laid”', 'Zwölf Spanten', 'plank\tby plank')
const at = <T>(all: readonly T[], place: number): T | undefined => all[place % Math.max(1, all.length)]

/** Everything that a person edits, each by its order; `undefined` where there is nothing to edit. */
type Act = () => Promise<Awaited<ReturnType<typeof sent>> | undefined>
const place = fc.nat({ max: 20 })
const acts: fc.Arbitrary<Act> = fc.oneof(
  fc.array(names, { minLength: 1, maxLength: 3 }).map(
    (all): Act =>
      () =>
        sent('POST', `/productions/${world.productionId}/shots`, { shots: all.map((name) => ({ name })) }),
  ),
  fc.tuple(place, names, fc.boolean()).map(([n, name, withCamera]): Act => async () => {
    const shot = at(await shots(), n)
    const cameraId = withCamera ? camera.id : null
    return shot && sent('PUT', `/shots/${shot.id}`, { name, cameraId, deliverables: [], notes: name })
  }),
  fc.tuple(place, place).map(([n, m]): Act => async () => {
    const all = await shots()
    const shot = at(all, n)
    return shot && sent('PUT', `/shots/${shot.id}/place`, { before: at(all, m)?.id ?? null })
  }),
  fc.tuple(place, fc.boolean()).map(([n, filmed]): Act => async () => {
    const shot = at(await shots(), n)
    return shot && sent('PUT', `/shots/${shot.id}/filmed`, { filmedAt: filmed ? '2026-11-14T10:00:00Z' : null })
  }),
  place.map((n): Act => async () => {
    const shot = at(await shots(), n)
    return shot && sent('DELETE', `/shots/${shot.id}`)
  }),
  fc.tuple(place, fc.constantFrom('keep', 'maybe', 'reject', null), fc.boolean(), names).map(
    ([n, verdict, ranged, note]): Act =>
      async () =>
        sent('PUT', `/clips/${at(clipIds, n)}/review`, {
          ...{ verdict, note, ranges: ranged ? [{ from: 3, to: 20 }] : [] },
          shotId: at(await shots(), n)?.id ?? null,
        }),
  ),
  fc.uniqueArray(names, { maxLength: 3 }).map(
    (all): Act =>
      () =>
        sent('PUT', `/productions/${world.productionId}/names`, {
          names: clipIds.map((id, n) => ({ id, name: all[n]?.trim() ?? null })),
        }),
  ),
  fc.tuple(place, fc.nat({ max: 9 })).map(([minutes, cards]): Act => async () => {
    const { version } = await station.get<PlanView>(`/productions/${world.productionId}/plan`)
    const { cards: all } = await station.get<GearView>('/gear')
    const [cameraId, modeId] = [camera.id, camera.modeId]
    return sent('PUT', `/productions/${world.productionId}/plan`, {
      version,
      takes:
        minutes === 0 ? [] : [{ cameraId, modeId, secondsPerTake: minutes * 60, takes: 1, angles: 1, factor: 1.2 }],
      cameras:
        minutes === 0
          ? []
          : [
              {
                ...{ cameraId, bothSlots: false, cardBytes: 64e9, cardBytesPerSecond: 90e6 },
                cardIds: cards > 5 ? all.map(({ id }) => id) : [],
              },
            ],
    })
  }),
  fc.tuple(place, fc.boolean(), fc.boolean()).map(
    ([n, all, without]): Act =>
      () =>
        sent('POST', '/proxies/without', {
          ...(all ? { productionId: world.productionId } : { clipIds: [at(clipIds, n)] }),
          without,
        }),
  ),
  fc.nat({ max: 5 }).map(
    (n): Act =>
      () =>
        sent('PUT', `/cameras/${camera.id}`, { ...CAMERA, batteryMinutes: 60 + n }),
  ),
  fc.nat({ max: 5 }).map(
    (n): Act =>
      () =>
        sent('PUT', `/modes/${camera.modeId}`, { ...MODE, audioBitsPerSecond: 1_536_000 + n }),
  ),
)

describe('what people change', () => {
  it('is taken back one after the other, and done again, to the last row', async () => {
    let turned = 0
    const numRuns = isLong ? 60 : 3
    await fc.assert(
      fc.asyncProperty(fc.array(acts, { minLength: 4, maxLength: 14 }), async (story) => {
        const states = [await everything()]
        const edits: Edit[] = []
        for (const act of story) {
          const answer = await act()
          if (!answer) continue
          expect(answer.status, answer.detail).toBeLessThan(300)
          const state = await everything()
          // Where nothing became another there is nothing to take back.
          if (!answer.edit) expect(state).toBe(states.at(-1))
          else {
            edits.push(answer.edit)
            states.push(state)
          }
        }
        for (const backwards of [true, false, true]) {
          const order = backwards ? [...edits.keys()].toReversed() : [...edits.keys()]
          for (const n of order) {
            const answer = await back(edits[n])
            expect(answer.status, answer.detail).toBe(200)
            expect(await everything()).toBe(states[backwards ? n : n + 1])
            // Pressed once more it does nothing.
            expect((await back(edits[n])).status).toBe(409)
            if (answer.edit) edits[n] = answer.edit
            turned += 1
          }
        }
      }),
      { numRuns, endOnFailure: true },
    )
    // How much a story changes is up to chance; that all of them change next to nothing is not.
    expect(turned).toBeGreaterThan(numRuns)
  })

  it('is not taken back where it was changed since, and then nothing is', async () => {
    const added = await sent('POST', `/productions/${world.productionId}/shots`, {
      shots: ['Sheer strake', 'Garboard', 'Keelson'].map((name) => ({ name })),
    })
    const [shot] = (await shots()).filter(({ name }) => name === 'Garboard')
    const ticked = await sent('PUT', `/shots/${shot?.id}/filmed`, { filmedAt: '2026-11-14T10:00:00Z' })
    const before = await everything()
    const refused = await back(added.edit)
    expect(refused).toMatchObject({
      status: 409,
      detail: expect.stringContaining('Of the 3 rows that it changed 1 was'),
    })
    expect(await everything()).toBe(before)
    expect((await back(ticked.edit)).status).toBe(200)
    expect((await back(added.edit)).status).toBe(200)
    expect((await shots()).some(({ name }) => name === 'Garboard')).toBe(false)
    // Of many windows one takes it back.
    const { edit } = await sent('PUT', `/clips/${clipIds[0]}/review`, {
      ...{ verdict: 'keep', note: 'both', ranges: [], shotId: null },
    })
    const both = await Promise.all([back(edit), back(edit), back(edit)])
    expect(both.map(({ status }) => status).toSorted()).toEqual([200, 409, 409])
    expect((await sent('POST', `/edits/${world.productionId}/back`)).status).toBe(404)
  })

  it('gives no clip the name that another has by now', async () => {
    const [first, second] = clipIds
    const give = (id: string | undefined, name: string | null) =>
      sent('PUT', `/productions/${world.productionId}/names`, { names: [{ id, name }] })
    await give(first, 'Launch')
    const renamed = await give(first, 'Launch at dawn')
    await give(second, 'launch')
    const before = await everything()
    expect(await back(renamed.edit)).toMatchObject({
      status: 409,
      detail: expect.stringContaining('Another clip has one of these names'),
    })
    expect(await everything()).toBe(before)
  })

  it('is never a fact: what was played, answered, formatted or given cannot be taken back', async () => {
    const { loadId } = await world.copies()
    const played = { volumeId: world.volumeIds[0], clipId: clipIds[0], seconds: 1 }
    for (const [path, body] of [
      [`/loads/${loadId}/spot-plays`, played],
      [`/productions/${world.productionId}/given`, { clipIds: [clipIds[0]] }],
      [`/loads/${loadId}/formatted`, {}],
    ] as const) {
      const { status, edit } = await sent('POST', path, body)
      expect([path, status < 300, edit]).toEqual([path, true, undefined])
    }
  })
})
