import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ClipView, LoadView } from '../../contract/cards'
import type { LoadCopies } from '../../contract/copies'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import type { ReviewSum } from '../../core/cards/review/review'
import { newWorld, startStation, type Station, type World } from './station'

let station: Station
let world: World
let launch: string
beforeAll(async () => {
  station = await startStation()
  world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'])
  launch = String((await station.post('/productions', { title: 'Launch day' })).body.id)
  await world.look()
})
afterAll(() => station.stop())

const loads = async (id: string) => (await station.get<Page<LoadView>>(`/productions/${id}/loads`)).rows
const clipsOf = async (id: string, loadId?: string) =>
  (await station.get<Page<ClipView>>(`/productions/${id}/clips?limit=50${loadId ? `&loadId=${loadId}` : ''}`)).rows
const figures = async (id: string) =>
  Object.fromEntries(
    (await station.get<ProductionView>(`/productions/${id}`)).line.map((one) => [one.station, one.figure]),
  )
const give = (clipIds: readonly string[], to: string) => station.post(`/productions/${to}/given`, { clipIds })

describe('clips that are reassigned to another production', () => {
  it('are counted, shown and reviewed there, and the card stays one load', async () => {
    const [, second] = await clipsOf(world.productionId)
    const review = { verdict: 'keep', ranges: [], note: 'the bow', shotId: null }
    expect((await station.send('PUT', `/clips/${second?.id ?? ''}/review`, review)).status).toBe(204)
    expect(await figures(launch)).toMatchObject({ cards: 'no card yet', proxies: 'no clips' })
    expect((await give([second?.id ?? ''], launch)).status).toBe(204)

    expect(await figures(world.productionId)).toMatchObject({ cards: '2 clips', proxies: '0 of 2' })
    expect(await figures(launch)).toMatchObject({ cards: '1 clip', proxies: '0 of 1', copies: 'not copied twice' })
    const load = await world.load()
    expect(load).toMatchObject({ clips: 3, clipsHere: 2 })
    expect(await loads(launch)).toMatchObject([{ id: load.id, clips: 3, clipsHere: 1, productionTitle: world.title }])
    // The card shows all that is on it, and says what went where; the other production sees its own.
    expect((await clipsOf(world.productionId, load.id)).map((clip) => [clip.name, clip.givenTo])).toEqual([
      ['CURL0041.MP4', null],
      ['CURL0042.MP4', 'Launch day'],
      ['CURL0043.MP4', null],
    ])
    for (const loadId of [undefined, load.id])
      expect((await clipsOf(launch, loadId)).map((clip) => [clip.name, clip.givenTo])).toEqual([['CURL0042.MP4', null]])
    expect((await clipsOf(world.productionId)).map((clip) => clip.id)).not.toContain(second?.id)
    const sum = await station.get<ReviewSum>(`/productions/${launch}/review/sum`)
    expect(sum).toMatchObject({ clips: 1, keep: 1 })
  })

  it('are copied and cleared with their card, and a scan again leaves them where they are', async () => {
    await world.copy()
    await world.play()
    for (const id of [world.productionId, launch]) {
      const { rows } = await station.get<Page<LoadCopies>>(`/productions/${id}/copies`)
      expect(rows).toMatchObject([{ fileCount: 3, clear: { clear: true } }])
    }
    world.film('CURL0044.MP4')
    await world.look()
    expect(await figures(launch)).toMatchObject({ cards: '1 clip' })
    expect(await figures(world.productionId)).toMatchObject({ cards: '3 clips' })
  })

  it('come back, and nothing is left of them there', async () => {
    const [given] = await clipsOf(launch)
    expect((await give([given?.id ?? ''], world.productionId)).status).toBe(204)
    // Twice is once.
    expect((await give([given?.id ?? ''], world.productionId)).status).toBe(204)
    expect(await loads(launch)).toEqual([])
    expect(await figures(launch)).toMatchObject({ cards: 'no card yet', copies: 'nothing to copy' })
    expect(await figures(world.productionId)).toMatchObject({ cards: '4 clips', proxies: '0 of 4' })
  })

  it('what is no clip, or no production, gives nothing away', async () => {
    const [clip] = await clipsOf(world.productionId)
    expect((await give([clip?.id ?? '', world.readerId], launch)).status).toBe(404)
    expect((await give([clip?.id ?? ''], world.readerId)).status).toBe(404)
    expect((await give([], launch)).status).toBe(422)
    expect((await give(['all'], launch)).status).toBe(422)
    expect(await loads(launch)).toEqual([])
  })
})
