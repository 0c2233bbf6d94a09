import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { deviceRelation } from '../../core/copies/device'
import { deviceOf } from '../../server/engine/device'
import { canMount, loopDrive, memoryDrive, twoPartitions, unmountAll } from './mounts'
import { newWorld, startStation, type Station, type World } from './station'

let station: Station
beforeAll(async () => {
  station = await startStation()
})
afterAll(async () => {
  await station.stop()
  unmountAll()
})

const words = async (world: World) => {
  const { clear } = await world.copies()
  return { clear: clear.clear, words: [clear.sentence, ...clear.reasons.map((reason) => reason.sentence)].join('\n') }
}

/** A world whose two drives are these folders, copied to and played from. */
async function worldOn(slipway: string, tide: string): Promise<World> {
  const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4'], [slipway, tide])
  await world.look()
  await world.copy()
  await world.play()
  return world
}

describe('folders of one file system', () => {
  it('are one device, and the person is told when the second is added', async () => {
    const root = join(station.root, 'one file system')
    for (const name of ['a', 'b', 'c']) mkdirSync(join(root, name), { recursive: true })
    const add = (name: string) =>
      station.post('/volumes', { name: `folder ${name}`, kind: 'archive', site: 'house', path: join(root, name) })
    expect((await add('a')).status).toBe(201)
    expect(await add('b')).toMatchObject({ status: 201, body: { sharesDriveWith: ['folder a'] } })
    const reader = await station.post('/readers', { name: 'reader c', path: join(root, 'c') })
    expect(reader.body.sharesDriveWith).toEqual(['folder a', 'folder b'])
  })
})

describe('mounted drives', () => {
  it.skipIf(!canMount)('needs root to mount: two loop devices are two drives', async () => {
    const world = await worldOn(loopDrive(station.root, 'loop 1'), loopDrive(station.root, 'loop 2'))
    expect(await words(world)).toMatchObject({
      clear: true,
      words: expect.stringContaining('read back from the medium'),
    })
  })

  it.skipIf(!canMount)('needs root to mount: two partitions of one disk are one drive', async () => {
    const [first, second] = twoPartitions(station.root)
    expect(deviceRelation(await deviceOf(first), await deviceOf(second))).toBe('same')
    const answer = await words(await worldOn(first, second))
    expect(answer.clear).toBe(false)
    expect(answer.words).toContain('on the same drive: they count as one copy')
  })

  it.skipIf(!canMount)(
    'needs root to mount: what may have been read from memory is copied, not verified, unless the rule accepts it',
    async () => {
      const world = await worldOn(memoryDrive(station.root, 'memory'), loopDrive(station.root, 'loop 3'))
      expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([1, 2])
      const answer = await words(world)
      expect(answer.clear).toBe(false)
      expect(answer.words).toContain('perhaps not from the medium')
      const settings = await station.get<Record<string, unknown>>('/settings')
      await station.send('PUT', '/settings', { ...settings, acceptMemory: true })
      expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([3, 2])
      expect(await words(world)).toMatchObject({
        clear: true,
        words: expect.stringContaining('which your rule accepts'),
      })
      await station.send('PUT', '/settings', settings)
      const copy = await world.copy()
      expect(copy.sentence).toContain('perhaps not from the medium')
    },
  )
})
