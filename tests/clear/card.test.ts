import { execFileSync, spawnSync } from 'node:child_process'
import {
  cpSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  utimesSync,
  writeFileSync,
  symlinkSync,
} from 'node:fs'
import { dirname, join } from 'node:path'
import pg from 'pg'
import { describe, expect, it } from 'vitest'
import type { GearView } from '../../contract/gear'
import type { LoadView } from '../../contract/cards'
import type { Page } from '../../contract/page'
import type { TaskView } from '../../contract/tasks'
import { more } from '../more'
import { clearWorld, clipFile, flipBit, newWorld, ownClip, until, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

/** Nobody may be told yes, and nobody may write down a format that the answer did not allow. */
async function expectNotClear(world: World, words: RegExp): Promise<void> {
  const { clear } = await world.copies()
  expect(clear.clear, clear.sentence).toBe(false)
  expect([clear.sentence, ...clear.reasons.map((reason) => reason.sentence)].join('\n')).toMatch(words)
}

describe('yes is answered from what the card lists now', () => {
  it('a clip added after the look takes the yes back', async () => {
    const world = await clearWorld(station)
    world.film('CURL0043.MP4')
    await expectNotClear(world, /1 file new|has 1 new clip/)
    const said = await world.formatted()
    expect(said.status).toBe(409)
  })

  more('a card with other contents under the same names, sizes and times is not the card that was copied', async () => {
    const world = await clearWorld(station)
    const before = new Map(
      readdirSync(join(world.card, 'DCIM/100CURLW')).map((name) => [
        name,
        statSync(join(world.card, 'DCIM/100CURLW', name)),
      ]),
    )
    renameSync(world.card, `${world.card} away`)
    cpSync(`${world.card} away`, world.card, { recursive: true })
    for (const [name, stats] of before) {
      const path = join(world.card, 'DCIM/100CURLW', name)
      writeFileSync(path, Buffer.alloc(stats.size, name))
      utimesSync(path, stats.atime, stats.mtime)
    }
    await expectNotClear(world, /not the card|other content|not been scanned/)
    await world.look()
    const { copies, loadId } = await world.copies()
    expect(copies.map((copy) => copy.mark)).toEqual([])
    expect(loadId).not.toBe('')
  })

  it('one clip and an unchanged VERSION.TXT after a format are a new load', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    const version = join(world.card, 'VERSION.TXT')
    writeFileSync(version, 'firmware 1.2'.repeat(2000))
    await world.look()
    const first = (await world.load()).id
    rmSync(join(world.card, 'DCIM/100CURLW/CURL0041.MP4'))
    world.film('CURL0041.MP4', new Date('2026-11-20T10:00:00Z'))
    await world.look()
    expect((await world.load()).id).not.toBe(first)
  })

  more('a card of the gear book is perhaps in use while a load of its name was given to none', async () => {
    const world = await newWorld(station)
    const made = await station.post('/cards', { name: 'curlew A', capacityBytes: 64e9, bytesPerSecond: 30e6 })
    await world.look()
    const cardNow = async () => {
      const { cards } = await station.get<GearView>('/gear')
      return cards.find((card) => card.id === made.body.id)
    }
    const { id, sizeBytes } = await world.load()
    expect(await cardNow()).toMatchObject({ state: 'empty', load: null, perhaps: { id, label: 'Curlew A', sizeBytes } })
    const give = (cardId: unknown) => station.send('PUT', `/loads/${id}/gear`, { cardId, cameraId: null })
    expect((await give(made.body.id)).status).toBe(204)
    expect(await cardNow()).toMatchObject({ state: 'in-use', load: { id }, perhaps: null })
    await give(null)
    expect(await cardNow()).toMatchObject({ perhaps: { id } })
    await station.post(`/loads/${id}/formatted`, { anyway: true, reason: 'tried' })
    // While everything is still on it nobody takes that for granted.
    expect(await cardNow()).toMatchObject({ perhaps: { id } })
    rmSync(join(world.card, 'DCIM'), { recursive: true })
    const formatted = await until(cardNow, (card) => card?.perhaps === null)
    expect(formatted).toMatchObject({ state: 'empty', load: null, perhaps: null })
  })

  more('a card that is scanned again is not opened clip by clip again, only what is new on it', async () => {
    const world = await newWorld(station)
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    /** Programs that the last task started. */
    const programs = async () => {
      const { rows } = await db.query<{ count: string }>(
        `select count(*) from tool_child where attempt_id = (select id from attempt order by started_at desc limit 1)`,
      )
      return Number(rows[0]?.count)
    }
    await world.look()
    const first = { load: await world.load(), clips: await world.clips() }
    expect(await programs()).toBeGreaterThan(0)
    await world.look()
    expect(await programs()).toBe(0)
    expect((await world.load()).id).toBe(first.load.id)
    expect(await world.clips()).toEqual(first.clips)
    world.film('CURL0099.MP4', new Date('2026-11-21T10:00:00Z'))
    await world.look()
    const ofOneClip = await programs()
    expect(ofOneClip).toBeGreaterThan(0)
    expect((await world.clips()).map((clip) => clip.pictureMade)).not.toContain(false)
    await db.end()
  })

  more('the same files with all times shifted by whole hours are the same load', async () => {
    const world = await clearWorld(station)
    const first = (await world.load()).id
    for (const name of readdirSync(join(world.card, 'DCIM/100CURLW'))) {
      const path = join(world.card, 'DCIM/100CURLW', name)
      const shifted = new Date(statSync(path).mtimeMs + 3_600_000)
      utimesSync(path, shifted, shifted)
    }
    await world.look()
    expect((await world.load()).id).toBe(first)
    const { clear, copies } = await world.copies()
    expect(copies.map((copy) => copy.mark)).toEqual([3, 2])
    expect(clear.clear, clear.sentence).toBe(true)
  })

  more(
    'a folder that may not be opened and a path that is too long are named, hold back the yes, and everything else arrives',
    async () => {
      const world = await newWorld(station)
      // Source: PATH_MAX of Linux is 4096 bytes; names may have 255. Perl of Debian's base system walks down by itself.
      const walkDown = 'my $d = "d" x 240; chdir shift; for (1 .. 20) { mkdir $d; chdir $d } open F, ">", "LOST.MP4"'
      execFileSync('perl', ['-e', walkDown, world.card])
      const look = await world.look()
      expect(look.state, look.sentence ?? '').toBe('done')
      const load = await world.load()
      expect(load.findings.map((finding) => finding.kind)).toContain('special')
      const copied = await world.copy()
      expect(copied.state, copied.sentence ?? '').toBe('done')
      expect(readdirSync(join(world.mirror(world.slipway), 'DCIM/100CURLW'))).toEqual(['CURL0041.MP4', 'CURL0042.MP4'])
      await world.play()
      await expectNotClear(world, /wrong and not settled/)
    },
  )
})

