import { mkdirSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { LoadView, ReaderView } from '../../contract/cards'
import type { AppearedView, NoticedFolders } from '../../contract/noticed'
import type { Page } from '../../contract/page'
import type { StorageView } from '../../contract/storage'
import type { TaskView } from '../../contract/tasks'
import { canMount, loopDrive, putIn, takeOut, unmountAll } from './mounts'
import { ownClip, startStation, until, type Station } from './station'

let station: Station
let plugged: string
let productionId: string
beforeAll(async () => {
  station = await startStation()
  plugged = join(station.root, 'plugged')
  mkdirSync(plugged)
  productionId = String((await station.post('/productions', { title: 'Steam-bending ribs' })).body.id)
})
afterAll(async () => {
  unmountAll()
  await station.stop()
})

/** After a look at what is mounted now, for which the folders are named once more. */
const appeared = async () => {
  await station.send('PUT', '/noticed', { folders: [plugged] })
  return station.get<AppearedView[]>('/appeared')
}
const offerOf = async (name: string) =>
  (await until(appeared, (all) => all.some((one) => one.name === name))).find((one) => one.name === name)
const untilGone = (name: string) => until(appeared, (all) => !all.some((one) => one.name === name))

/** A card in its mount point, with two clips. */
function card(name: string): string {
  const at = loopDrive(plugged, name)
  const folder = join(at, 'DCIM/100CURLW')
  mkdirSync(folder, { recursive: true })
  for (const clip of ['CURL0001.MP4', 'CURL0002.MP4']) writeFileSync(join(folder, clip), ownClip(`${name} ${clip}`))
  return at
}

const look = async (id: string | undefined): Promise<TaskView> =>
  station.task(`/appeared/${id ?? ''}/look`, { productionId })

describe('folders in which cards are noticed', () => {
  it('must be there, and are kept by their real path', async () => {
    expect(await station.send('PUT', '/noticed', { folders: [join(station.root, 'nowhere')] })).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('There is no folder at') },
    })
    expect((await station.send('PUT', '/noticed', { folders: ['media'] })).status).toBe(422)
    expect((await station.send('PUT', '/noticed', { folders: [`${plugged}/`, plugged] })).status).toBe(204)
    expect(await station.get<NoticedFolders>('/noticed')).toEqual({ folders: [plugged] })
  })
})

