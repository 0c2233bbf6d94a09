import {
  appendFileSync,
  copyFileSync,
  cpSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmdirSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { more } from '../more'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { LoadView, ReaderView } from '../../contract/cards'
import type { LoadCopies, BackupCardView } from '../../contract/copies'
import type { Page } from '../../contract/page'
import { canMount, filledImage, loopDrive, Slot } from './mounts'
import { isLong } from '../long'
import { flipBit, newWorld, until, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

const CLIPS = ['CURL0041.MP4', 'CURL0042.MP4'] as const
const LOG = 'CAMERA.LOG'
const FILMED_AT = new Date('2026-11-14T10:00:00Z')
const clipsOf = (card: string) => join(card, 'DCIM/100CURLW')

interface Slots extends World {
  /** The second card, in a reader of its own. */
  readonly second: string
  readonly secondId: string
  reader(): Promise<ReaderView>
  twin(): Promise<BackupCardView>
  readTwin(): Promise<{ state: string; sentence: string | null; troubles: readonly string[] }>
}

/** What a camera with two slots wrote: the same files on two cards, closed one after the other, in two readers. */
async function twoSlots(slipMs = 0, second?: string, first?: string): Promise<Slots> {
  const world = await newWorld(station, CLIPS, undefined, first)
  // Larger than what is sampled of its ends; of whole seconds, since copying rounds what lies between.
  writeFileSync(join(world.card, LOG), Buffer.alloc(300_000, 'ribs'))
  utimesSync(join(world.card, LOG), FILMED_AT, FILMED_AT)
  const at = second ?? join(world.root, 'second')
  cpSync(world.card, at, { recursive: true, preserveTimestamps: true })
  for (const name of CLIPS) {
    const { mtimeMs } = statSync(join(clipsOf(world.card), name))
    utimesSync(join(clipsOf(at), name), new Date(mtimeMs + slipMs), new Date(mtimeMs + slipMs))
  }
  if (!second) station.device(at, at)
  await world.look()
  const made = await station.post('/readers', { name: `${world.title} second`, path: at, sure: true })
  const secondId = String(made.body.id)
  const reader = async () => {
    const all = await until(
      () => station.get<ReaderView[]>('/readers'),
      (rows) => rows.some((row) => row.id === secondId && row.loadId !== null),
    )
    const found = all.find((row) => row.id === secondId)
    if (!found) throw new Error('no reader')
    return found
  }
  const twin = async () => {
    const [found] = (await world.copies()).twins
    if (!found) throw new Error('no backup card')
    return found
  }
  return {
    ...world,
    ...{ second: at, secondId, reader, twin },
    readTwin: async () => station.task(`/loads/${(await world.load()).id}/twins/${(await twin()).id}/read`),
  }
}

const reasonsOf = ({ clear }: LoadCopies) => clear.reasons.map((reason) => reason.sentence).join('\n')

describe('the second card of a camera with two slots', () => {
  it.each(isLong ? [0, 1000] : [1000])(
    'is known as the same content, with times %i ms later, and no second load is made',
    async (slip) => {
      const world = await twoSlots(slip)
      expect(await world.reader()).toMatchObject({ isTwin: true, difference: null })
      const look = await station.task(`/readers/${world.secondId}/scan`, { productionId: world.productionId })
      expect(look).toMatchObject({
        state: 'done',
        sentence: expect.stringContaining('is the backup card of “Curlew A”'),
      })
      const { rows } = await station.get<Page<LoadView>>(`/productions/${world.productionId}/loads`)
      expect(rows.map((row) => row.label)).toEqual(['Curlew A'])
      expect(rows[0]).toMatchObject({ clips: 2, findings: [] })
    },
  )

  it('is a copy once it was read whole, and as long as it lies there', async () => {
    const world = await twoSlots()
    await world.reader()
    // Nothing is proved yet that it could be compared with.
    expect(await world.readTwin()).toMatchObject({
      state: 'failed',
      sentence: expect.stringContaining('copy it first'),
    })
    await world.copy({ volumeIds: [world.volumeIds[0]] })
    await world.play()
    const before = await world.copies()
    expect(before.clear.clear).toBe(false)
    expect(reasonsOf(before)).toContain('only samples of it were read: read it whole')
    const read = await world.readTwin()
    expect(read, JSON.stringify(read)).toMatchObject({ state: 'done', troubles: [] })
    const after = await world.copies()
    expect(after.clear, reasonsOf(after)).toMatchObject({ clear: true })
    expect(after.clear.caution).toContain('Keep the backup card')
    expect(after.twins).toMatchObject([{ filesEqual: CLIPS.length + 1, filesWrong: 0, formattedAt: null }])

    // The camera wrote on it since: it is no longer what was read.
    appendFileSync(join(clipsOf(world.second), CLIPS[0]), 'more')
    const grown = await world.copies()
    expect(grown.clear.clear).toBe(false)
  })

  it('with a flipped bit in the middle is not what was copied, whatever its samples say', async () => {
    const world = await twoSlots()
    await world.reader()
    await world.copy({ volumeIds: [world.volumeIds[0]] })
    await world.play()
    flipBit(join(world.second, LOG), 150_000)
    const read = await world.readTwin()
    expect(read.troubles).toEqual([expect.stringContaining(`${LOG} on the backup card is not what was copied`)])
    const { clear, ...copies } = await world.copies()
    expect(clear.clear).toBe(false)
    expect(reasonsOf({ clear, ...copies })).toContain('is not what was copied: 1 file')
    // In what is sampled: it is no twin at all.
    flipBit(join(clipsOf(world.second), CLIPS[1]))
    expect(await world.readTwin()).toMatchObject({ state: 'failed', sentence: expect.stringContaining('in no reader') })
  })

  more('both cards are never formatted on the word of each other', async () => {
    const world = await twoSlots()
    await world.reader()
    await world.copy({ volumeIds: [world.volumeIds[0]] })
    await world.play()
    await world.readTwin()
    expect(await world.formatted()).toMatchObject({ status: 204 })
    // The camera empties the first card; the twin is asked about now, and has one volume only.
    const own = clipsOf(world.card)
    for (const name of readdirSync(own)) writeFileSync(join(own, name), '')
    const { clear, asked, formattedAt, twins, loadId } = await until(
      () => world.copies(),
      (now) => now.asked !== null,
    )
    expect([clear.clear, formattedAt, asked]).toEqual([false, null, twins[0]?.id])
    expect(clear.sentence).toContain('1 verified copy')
    const say = (body: object) => station.post(`/loads/${loadId}/formatted`, body)
    expect((await say({ twinId: asked })).status).toBe(409)
    // Whoever still sees the answer for the first card does not speak of the second.
    expect(await say({ anyway: true, reason: 'tried' })).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('Another card') },
    })
    expect((await say({ twinId: asked, anyway: true, reason: 'tried' })).status).toBe(204)
    expect((await world.copies()).twins).toMatchObject([{ formattedAt: expect.any(String) }])
  })

  more('is not cleared on what was read of the other card: one bit may be right on it alone', async () => {
    const world = await twoSlots()
    await world.reader()
    await world.copy()
    await world.play()
    expect((await world.copies()).clear.clear).toBe(true)
    const own = clipsOf(world.card)
    for (const name of readdirSync(own)) writeFileSync(join(own, name), '')
    const before = await until(
      () => world.copies(),
      (now) => now.asked !== null,
    )
    expect(before.clear.clear).toBe(false)
    expect(reasonsOf(before)).toContain('of this card only samples were. Read it whole first.')
    expect(await world.readTwin()).toMatchObject({ state: 'done', troubles: [] })
    expect((await world.copies()).clear, reasonsOf(before)).toMatchObject({ clear: true })
  })

  more('from which something was copied clears itself once it was read, and never the first card', async () => {
    const world = await twoSlots()
    await world.reader()
    // The first card is out of its reader: what is copied comes from the second.
    renameSync(world.card, `${world.card} away`)
    mkdirSync(world.card)
    await until(
      () => world.copies(),
      (now) => now.asked !== null,
    )
    expect(await world.copy()).toMatchObject({ state: 'done' })
    await world.play()
    rmdirSync(world.card)
    renameSync(`${world.card} away`, world.card)
    // Nothing tells which of the two was put in: from now on it may be either.
    const own = await until(
      () => world.copies(),
      (now) => now.twins.length === 2,
    )
    expect(own.copies.map((copy) => copy.mark).sort()).toEqual([2, 3])
    expect(own.clear.sentence).toContain('of this card only samples were')
    expect((await world.formatted()).status).toBe(409)
  })

  more('counts no more when another card with its ends takes its place and nothing can be compared', async (test) => {
    if (!canMount) return test.skip()
    const image = filledImage(station.root, 'twin', () => undefined)
    const slot = new Slot(join(station.root, 'backup card slot'), image)
    // Both have names of their own.
    const world = await twoSlots(0, slot.at, loopDrive(station.root, 'backup card first'))
    await world.reader()
    const { id } = await world.load()
    await world.copy({ volumeIds: [world.volumeIds[0]] })
    await world.play()
    expect(await world.readTwin()).toMatchObject({ state: 'done', troubles: [] })
    expect((await world.copies()).clear).toMatchObject({ clear: true })
    slot.out()
    // Sector by sector the same, but for the middle of one file.
    const other = `${image} other`
    copyFileSync(image, other)
    const changing = new Slot(join(station.root, 'backup card changing'), other)
    flipBit(join(changing.at, LOG), 150_000)
    changing.end()
    // With the drive away its ends are all that can be compared.
    renameSync(world.slipway, `${world.slipway} away`)
    slot.putIn(other)
    const lies = () =>
      until(
        () => world.copies(),
        ({ twins }) => twins[0]?.readerName !== null,
      )
    expect(reasonsOf(await lies())).toContain('only samples of it were read: read it whole')
    expect((await world.copies()).clear.clear).toBe(false)
    // Its own twin is compared with the drive once that is back.
    slot.change(image)
    await lies()
    expect((await world.copies()).clear.clear).toBe(false)
    renameSync(`${world.slipway} away`, world.slipway)
    const back = await until(
      () => world.copies(),
      ({ clear }) => clear.clear,
    )
    expect(back.loadId).toBe(id)
  })

  more('a card with one clip more is a load of its own where the system tells file systems apart', async (test) => {
    if (!canMount) return test.skip()
    const plugged = join(station.root, 'slots')
    mkdirSync(plugged)
    const first = loopDrive(plugged, 'SLOT1')
    const second = loopDrive(plugged, 'SLOT2')
    const world = await newWorld(station, CLIPS)
    for (const at of [first, second]) cpSync(world.card, at, { recursive: true, preserveTimestamps: true })
    const { productionId } = world
    const readerAt = async (path: string, name: string) =>
      String((await station.post('/readers', { name, path, sure: true })).body.id)
    const look = (id: string, label: string) => station.task(`/readers/${id}/scan`, { productionId, label })
    await look(await readerAt(first, 'slot one'), 'First')
    const two = await readerAt(second, 'slot two')
    expect(await look(two, 'Second')).toMatchObject({
      sentence: expect.stringContaining('backup card of “First”'),
    })
    cpSync(join(clipsOf(world.card), CLIPS[0]), join(clipsOf(second), 'CURL0043.MP4'))
    await look(two, 'Second')
    const { rows } = await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)
    expect(rows.map((row) => [row.label, row.clips]).sort()).toEqual([
      ['First', 2],
      ['Second', 3],
    ])
  })
})
