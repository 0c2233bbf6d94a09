import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { habitsOf } from '../../core/cards/files/habit'
import type { Db } from '../../server/db/connection'
import * as gear from '../../server/db/queries/gear'
import * as locker from '../../server/db/queries/locker'
import * as measured from '../../server/db/queries/measured'
import { addProduction, changeProduction, production, productionPage } from '../../server/db/queries/productions'
import * as shoot from '../../server/db/queries/shoot'
import { isHeld, isTaken } from '../../server/db/taken'
import { cameraHabits } from '../../server/facts/cameraHabits'
import { gearView } from '../../server/facts/gear'
import { measuredView } from '../../server/facts/measured'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
let db: Db

beforeAll(async () => {
  cluster = await testCluster()
  db = await cluster.open('yendra_shoot')
})
afterAll(async () => {
  await db.destroy()
  await cluster.stop()
})

const asked = () => ({ host: 'here', now: Date.now(), looked: true })

async function newProduction(shootOn = '2099-12-06', client = '') {
  const made = await addProduction(db, { title: `Launch day ${randomUUID()}`, shootOn, client })
  if (!made) throw new Error('no production')
  return made.id
}

const FIGURES = {
  picture: {
    ...{ widthPx: 1920, heightPx: 1080, rate: { num: 25, den: 1 }, codec: 'H.264', bitDepth: 8 },
    chroma: '4:2:0' as const,
    coding: { kind: 'coded' as const, bitsPerSecond: 50e6 },
  },
  ...{ audioBitsPerSecond: 0, proxyBitsPerSecond: 0, measuredBitsPerSecond: undefined },
}

async function newCamera() {
  const { id } = await gear.addCamera(db, {
    ...{ name: `Curlew ${randomUUID()}`, kind: 'camera', media: 'cards', internalBytes: 0 },
    ...{ slots: 1, spans: true, batteryMinutes: 0 },
  })
  return { id, modeId: (await gear.addMode(db, id, 'HD 25p', FIGURES)).id }
}

const newCard = async () =>
  (await gear.addCard(db, { name: `Card ${randomUUID()}`, capacityBytes: 64e9, bytesPerSecond: 30e6 })).id

async function newPlan(shootOn?: string) {
  const [productionId, camera, cardId] = [await newProduction(shootOn), await newCamera(), await newCard()]
  const body = {
    version: 0,
    takes: [{ cameraId: camera.id, modeId: camera.modeId, secondsPerTake: 600, takes: 2, angles: 1, factor: 1.2 }],
    cameras: [{ cameraId: camera.id, bothSlots: false, cardBytes: 64e9, cardBytesPerSecond: 30e6, cardIds: [cardId] }],
  }
  await shoot.putPlan(db, productionId, body)
  return { productionId, camera, cardId, body }
}

describe('a plan', () => {
  it('is changed as a whole, and by one window at a time', async () => {
    const { productionId, body } = await newPlan()
    expect(await shoot.planOf(db, productionId)).toMatchObject({ ...body, version: 1 })
    // Somebody else still holds the version before.
    expect(await shoot.putPlan(db, productionId, { ...body, takes: [] })).toBeUndefined()
    expect(await shoot.putPlan(db, productionId, { ...body, version: 1, takes: [] })).toBe(2)
    expect((await shoot.planOf(db, productionId)).takes).toEqual([])
  })

  it('that names what is not there changes nothing', async () => {
    const { productionId, body } = await newPlan()
    const strange = { ...body, version: 1, cameras: body.cameras.map((one) => ({ ...one, cardIds: [randomUUID()] })) }
    const refused = await shoot.putPlan(db, productionId, strange).catch((error: unknown) => error)
    expect(isHeld(refused)).toBe(true)
    expect(await shoot.planOf(db, productionId)).toMatchObject({ ...body, version: 1 })
    const other = await newCamera()
    expect(await shoot.modesFit(db, body.takes)).toBe(true)
    expect(await shoot.modesFit(db, [{ cameraId: other.id, modeId: body.takes[0]?.modeId ?? '' }])).toBe(false)
  })

  it('of the last shoot is what the next one begins with', async () => {
    const first = await newPlan()
    const later = await newProduction()
    await shoot.putPlan(db, later, { ...first.body, takes: first.body.takes.map((one) => ({ ...one, factor: 1.5 })) })
    const last = await shoot.lastPlans(db, await newProduction())
    expect(last.takes.filter((one) => one.cameraId === first.camera.id).map((one) => one.factor)).toEqual([1.5])
    expect((await shoot.plannedProductions(db, later)).map((one) => one.id)).toContain(first.productionId)
  })

  it('promises its cards until its day is over', async () => {
    const [open, past] = [await newPlan('2099-01-01'), await newPlan('2020-01-01')]
    const promised = (await gear.cardPromises(db, '2026-11-26')).map((one) => one.cardId)
    expect(promised).toContain(open.cardId)
    expect(promised).not.toContain(past.cardId)
    const card = (await gearView(db, asked())).cards.find((one) => one.id === open.cardId)
    expect(card).toMatchObject({ state: 'empty', plannedFor: [{ shootOn: '2099-01-01' }] })
  })
})

