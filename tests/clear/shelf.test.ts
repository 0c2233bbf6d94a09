import { readFileSync, renameSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { describe, expect } from 'vitest'
import type { DeliverableView } from '../../contract/exports'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import { more } from '../more'
import { clearWorld, thirdDrive, until, type Station } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

async function change(statement: string, values: unknown[]): Promise<void> {
  const db = new pg.Client({ connectionString: station.databaseUrl })
  await db.connect()
  await db.query(statement, values)
  await db.end()
}

describe('a film that fails a check', () => {
  more('is never offered for the shelf, and goes there only with a word why', async () => {
    const world = await clearWorld(station, ['CURL0041.MP4'])
    const { productionId, volumeIds, title, tide } = world
    const [clip] = await world.clips('playable')
    const next = async () => (await station.get<ProductionView>(`/productions/${productionId}`)).next
    expect(await next()).toMatchObject({ station: 'proxies' })
    const window = { x: 0, y: 0, widthPx: 320, heightPx: 180 }
    await station.task('/exports', { clipId: clip?.id, destinationId: 'wide-watch', volumeId: volumeIds[0], window })
    const [film] = (await station.get<Page<DeliverableView>>(`/productions/${productionId}/deliverables`)).rows
    // As it is found when decoding it meets errors.
    const decoded = JSON.stringify({ decoded: { frames: 50, errors: 3 } })
    await change('update deliverable set pass = false, measured = measured || $2 where id = $1', [film?.id, decoded])
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
    // Somebody decided: it is not asked again.
    expect((await next()).sentence).not.toContain('a check fails')
    // Two bags on one drive are one accident.
    expect((await station.task('/bags', { ...order, volumeId: volumeIds[0], why: 'Twice.' })).state).toBe('done')
    const { taskIds } = (await station.post('/proxies', { productionId, volumeId: volumeIds[0] })).body
    for (const id of taskIds as string[]) expect((await station.ended(id)).state).toBe('done')
    const said = { verdict: 'reject', ranges: [], note: '', shotId: null }
    expect((await station.send('PUT', `/clips/${clip?.id}/review`, said)).status).toBe(204)
    expect((await next()).sentence).toContain('may be formatted')
    expect((await world.formatted()).status).toBe(204)
    renameSync(world.card, `${world.card}, formatted`)
    await until(next, ({ sentence }) => sentence === 'Everything is proved, made and shelved twice.')
    station.device(world.tide, world.slipway)
    const danger = 'its card is formatted, and its proved copies lie on one drive'
    const shared = await until(next, ({ sentence }) => sentence.includes(danger))
    expect(shared).toMatchObject({ station: 'copies', grade: 'danger' })
    expect((await world.copies()).clear.sentence).toContain('its proved copies lie on one drive: on ')
    // With a copy elsewhere, the film is still on one drive alone.
    const { id: third } = await thirdDrive(world)
    await world.copy({ volumeIds: [third], from: volumeIds[0] })
    expect((await next()).sentence).toBe('Put 1 film on a second drive: one drive can fail.')
    expect((await station.task('/bags', { ...order, volumeId: third, why: 'Elsewhere.' })).state).toBe('done')
    expect((await next()).sentence).toBe('Everything is proved, made and shelved twice.')
  })
})
