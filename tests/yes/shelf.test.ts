import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { DeliverableView } from '../../contract/exports'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import { clearWorld, startStation, type Station } from './station'

let station: Station
beforeAll(async () => {
  station = await startStation()
})
afterAll(() => station.stop())

describe('a film that fails a check', () => {
  it('is never offered for the shelf, and goes there only with a word why', async () => {
    const world = await clearWorld(station, ['CURL0041.MP4'])
    const { productionId, volumeIds, title, tide } = world
    const [clip] = await world.clips('playable')
    const next = async () => (await station.get<ProductionView>(`/productions/${productionId}`)).next
    expect(await next()).toMatchObject({ station: 'proxies' })
    const window = { x: 0, y: 0, widthPx: 320, heightPx: 180 }
    await station.task('/exports', { clipId: clip?.id, destinationId: 'wide-watch', volumeId: volumeIds[0], window })
    const [film] = (await station.get<Page<DeliverableView>>(`/productions/${productionId}/deliverables`)).rows
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    // As it is found when decoding it meets errors.
    const decoded = JSON.stringify({ decoded: { frames: 50, errors: 3 } })
    await db.query('update deliverable set pass = false, measured = measured || $2 where id = $1', [film?.id, decoded])
    await db.end()
    expect(await next()).toMatchObject({ station: 'exports', sentence: expect.stringContaining('Do not upload it') })
    const order = { deliverableId: film?.id, volumeId: volumeIds[1] }
    for (const body of [order, { ...order, why: '   ' }])
      expect(await station.post('/bags', body)).toMatchObject({
        status: 422,
        body: { field: 'why', detail: expect.stringContaining('say why it goes on the shelf all the same') },
      })
    const done = await station.task('/bags', { ...order, why: 'The client has seen it.' })
    expect(done.state).toBe('done')
    const [bag] = (await station.get<Page<{ path: string }>>(`/productions/${productionId}/bags`)).rows
    expect(bag?.path).toContain(`${title}/Shelf/`)
    // What was said lies in the bag, for whoever opens it in ten years.
    expect(readFileSync(join(tide, bag?.path ?? '', 'data/about this film.txt'), 'utf8')).toContain(
      'put on the shelf all the same: The client has seen it.',
    )
  })
})
