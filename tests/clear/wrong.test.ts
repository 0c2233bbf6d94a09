import { openSync, closeSync, fstatSync, futimesSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newWorld, startStation, until, type Station, type World } from './station'

let station: Station
beforeAll(async () => {
  station = await startStation()
})
afterAll(() => station.stop())

async function clearWorld() {
  const world = await newWorld(station)
  await world.look()
  await world.copy()
  await world.play()
  const [{ loadId, clear }, clips] = [await world.copies(), await world.clips()]
  expect(clear.clear).toBe(true)
  const [volumeId] = world.volumeIds
  const say = (more: object = {}) =>
    station.post(`/loads/${loadId}/found-wrong`, { volumeId, clipId: clips[0]?.id, ...more })
  const isWhole = (entryId: number | undefined) => station.post(`/loads/${loadId}/found-whole`, { volumeId, entryId })
  return { world, say, isWhole, clip: clips[0] }
}

const slipway = async (world: World) => (await world.copies()).copies.find((one) => one.volumeId === world.volumeIds[0])
const readAgain = (world: World) =>
  until(
    () => slipway(world),
    (copy) => copy?.filesDoubted === 0 && (copy.filesMismatched > 0 || copy.foundWrong[0]?.readSince === true),
  )

describe('something wrong with a clip that was played', () => {
  it('takes the yes back until it is settled, and is read again by itself', async () => {
    const { world, say, isWhole, clip } = await clearWorld()
    expect((await say({ note: 'the picture breaks up' })).status).toBe(204)
    const { clear, copies } = await world.copies()
    expect(clear.clear).toBe(false)
    expect(clear.sentence).toContain(`you found something wrong with “${clip?.name}” (the picture`)
    expect(copies.map((copy) => copy.mark)).toEqual([0, 2])
    // It is as it was proved: then the recording itself is doubted, and whoever plays it settles nothing by that.
    expect(await readAgain(world)).toMatchObject({ foundWrong: [{ readSince: true, clipId: clip?.id }] })
    const entryId = (await slipway(world))?.foundWrong[0]?.entryId
    await world.play()
    expect((await world.copies()).clear.reasons.filter((one) => !one.met).map((one) => one.sentence)).toEqual(
      expect.arrayContaining([expect.stringContaining('you found something wrong')]),
    )
    expect((await isWhole(entryId)).status).toBe(204)
    expect((await world.copies()).clear.clear).toBe(true)
    expect((await isWhole(entryId)).status).toBe(409)
    expect((await say({ volumeId: '11111111-1111-4111-8111-111111111111' })).status).toBe(404)
    expect((await say({ note: 'x'.repeat(301) })).status).toBe(422)
  })

  it('is found in the bytes where the drive lost them, and settled by a new copy that is played', async () => {
    const { world, say, clip } = await clearWorld()
    const file = openSync(join(world.mirror(world.slipway), 'DCIM/100CURLW', clip?.name ?? ''), 'r+')
    const { mtime } = fstatSync(file)
    writeSync(file, Buffer.from([7]), 0, 1, 900)
    futimesSync(file, mtime, mtime)
    closeSync(file)
    expect((await say()).status).toBe(204)
    expect(await readAgain(world)).toMatchObject({ filesMismatched: 1 })
    expect((await world.copies()).clear.clear).toBe(false)
    expect((await world.copy({ setAside: true })).state).toBe('done')
    expect(await slipway(world)).toMatchObject({ foundWrong: [], filesMismatched: 0 })
    await world.play()
    expect((await world.copies()).clear.sentence).toContain('Yes')
  })
})