describe('a shot list', () => {
  it('keeps its order through any moves', async () => {
    const id = await newProduction()
    const names = ['a', 'b', 'c', 'd']
    await shoot.addShots(
      db,
      id,
      names.map((name) => ({ name, cameraId: null, deliverables: [], notes: '', filmedAt: null })),
    )
    let order = (await shoot.shotsOf(db, id)).map((shot) => shot.id)
    const moves = fc.sample(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 4 })), {
      numRuns: 20,
      seed: 8,
    })
    for (const [from, to] of moves) {
      const [moved, before] = [order[from] ?? '', order[to] ?? null]
      if (moved === before) continue
      const rest = order.filter((one) => one !== moved)
      const at = before === null ? rest.length : rest.indexOf(before)
      order = [...rest.slice(0, at), moved, ...rest.slice(at)]
      expect(await shoot.moveShot(db, moved, before)).toBe(true)
      expect((await shoot.shotsOf(db, id)).map((shot) => shot.id)).toEqual(order)
    }
    // Two moves at once give one order of the same shots.
    await Promise.all([shoot.moveShot(db, order[0] ?? '', null), shoot.moveShot(db, order[3] ?? '', order[1] ?? null)])
    expect((await shoot.shotsOf(db, id)).map((shot) => shot.id).sort()).toEqual([...order].sort())
    expect(await shoot.moveShot(db, randomUUID(), null)).toBe(false)
  })
})

describe('what belongs to no production', () => {
  it('is put away and brought back, and erased only when nothing hangs on it', async () => {
    const { productionId, camera, cardId } = await newPlan()
    const { id: loadId } = await db
      .insertInto('load')
      .values({ productionId, label: 'Curlew A', fileCount: 1, sizeBytes: 60e9, leftOut: 0, readerId: null })
      .returning('id')
      .executeTakeFirstOrThrow()
    await gear.setLoadGear(db, loadId, { cardId, cameraId: camera.id })
    for (const [thing, id] of [
      ['camera', camera.id],
      ['card', cardId],
    ] as const)
      expect(isHeld(await locker.erase(db, thing, id).catch((error: unknown) => error))).toBe(true)
    const shown = async () => (await gearView(db, asked())).cards.find((one) => one.id === cardId)
    // 60 of 64 GB are above the fill limit, and nothing of it was copied.
    expect(await shown()).toMatchObject({ state: 'full', holds: '1 load on it so far', load: { id: loadId } })
    await locker.putAway(db, 'card', cardId, true)
    expect(await shown()).toMatchObject({ away: true })
    await locker.putAway(db, 'card', cardId, false)
    expect(await shown()).toMatchObject({ away: false, state: 'full' })
    expect(await locker.erase(db, 'card', await newCard())).toBe(true)
    expect(await locker.putAway(db, 'card', randomUUID(), true)).toBe(false)
  })

  it('has one client of a name, whatever its case, and renames it everywhere', async () => {
    const [a, b] = [
      await newProduction(undefined, 'Estuary sailing club'),
      await newProduction(undefined, 'estuary Sailing Club'),
    ]
    const clientOf = async (id: string) => (await production(db, id))?.client
    expect([await clientOf(a), await clientOf(b)]).toEqual(['Estuary sailing club', 'Estuary sailing club'])
    const { clientId } = (await production(db, a)) ?? {}
    await locker.changeClient(db, clientId ?? '', { name: 'The club', ruleId: null, raw: 'all' })
    expect([await clientOf(a), await clientOf(b)]).toEqual(['The club', 'The club'])
    await locker.addClient(db, 'Harbour')
    expect(isTaken(await locker.addClient(db, 'HARBOUR').catch((error: unknown) => error))).toBe(true)
    // A production keeps its folder under whatever title, and leaves the overview when it is put away.
    const folder = (await production(db, a))?.folder
    await changeProduction(db, a, { title: 'Another title', client: '', shootOn: '' })
    expect(await production(db, a)).toMatchObject({ title: 'Another title', client: '', shootOn: null, folder })
    await locker.putAway(db, 'production', a, true)
    const page = await productionPage(db, { limit: 200, down: true })
    expect(page.rows.map((row) => row.id)).not.toContain(a)
    expect(page.rows.map((row) => row.id)).toContain(b)
  })
})

