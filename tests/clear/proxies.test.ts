import { execFileSync } from 'node:child_process'
import { copyFileSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { ProductionView } from '../../contract/productions'
import type { ProxyCounts } from '../../contract/proxies'
import type { StorageView } from '../../contract/storage'
import { more } from '../more'
import { newWorld, type Station } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

describe('proxies of a station', () => {
  it('two clips that differ only in their ending have a proxy each', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    const twin = join(world.card, 'DCIM/100CURLW/CURL0041.MOV')
    copyFileSync(join(world.card, 'DCIM/100CURLW/CURL0041.MP4'), twin)
    writeFileSync(twin, Buffer.from('\0\0\0\x08free', 'latin1'), { flag: 'a' })
    await world.look()
    await world.copy()
    const { body } = await station.post('/proxies', { productionId: world.productionId, volumeId: world.volumeIds[0] })
    for (const id of body.taskIds as string[]) expect((await station.ended(id)).troubles).toEqual([])
    const made = readdirSync(join(world.slipway, world.title, 'Proxies/Curlew A/DCIM/100CURLW'))
    expect(made.sort()).toEqual(['CURL0041.MOV.mp4', 'CURL0041.MP4.mp4'])
  })

  more('a clip that was filmed anew under its name has a proxy anew, and what a person put there stays', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'])
    const proxies = async () => {
      await world.look()
      await world.copy({ setAside: true })
      const { body } = await station.post('/proxies', {
        productionId: world.productionId,
        volumeId: world.volumeIds[0],
      })
      return Promise.all((body.taskIds as string[]).map((id) => station.ended(id)))
    }
    expect((await proxies()).map(({ state }) => state)).toEqual(['done', 'done', 'done'])
    const [first, second] = ['CURL0041', 'CURL0042'].map((name) =>
      join(world.slipway, world.title, 'Proxies/Curlew A/DCIM/100CURLW', `${name}.mp4`),
    )
    const filmAnew = (name: string) =>
      execFileSync('ffmpeg', [
        ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=2', '-c:v', 'libx264'],
        join(world.card, 'DCIM/100CURLW', name),
      ])
    filmAnew('CURL0041.MP4')
    expect((await proxies()).map(({ state }) => state)).toEqual(['done'])
    // What the books say of its bytes is what lies there, the earlier version no more.
    const folder = dirname(String(first))
    const there = readdirSync(folder).reduce((sum, name) => sum + statSync(join(folder, name)).size, 0)
    const { productionClasses } = await station.get<StorageView>(`/productions/${world.productionId}/storage`)
    expect(productionClasses.find((one) => one.byteClass === 'generated')?.sizeBytes).toBe(there)
    filmAnew('CURL0042.MP4')
    writeFileSync(String(second), 'of the person’s own')
    const ends = await proxies()
    expect(ends.map(({ state }) => state)).toEqual(['failed'])
    expect(ends[0]?.sentence).toContain('was not made here')
    expect(readFileSync(String(second), 'utf8')).toBe('of the person’s own')
    // Source: ffprobe of Debian's ffmpeg.
    const shows = ['-v', 'error', '-count_frames', '-select_streams', 'v', '-show_entries', 'stream=nb_read_frames']
    expect(execFileSync('ffprobe', [...shows, '-of', 'csv=p=0', String(first)], { encoding: 'utf8' }).trim()).toBe('50')
    expect(await station.get(`/productions/${world.productionId}/proxies/counts`)).toMatchObject({
      wanted: 3,
      equal: 2,
      differ: 0,
    })
  })

  more(
    'proxies whose sound nobody had compared are compared when that is ordered, and one that stutters is found',
    async () => {
      const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4'])
      await world.look()
      await world.copy()
      const { productionId, volumeIds, slipway, title } = world
      const { body } = await station.post('/proxies', { productionId, volumeId: volumeIds[0] })
      for (const id of body.taskIds as string[]) expect((await station.ended(id)).troubles).toEqual([])
      const folder = join(slipway, title, 'Proxies/Curlew A/DCIM/100CURLW')
      const [right, wrong] = ['CURL0041.mp4', 'CURL0042.mp4'].map((name) => join(folder, name))
      // As the first recipe here made them: packets of sound on the grid of the picture.
      const grid = ['-c:v', 'copy', '-c:a', 'aac', '-af', 'adelay=150:all=1', '-y', `${wrong}.new.mp4`]
      execFileSync('ffmpeg', ['-v', 'error', '-i', String(wrong), ...grid])
      renameSync(`${wrong}.new.mp4`, String(wrong))
      const psql = (text: string) => execFileSync('psql', [station.databaseUrl, '-Atqc', text], { encoding: 'utf8' })
      psql(`update proxy set sounds = null`)
      psql(`update proxy set size_bytes = ${statSync(String(wrong)).size} where path like '%CURL0042.mp4'`)
      psql(`update media_file set proxy = 'unchecked' where proxy = 'equal'`)
      const counts = () => station.get<ProxyCounts>(`/productions/${productionId}/proxies/counts`)
      expect(await counts()).toMatchObject({ wanted: 2, equal: 0, differ: 0, unchecked: 2 })
      renameSync(String(right), `${right}.away`)
      const first = await station.task(`/productions/${productionId}/proxies/recheck`)
      expect(first).toMatchObject({
        state: 'done',
        sentence: '1 proxy compared, sound and all: 0 equal, 1 not; 1 more waits for drives.',
      })
      expect(first.troubles.join()).toMatch(
        /CURL0041.mp4 is not on Slipway .* as it was made.*CURL0042.MP4: .*second by second/,
      )
      expect(await counts()).toMatchObject({ equal: 0, differ: 1, unchecked: 1 })
      renameSync(`${right}.away`, String(right))
      expect(await station.task(`/productions/${productionId}/proxies/recheck`)).toMatchObject({
        state: 'done',
        sentence: '1 proxy compared, sound and all: 1 equal.',
        troubles: [],
      })
      expect(await counts()).toMatchObject({ equal: 1, differ: 1, unchecked: 0 })
      // A block that went bad since is found where somebody asks for all of them, and only there.
      const whole = readFileSync(String(right))
      writeFileSync(String(right), Buffer.from(whole).fill(0x5a, whole.length >> 1, (whole.length >> 1) + 2000))
      const recheckAll = () => station.task(`/productions/${productionId}/proxies/recheck`, { all: true })
      expect((await recheckAll()).sentence).toBe('2 proxies compared, sound and all: 0 equal, 2 not.')
      writeFileSync(String(right), whole)
      expect((await recheckAll()).sentence).toBe('2 proxies compared, sound and all: 1 equal, 1 not.')
      // One that never comes out equal is no dead end: the clip can be edited without.
      const line = async () =>
        (await station.get<ProductionView>(`/productions/${productionId}`)).line.find(
          (one) => one.station === 'proxies',
        )
      expect(await line()).toMatchObject({ state: 'open', figure: '2 of 2', worry: '1 proxy differs' })
      const clipIds = (await world.clips()).map(({ id }) => id)
      const without = async (which: object) =>
        (await station.post('/proxies/without', { ...which, without: true })).status
      expect(await without({ clipIds: [...clipIds, productionId] })).toBe(404)
      expect((await line())?.figure).toBe('2 of 2')
      expect(await without({ productionId })).toBe(204)
      expect(await line()).toEqual({ station: 'proxies', state: 'done', figure: '1 of 1' })
      expect(await counts()).toMatchObject({ wanted: 1, equal: 1, differ: 0, without: 1, openBytes: 0 })
      // Whoever orders one by name wants it again.
      const again = await station.post('/proxies', { clipIds, volumeId: volumeIds[0] })
      expect(await counts()).toMatchObject({ wanted: 2, without: 0 })
      for (const id of again.body.taskIds as string[]) expect(await station.ended(id)).toMatchObject({ troubles: [] })
      expect(await line()).toEqual({ station: 'proxies', state: 'done', figure: '2 of 2' })
    },
  )
})
