import { execFileSync } from 'node:child_process'
import { mkdirSync, renameSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { ReaderView } from '../../contract/cards'
import type { LoadCopies } from '../../contract/copies'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import { more } from '../more'
import { newWorld, ownClip, until, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

const readerOf = async (world: World) =>
  (await station.get<ReaderView[]>('/readers')).find((one) => one.id === world.readerId)
const waits = (world: World) =>
  until(
    () => readerOf(world),
    (reader) => reader?.proposed != null,
  )
const take = (world: World, productionId = world.productionId) =>
  station.post(`/readers/${world.readerId}/scan`, { productionId, copy: true })
const copied = (productionId: string, marks: readonly number[]) =>
  until(
    async () => (await station.get<Page<LoadCopies>>(`/productions/${productionId}/copies`)).rows[0],
    (load) =>
      load !== undefined &&
      load.copies
        .map((copy) => copy.mark)
        .toSorted()
        .join() === marks.join(),
  )
/** Only the drives of this world are there; those of others were put away. */
const alone = async (world: World, drives: readonly string[]) => {
  const { volumes } = await station.get<{ volumes: { id: string }[] }>(`/productions/${world.productionId}/storage`)
  for (const { id } of volumes) await station.send('PUT', `/volumes/${id}/away`, { away: !drives.includes(id) })
}

describe('taking a card in', () => {
  it('is one order: scanned, filed, copied to two drives and proved, equal by diff; and no yes before a clip was played', async () => {
    const world = await newWorld(station)
    const reader = await waits(world)
    expect(reader?.proposed).toMatchObject({ label: 'Card A', production: { id: world.productionId } })
    const answers = await Promise.all([take(world), take(world), take(world)])
    expect(answers.map(({ status }) => status).toSorted()).toEqual([202, 409, 409])
    const ordered = answers.find(({ status }) => status === 202)
    const ended = await station.ended(String(ordered?.body.taskId))
    expect(ended.sentence).toMatch(/^2 clips and 0 other files on “Card A”, .*Its copy to Slipway \d+ and Tide \d+\.$/)
    const load = await copied(world.productionId, [2, 2])
    expect(load?.clear.clear).toBe(false)
    // Source: diff of Debian's diffutils.
    for (const drive of [world.slipway, world.tide])
      execFileSync('diff', ['-r', world.card, join(drive, world.title, 'Cards/Card A')])
    await world.play()
    expect((await world.copies()).clear.clear).toBe(true)
  })

  more('names no two cards alike, and files the next one with those that were filmed beside it', async () => {
    const day = new Date('2026-06-01T10:00:00Z')
    const first = await newWorld(station, [])
    first.film('CURL0050.MP4', day)
    await station.ended(String((await take(first)).body.taskId))
    const other = await newWorld(station, [])
    other.film('CURL0051.MP4', new Date(day.getTime() + 3_600_000))
    const reader = await until(
      () => readerOf(other),
      (one) => one?.proposed?.production != null,
    )
    expect(reader?.proposed).toEqual({
      label: 'Card B',
      production: { id: first.productionId, title: first.title, why: 'filmed together with 1 card of it' },
    })
    const { body } = await take(other, first.productionId)
    await station.ended(String(body.taskId))
    const { rows } = await station.get<Page<LoadCopies>>(`/productions/${first.productionId}/copies`)
    expect(rows.map(({ label }) => label).toSorted()).toEqual(['Card A', 'Card B'])
    expect(await station.get<Page<LoadCopies>>(`/productions/${other.productionId}/copies`)).toMatchObject({ rows: [] })
  })

  more('is announced by the production that the day speaks for, and by no other', async () => {
    const world = await newWorld(station, [])
    const day = new Date('2027-03-03T12:00:00Z')
    const { body } = await station.post('/productions', {
      title: 'Spring launch',
      shootOn: '2027-03-03',
      timeZone: 'UTC',
    })
    const clip = join(world.card, 'DCIM/100CURLW/CURL0061.MP4')
    writeFileSync(clip, ownClip('spring'))
    utimesSync(clip, day, day)
    const reader = await until(
      () => readerOf(world),
      (one) => one?.proposed?.production?.id === body.id,
    )
    expect(reader?.proposed?.production?.why).toBe('filmed on its day')
    const next = async (id: unknown) => (await station.get<ProductionView>(`/productions/${String(id)}`)).next.sentence
    expect(await next(body.id)).toBe('Take in the card in the reader.')
    expect(await next(world.productionId)).not.toContain('reader')
  })

  it('is of the card that was asked about, not of one that lies there by now', async () => {
    const world = await newWorld(station, ['CURL0065.MP4'])
    const reader = await waits(world)
    const order = { productionId: world.productionId, copy: true, label: 'Seen first' }
    const another = await station.post(`/readers/${world.readerId}/scan`, { ...order, stay: world.productionId })
    expect(another).toMatchObject({ status: 409, body: { detail: expect.stringContaining('Another card lies in') } })
    expect((await station.post(`/readers/${world.readerId}/scan`, { ...order, stay: reader?.stay })).status).toBe(202)
    expect((await copied(world.productionId, [2, 2]))?.label).toBe('Seen first')
  })

  more('says what is missing where there is one drive, or none, and copies what it can', async () => {
    for (const [n, drives] of [
      [1, 1],
      [0, 0],
    ] as const) {
      const world = await newWorld(station, ['CURL0071.MP4'])
      await waits(world)
      await alone(world, world.volumeIds.slice(0, drives))
      const { body } = await take(world)
      const ended = await station.ended(String(body.taskId))
      expect(ended).toMatchObject({ state: 'done', troubles: [] })
      expect(ended.sentence).toContain(n === 1 ? 'the only drive with room' : 'Nothing is copied: no drive')
      if (n === 1) expect((await copied(world.productionId, [2]))?.clear.clear).toBe(false)
      await alone(world, world.volumeIds)
    }
  })

  it('stops at a card that is pulled out, proves nothing of it, and goes on when it is put in again', async () => {
    const world = await newWorld(
      station,
      Array.from({ length: 12 }, (_, n) => `CURL00${80 + n}.MP4`),
    )
    await waits(world)
    await alone(world, world.volumeIds)
    const { body } = await take(world)
    const away = `${world.card} away`
    renameSync(world.card, away)
    mkdirSync(world.card)
    const ended = await station.ended(String(body.taskId))
    await until(
      () => readerOf(world),
      (reader) => reader?.state === 'empty',
    )
    const { rows } = await station.get<Page<LoadCopies>>(`/productions/${world.productionId}/copies`)
    if (ended.state === 'failed') expect(rows.every(({ clear }) => !clear.clear)).toBe(true)
    execFileSync('rmdir', [world.card])
    renameSync(away, world.card)
    await until(
      () => readerOf(world),
      (reader) => reader?.state === 'card',
    )
    const again = await until(
      () => take(world),
      ({ status }) => status === 202,
    )
    expect(await station.ended(String(again.body.taskId))).toMatchObject({ state: 'done' })
    await copied(world.productionId, [2, 2])
    for (const drive of [world.slipway, world.tide])
      execFileSync('diff', ['-r', world.card, join(drive, world.title, 'Cards/Card A')])
  })
})