describe('what was measured', () => {
  it('is counted by frame, rate and codec when a look ends, and learned where the camera is known', async () => {
    const { productionId, camera } = await newPlan()
    const { id: loadId } = await db
      .insertInto('load')
      .values({
        productionId,
        label: 'Curlew A',
        fileCount: 3,
        sizeBytes: 1,
        leftOut: 0,
        readerId: null,
        cameraId: camera.id,
      })
      .returning('id')
      .executeTakeFirstOrThrow()
    const probe = {
      version: 2,
      seconds: 10,
      video: { codec: 'h264', widthPx: 1920, heightPx: 1080, rate: { num: 25, den: 1 } },
    }
    for (const [name, bytes, facts] of [
      ['a', 70e6, probe],
      ['b', 72e6, probe],
      // What could not be read has no length to count.
      ['c', 5, null],
    ] as const)
      await sql`with entry as (insert into load_entry (load_id, path, path_text, kind, size_bytes, modified_ms)
        values (${loadId}, convert_to(${name}, 'UTF8'), ${name}, 'file', ${bytes}, 0) returning id)
        insert into media_file (load_id, production_id, entry_id, path_text, name, size_bytes, has_picture, picture_made, probe)
        select ${loadId}, ${productionId}, id, ${name}, ${name}, ${bytes}, true, true, ${facts === null ? null : JSON.stringify(facts)}::jsonb from entry`.execute(
        db,
      )
    await measured.countRecorded(db, loadId)
    await measured.countRecorded(db, loadId)
    const rows = await measured.recordedBy(db, [camera.id])
    expect(rows).toMatchObject([{ clips: 2, sizeBytes: 142e6, seconds: 20, rate: '25/1', codec: 'h264', loadId }])
    const view = await measuredView(db, productionId)
    // 142 MB in 20 s are 56.8 Mb/s, where 50 are stated.
    expect(view.modes[0]).toMatchObject({ nominal: 50e6, inUse: 50e6, learned: { value: 56.8e6, guessed: false } })
    expect(view.offload).toMatchObject({ value: 47e6, guessed: true })
    expect(view.expansion).toMatchObject({ value: 2, guessed: true })
    await sql`update load set clip_findings = '[{"kind": "clock"}]' where id = ${loadId}`.execute(db)
    expect(await measured.clocksOff(db, [camera.id])).toMatchObject([{ load: 'Curlew A' }])
  })
})

it('how files of a camera are called is what core makes of all their names, whatever their letters and numbers', async () => {
  const [productionId, camera] = [await newProduction(), await newCamera()]
  const paths = ['DCIM/100CURLW/Curl0041.mp4', 'DCIM/101CURLW/CURL9.MP4', 'Straße_07.mp4', 'M4ROOT/two\nlines1.XML']
  await sql`with known as (
      insert into load (production_id, label, camera_id, file_count, size_bytes, left_out)
      values (${productionId}, 'Curlew A', ${camera.id}, 4, 4, 0) returning id)
    insert into load_entry (load_id, path, path_text, kind, size_bytes, modified_ms)
    select known.id, convert_to(name, 'UTF8'), name, 'file', 1, 0
    from known, json_array_elements_text(${JSON.stringify(paths)}::json) name`.execute(db)
  const known = (await cameraHabits(db)).find(({ cameraId }) => cameraId === camera.id)
  expect(known?.habits.toSorted()).toEqual(habitsOf(paths).toSorted())
  expect(known?.habits).toContain('STRASSE_#.MP#')
})