describe('a copy under which the card changes', () => {
  it('does not prove files of a second card that was put in meanwhile', async () => {
    const names = Array.from({ length: 12 }, (_, at) => `CURL01${String(at).padStart(2, '0')}.MP4`)
    const world = await newWorld(station, names)
    for (const name of names) truncateSync(join(world.card, 'DCIM/100CURLW', name), 12_000_000)
    for (const name of names) utimesSync(join(world.card, 'DCIM/100CURLW', name), 1_790_000_000, 1_790_000_000)
    const other = `${world.card} other`
    cpSync(world.card, other, { recursive: true })
    for (const name of names) writeFileSync(join(other, 'DCIM/100CURLW', name), Buffer.alloc(12_000_000, 3))
    for (const name of names) utimesSync(join(other, 'DCIM/100CURLW', name), 1_790_000_000, 1_790_000_000)
    await world.look()
    const { body } = await station.post(`/loads/${(await world.load()).id}/copies`, { volumeIds: world.volumeIds })
    await until(
      () =>
        Promise.resolve(
          readdirSync(world.slipway, { recursive: true }).filter((name) => String(name).endsWith('.MP4')).length,
        ),
      (count) => count > 0,
    )
    renameSync(world.card, `${world.card} first`)
    renameSync(other, world.card)
    const end = await station.ended(String(body.taskId))
    expect(end.sentence).not.toContain('All 12 files proved')
    const { copies, clear } = await world.copies()
    expect(copies.map((copy) => copy.mark)).toEqual([0, 0])
    expect(clear.clear).toBe(false)
    // Source: what lies on the drive is the first card's or nothing.
    for (const name of names) {
      const copy = join(world.mirror(world.slipway), 'DCIM/100CURLW', name)
      const first = statSync(copy, { throwIfNoEntry: false })
      if (first) expect(first.mtimeMs).toBe(1_790_000_000_000)
    }
  })
})

