import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { LoadCopies } from '../../contract/copies'
import type { AppearedView } from '../../contract/noticed'
import type { Page } from '../../contract/page'
import type { UnattendedView } from '../../contract/unattended'
import { isLong } from '../long'
import { more } from '../more'
import { canMount, loopDrive, unmountAll } from './mounts'
import { newWorld, ownClip, startStation, until, type Station, type World } from './station'

let station: Station
let world: World
beforeAll(async () => {
  station = await startStation()
  world = await newWorld(station, ['CURL0001.MP4'])
})
afterAll(async () => {
  unmountAll()
  await station.stop()
})

const now = () => station.get<UnattendedView>('/unattended')
const untilState = (...states: UnattendedView['state'][]) => until(now, (view) => states.includes(view.state))
const rule = (on: boolean) =>
  station.send('PUT', '/unattended', { on, productionId: world.productionId, volumeIds: world.volumeIds })
const copiesOf = async (label: string) =>
  (await station.get<Page<LoadCopies>>(`/productions/${world.productionId}/copies`)).rows.find(
    (one) => one.label === label,
  )

/** The card as it comes out of the camera after a format: other clips, or another camera’s. */
function insert(...names: readonly string[]): void {
  rmSync(join(world.card, 'DCIM/100CURLW'), { recursive: true, force: true })
  mkdirSync(join(world.card, 'DCIM/100CURLW'))
  names.forEach((name) => world.film(name))
}

describe('the rule for the tired', () => {
  it('is off until somebody switches it on, whole', async () => {
    expect((await now()).rule).toEqual({ on: false, productionId: null, volumeIds: [] })
    const put = (body: object) => station.send('PUT', '/unattended', body)
    expect((await put({ on: true, productionId: null, volumeIds: [] })).status).toBe(422)
    const { productionId, volumeIds } = world
    expect((await put({ on: true, productionId, volumeIds: [volumeIds[0], volumeIds[0]] })).status).toBe(422)
    expect((await put({ on: true, productionId: world.readerId, volumeIds })).status).toBe(404)
    expect((await put({ on: true, productionId, volumeIds: [world.readerId, volumeIds[0]] })).status).toBe(404)
  })

  it('leaves a card alone whose camera nobody knows', async () => {
    await rule(true)
    expect(await untilState('unknown')).toMatchObject({
      cards: [{ sentence: expect.stringContaining('scan it yourself') }],
    })
    expect(await station.get('/tasks')).toEqual([])
  })

  it('looks at the card of a known camera and copies it twice by itself, and says no yes', async () => {
    const camera = await station.post('/cameras', { name: 'Curlew' })
    expect(camera.status).toBe(201)
    await rule(false)
    await world.look()
    await station.send('PUT', `/loads/${(await world.load()).id}/gear`, { cardId: null, cameraId: camera.body.id })
    insert('CURL0002.MP4', 'CURL0003.MP4')
    // Switched on before the change is seen, the rule would copy the card that was there, find it gone, and rightly say
    // so.
    await until(now, ({ cards }) => cards[0]?.sentence.startsWith('It has not been scanned') ?? false)
    await rule(true)
    const view = await untilState('proved', 'wrong')
    expect(view).toMatchObject({ state: 'proved', cards: [{ sentence: expect.stringContaining('may be taken out') }] })
    // What was looked at and went away without a copy is told, too.
    expect(view.unsafe).toEqual([
      { title: world.title, sentence: expect.stringContaining('to two volumes and prove it'), isDanger: false },
    ])
    const { clear, copies } = await world.copies()
    expect(copies.map((copy) => copy.mark)).toEqual([2, 2])
    expect(clear.clear).toBe(false)
    for (const name of ['CURL0002.MP4', 'CURL0003.MP4'])
      expect(
        readFileSync(
          join(world.slipway, world.title, 'Cards', (await world.load()).label, 'DCIM/100CURLW', name),
        ).equals(readFileSync(join(world.card, 'DCIM/100CURLW', name))),
      ).toBe(true)
  })

  more('says that something is wrong where a clip is cut, though it is copied', async () => {
    insert('CURL0004.MP4')
    const cut = readFileSync(join(world.card, 'DCIM/100CURLW/CURL0004.MP4'))
    writeFileSync(join(world.card, 'DCIM/100CURLW/CURL0004.MP4'), cut.subarray(0, 20_000))
    expect(await untilState('wrong')).toMatchObject({ cards: [{ state: 'wrong' }] })
    const view = await until(now, ({ cards }) => cards[0]?.sentence.includes('copied twice') ?? false)
    expect(view.cards[0]?.sentence).toContain('1 thing is wrong with it')
    // What was taken out meanwhile is still told.
    expect(view.earlier).toEqual([
      { label: expect.any(String), proved: true, sentence: expect.stringContaining('play one clip') },
    ])
  })

  it.skipIf(!canMount || !isLong)('lets go of a card that is mounted once it is proved (needs root)', async () => {
    const plugged = join(station.root, 'plugged')
    mkdirSync(plugged)
    await rule(false)
    await station.send('PUT', '/noticed', { folders: [plugged] })
    const at = loopDrive(plugged, 'CURLEW')
    mkdirSync(join(at, 'DCIM/100CURLW'), { recursive: true })
    writeFileSync(join(at, 'DCIM/100CURLW/CURL0900.MP4'), ownClip('mounted'))
    const [found] = await until(
      () => station.get<AppearedView[]>('/appeared'),
      (all) => all.length > 0,
    )
    await station.task(`/appeared/${found?.id ?? ''}/look`, { productionId: world.productionId })
    await rule(true)
    await until(
      () => Promise.resolve(readFileSync('/proc/self/mounts', 'utf8')),
      (mounts) => !mounts.includes(at),
    )
    expect(readFileSync('/proc/self/mounts', 'utf8')).not.toContain(at)
    // Called after the camera that names its files so, not as the system calls the card.
    const { earlier } = await until(now, (view) => view.earlier.some((one) => one.label === 'Curlew D'))
    expect(earlier).toContainEqual({ label: 'Curlew D', proved: true, sentence: expect.any(String) })
    expect((await copiesOf('Curlew D'))?.clear.clear).toBe(false)
  })
})