describe.skipIf(!canMount)('what is mounted (needs root)', () => {
  it('is offered as a card with its size, before anything but its top folder is read', async () => {
    const at = card('CURLEW')
    const clip = join(at, 'DCIM/100CURLW/CURL0001.MP4')
    const before = [statSync(join(at, 'DCIM')).atimeMs, statSync(clip).atimeMs]
    const found = await offerOf('CURLEW')
    expect(found?.offer).toMatchObject({ kind: 'card' })
    expect(found?.offer.sentence).toMatch(/^A card appeared: “CURLEW”, \d+\.\d MB, .*full|empty\. Scan it\?$/)
    expect([statSync(join(at, 'DCIM')).atimeMs, statSync(clip).atimeMs]).toEqual(before)
    expect(await station.get<ReaderView[]>('/readers')).toEqual([])
  })

  it('is scanned with one order, and is a reader from then on', async () => {
    const found = await offerOf('CURLEW')
    expect(await look(found?.id)).toMatchObject({ state: 'done', sentence: expect.stringContaining('2 clips') })
    expect(await appeared()).toEqual([])
    const [reader] = await station.get<ReaderView[]>('/readers')
    expect(reader).toMatchObject({ name: 'CURLEW', state: 'card', room: { capacityBytes: expect.any(Number) } })
    expect(reader?.loadId).not.toBeNull()
    // Twice at once, or what is gone: refused, and nothing is registered twice.
    expect((await station.post(`/appeared/${found?.id ?? ''}/look`, { productionId })).status).toBe(404)
  })

  it('that comes again at the place of a reader is that reader’s card, without a question', async () => {
    takeOut(join(plugged, 'CURLEW'))
    await until(
      () => station.get<ReaderView[]>('/readers'),
      ([reader]) => reader?.state !== 'card',
    )
    putIn(plugged, 'CURLEW', join(plugged, 'CURLEW'))
    const [reader] = await until(
      () => station.get<ReaderView[]>('/readers'),
      ([one]) => one?.state === 'card' && one.loadId !== null,
    )
    expect(reader?.loadId).not.toBeNull()
    expect(await appeared()).toEqual([])
  })

  it('is the card of the gear book that lay on the same file system before', async () => {
    const { rows } = await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)
    const made = await station.post('/cards', { name: 'Curlew 7', capacityBytes: 64e9, bytesPerSecond: 90e6 })
    await station.send('PUT', `/loads/${rows[0]?.id ?? ''}/gear`, { cardId: made.body.id, cameraId: null })
    const at = join(plugged, 'CURLEW')
    // Deleted one by one in the camera, not formatted: the same file system, other clips.
    for (const name of ['CURL0001.MP4', 'CURL0002.MP4'])
      writeFileSync(join(at, 'DCIM/100CURLW', name), ownClip(`anew ${name}`))
    const [reader] = await station.get<ReaderView[]>('/readers')
    expect(await station.task(`/readers/${reader?.id ?? ''}/scan`, { productionId, label: '' })).toMatchObject({
      state: 'done',
    })
    const after = await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)
    expect(after.rows).toHaveLength(2)
    expect(after.rows[0]).toMatchObject({ cardId: made.body.id, cardByUid: true })
  })

  it('is left alone when somebody says so, until it is taken out', async () => {
    const at = card('HERON')
    const found = await offerOf('HERON')
    expect((await station.post(`/appeared/${found?.id ?? ''}/leave`)).status).toBe(204)
    expect(await appeared()).toEqual([])
    takeOut(at)
    // Seen to be gone, then back.
    await until(
      async () => (await station.post(`/appeared/${found?.id ?? ''}/leave`)).status,
      (status) => status === 404,
    )
    putIn(plugged, 'HERON', at)
    expect(await offerOf('HERON')).toMatchObject({ offer: { kind: 'card' } })
    takeOut(at)
    await untilGone('HERON')
  })

  it('is a known volume wherever it appears, by its marker', async () => {
    const at = loopDrive(plugged, 'SLIPWAY')
    expect((await offerOf('SLIPWAY'))?.offer.kind).toBe('card or drive')
    const body = { name: 'Slipway', kind: 'edit', site: 'workshop', path: at }
    expect((await station.post('/volumes', body)).status).toBe(201)
    await untilGone('SLIPWAY')
    const slipway = async () =>
      (await station.get<StorageView>(`/productions/${productionId}/storage`)).volumes.find(
        (one) => one.name === 'Slipway',
      )
    takeOut(at)
    await until(slipway, (one) => one?.connected === false)
    const elsewhere = join(plugged, 'SLIPWAY1')
    putIn(plugged, 'SLIPWAY', elsewhere)
    expect(await until(slipway, (one) => one?.connected === true)).toMatchObject({ path: elsewhere })
    expect(await appeared()).toEqual([])
  })

  it('is told from a copy of a drive that is connected', async () => {
    const marker = (await station.get<StorageView>(`/productions/${productionId}/storage`)).volumes[0]?.id
    const at = loopDrive(plugged, 'TWIN')
    mkdirSync(join(at, '.yendra'))
    writeFileSync(join(at, '.yendra/volume.json'), JSON.stringify({ id: marker }))
    // Noticed before the marker was written, perhaps: taken out and put in again.
    takeOut(at)
    await untilGone('TWIN')
    putIn(plugged, 'TWIN', at)
    expect((await offerOf('TWIN'))?.offer).toMatchObject({
      kind: 'twin',
      sentence: expect.stringContaining('carries the marker of Slipway'),
    })
  })
})