describe('what is called a clip and is none', () => {
  more('a text playlist with the ending of a film is refused as media, and copied as a plain file', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    const list = join(world.card, 'DCIM/100CURLW/CURL0042.MP4')
    writeFileSync(list, `#EXTM3U\n#EXT-X-TARGETDURATION:5\n#EXTINF:2,\nfile://${clipFile()}\n#EXT-X-ENDLIST\n`)
    const concat = join(world.card, 'DCIM/100CURLW/CURL0043.MP4')
    writeFileSync(concat, `ffconcat version 1.0\nfile '${clipFile()}'\n`)
    symlinkSync(clipFile(), join(world.card, 'DCIM/100CURLW/link.MP4'))
    await world.look()
    const load = await world.load()
    const clips = await world.clips()
    const good = clips.filter((clip) => clip.trouble === null)
    expect(good.map((clip) => clip.name)).toEqual(['CURL0041.MP4'])
    expect(clips.every((clip) => clip.name === 'CURL0041.MP4' || !clip.pictureMade)).toBe(true)
    expect(
      load.findings.some(
        (finding) => finding.weight === 'stop' && finding.paths.includes('DCIM/100CURLW/CURL0042.MP4'),
      ),
    ).toBe(true)
    expect((await world.copy()).sentence).toContain('All 3 files proved')
  })

  it('a film whose end is missing is named though its index stands first, be it a byte', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'])
    const { size } = statSync(join(world.card, 'DCIM/100CURLW/CURL0042.MP4'))
    truncateSync(join(world.card, 'DCIM/100CURLW/CURL0042.MP4'), Math.floor(size * 0.6))
    truncateSync(join(world.card, 'DCIM/100CURLW/CURL0043.MP4'), size - 1)
    await world.look()
    const cut = (await world.load()).findings.filter((finding) => finding.kind === 'cut')
    expect(cut.flatMap((finding) => finding.paths)).toEqual([
      'DCIM/100CURLW/CURL0042.MP4',
      'DCIM/100CURLW/CURL0043.MP4',
    ])
    expect(cut[0]?.weight).toBe('stop')
  })
})

describe('a flipped bit', () => {
  it('is found by checking again, and named with its file and volume', async () => {
    const world = await clearWorld(station)
    flipBit(join(world.mirror(world.tide), 'DCIM/100CURLW/CURL0042.MP4'))
    const { loadId } = await world.copies()
    const end = await station.task(`/loads/${loadId}/checks`, { volumeIds: [world.volumeIds[1]], how: 'whole' })
    expect(end.troubles.join()).toMatch(/CURL0042\.MP4 on Tide/)
    await expectNotClear(world, /Tide/)
  })

  more('is found by copying again: nothing is called equal that was not read', async () => {
    const world = await clearWorld(station)
    flipBit(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0041.MP4'))
    const end = await world.copy()
    expect(end.troubles.join()).toMatch(/CURL0041\.MP4 on Slipway/)
    await expectNotClear(world, /Slipway/)
    // Nor does the list that was rewritten beside it (xxhsum of Debian).
    const cwd = dirname(world.mirror(world.slipway))
    const { status, stdout } = spawnSync('xxhsum', ['--strict', '--quiet', '-c', 'Curlew A.xxh64'], {
      cwd,
      encoding: 'utf8',
    })
    expect(status).not.toBe(0)
    expect(stdout).toContain('CURL0041.MP4: FAILED')
  })
})

describe('cards that were not prepared', () => {
  more('pulled out in the middle of a look: says so, says no yes, and the next look is whole', async () => {
    const names = Array.from({ length: 24 }, (_, at) => `CURL${String(at + 1).padStart(4, '0')}.MP4`)
    const world = await newWorld(station, names)
    const order = await station.post(`/readers/${world.readerId}/scan`, {
      productionId: world.productionId,
      label: 'Curlew A',
    })
    const task = () => station.get<TaskView>(`/tasks/${String(order.body.taskId)}`)
    await until(task, ({ progress, state }) => (progress?.done ?? 0) >= 4 || state === 'done')
    renameSync(world.card, `${world.card} away`)
    const end = await station.ended(String(order.body.taskId))
    expect(end.state).toBe('failed')
    expect(end.sentence).toMatch(/went away|Another card/)
    expect((await world.load()).sentence).toContain('the scan has not finished')
    renameSync(`${world.card} away`, world.card)
    expect(await world.look()).toMatchObject({ state: 'done', sentence: expect.stringContaining('24 clips') })
    expect((await world.load()).sentence).toContain('24 clips')
    expect((await world.clips('wrong')).length).toBe(0)
  })

  more(
    'two with the same names and other contents in one production: two loads, two mirrors, and neither hides the other',
    async () => {
      const world = await newWorld(station, ['CURL0041.MP4'])
      await world.look()
      await world.copy()
      const folder = join(world.card, 'DCIM/100CURLW')
      renameSync(folder, `${world.root}/first`)
      mkdirSync(folder)
      writeFileSync(join(folder, 'CURL0041.MP4'), ownClip('the other card'))
      expect(await world.look()).toMatchObject({ state: 'done' })
      const { rows } = await station.get<Page<LoadView>>(`/productions/${world.productionId}/loads`)
      expect(rows.map((load) => [load.label, load.whereabouts.state])).toEqual([
        ['Curlew A (2)', 'nowhere'],
        ['Curlew A', 'twice'],
      ])
      await world.copy()
      const copied = (label: string) =>
        readFileSync(join(world.slipway, world.title, 'Cards', label, 'DCIM/100CURLW/CURL0041.MP4'))
      expect(copied('Curlew A').equals(readFileSync(join(world.root, 'first/CURL0041.MP4')))).toBe(true)
      expect(copied('Curlew A (2)').equals(readFileSync(join(folder, 'CURL0041.MP4')))).toBe(true)
    },
  )
})
