import { execFileSync, fork } from 'node:child_process'
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { describe, expect, it } from 'vitest'
import { more } from '../more'
import { canMount, filledImage, Slot } from './mounts'
import { newWorld, ownClip, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
// Half a minute of silence is enough to wait for here.
stationOfFile((one) => (station = one), { YENDRA_PATIENCE_MS: '3000' })

const FILMED_AT = new Date('2026-11-14T10:00:00Z')
const clipsOf = (root: string) => join(root, 'DCIM/100CURLW')

describe('nothing with the bytes of an original is removed while it may be the last', () => {
  async function sortedWorld(links: 'copy' | 'hard'): Promise<World> {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4'])
    await world.look()
    await world.copy()
    await say(world, 'keep')
    const view = { template: [{ path: 'Video', takes: 'a-roll' }], aRoll: [], which: 'keep', links, editBegun: false }
    await station.send('PUT', `/productions/${world.productionId}/sorted`, { ...view, volumeId: world.volumeIds[0] })
    expect((await station.task(`/productions/${world.productionId}/sorted`)).sentence).toContain('2 files added')
    return world
  }
  async function say(world: World, verdict: 'keep' | 'reject'): Promise<void> {
    for (const clip of await world.clips())
      await station.send('PUT', `/clips/${clip.id}/review`, { verdict, ranges: [], note: '', shotId: null })
  }
  const inView = (world: World) => join(world.slipway, world.title, 'Video')

  more('a sorted view whose copies are gone keeps its files, and says why', async () => {
    const world = await sortedWorld('copy')
    for (const drive of [world.slipway, world.tide]) rmSync(world.mirror(drive), { recursive: true })
    rmSync(join(world.card, 'DCIM'), { recursive: true })
    await world.copies()
    await say(world, 'reject')
    const end = await station.task(`/productions/${world.productionId}/sorted`)
    expect(readdirSync(inView(world)).sort()).toEqual(['CURL0041.MP4', 'CURL0042.MP4'])
    expect(end.troubles.join('\n')).toMatch(/CURL0041\.MP4: it stays, since no other proved copy of it could be opened/)
    // Nor does taking the sorting back remove them.
    await station.task(`/productions/${world.productionId}/sorted/undo`)
    expect(readdirSync(inView(world))).toHaveLength(2)
  })

  more('a second name goes while the copy stays, and stays when it is the last name', async () => {
    const world = await sortedWorld('hard')
    rmSync(join(clipsOf(world.mirror(world.slipway)), 'CURL0042.MP4'))
    rmSync(join(clipsOf(world.mirror(world.tide)), 'CURL0042.MP4'))
    await world.copies()
    await say(world, 'reject')
    await station.task(`/productions/${world.productionId}/sorted`)
    expect(readdirSync(inView(world))).toEqual(['CURL0042.MP4'])
    expect(existsSync(join(clipsOf(world.mirror(world.slipway)), 'CURL0041.MP4'))).toBe(true)
  })

  more('copies that were read too long ago let nothing go', async () => {
    const world = await sortedWorld('copy')
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    await db.query(`update copy_file set proved_at = proved_at - interval '25 hours' where load_id = $1`, [
      (await world.load()).id,
    ])
    await db.end()
    await say(world, 'reject')
    await station.task(`/productions/${world.productionId}/sorted`)
    expect(readdirSync(inView(world))).toHaveLength(2)
    const { id } = await world.load()
    await station.task(`/loads/${id}/checks`, { volumeIds: [world.volumeIds[1]], how: 'whole' })
    await station.task(`/productions/${world.productionId}/sorted`)
    expect(existsSync(inView(world)) ? readdirSync(inView(world)) : []).toEqual([])
  })

  more('a whole part that a cut copy left stays until its file is proved; half a one does not', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4'])
    await world.look()
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    const { rows } = await db.query<{ id: string; path_text: string }>(
      `select id, path_text from load_entry where load_id = $1 and kind = 'file' order by path_text`,
      [(await world.load()).id],
    )
    await db.end()
    const parts = join(world.tide, '.yendra/parts/0b5a3b1e-0000-4000-8000-000000000000')
    mkdirSync(parts, { recursive: true })
    for (const [at, row] of rows.entries()) {
      const bytes = readFileSync(join(world.card, row.path_text))
      writeFileSync(join(parts, `${row.id}.part`), at === 0 ? bytes : bytes.subarray(0, 1000))
    }
    // A worker that is started again looks for what was left.
    station.worker().kill('SIGKILL')
    await station.startWorker()
    expect(readdirSync(parts)).toEqual([`${rows[0]?.id}.part`])
    expect((await world.copy()).sentence).toContain('All 2 files proved')
    expect(existsSync(parts)).toBe(false)
  })
})

describe.skipIf(!canMount)('a dying card (needs root to mount)', () => {
  it('gives every file that it can, and of the others what can be read, with its holes listed', async () => {
    const film = (at: string) => {
      mkdirSync(clipsOf(at), { recursive: true })
      for (const name of ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4', 'CURL0044.MP4']) {
        const box = Buffer.alloc(12_000_000, name)
        box.writeUInt32BE(box.length)
        box.write('free', 4, 'latin1')
        writeFileSync(join(clipsOf(at), name), Buffer.concat([ownClip(name), box]))
        utimesSync(join(clipsOf(at), name), FILMED_AT, FILMED_AT)
      }
    }
    const image = filledImage(station.root, 'dying', film)
    const slot = new Slot(join(station.root, 'dying slot'), image)
    const world = await newWorld(station, [], undefined, slot.at)
    await world.look()
    // Where the last clip lies on it (FIEMAP by filefrag of e2fsprogs): the middle of it is gone.
    const last = join(clipsOf(slot.at), 'CURL0044.MP4')
    const extents = execFileSync('filefrag', ['-v', '-b1', last], { encoding: 'utf8' })
    const found = [...extents.matchAll(/^\s*\d+:\s+(\d+)\.\.\s*\d+:\s+(\d+)\.\./gm)].map((match) => [
      Number(match[1]),
      Number(match[2]),
    ])
    const [logical = 0, physical = 0] = found.at(-1) ?? []
    // On the grid of pieces: of one that reaches past the end of its image a loop device makes up the rest.
    const cut = 2 * 4 * 1024 * 1024
    expect(logical).toBeLessThan(cut)
    const original = readFileSync(last)
    truncateSync(image, physical + cut - logical)
    execFileSync('sh', ['-c', 'echo 3 > /proc/sys/vm/drop_caches'])
    const end = await world.copy()
    expect(end.state).toBe('done')
    const mirror = clipsOf(world.mirror(world.slipway))
    expect(readdirSync(mirror).sort()).toEqual(['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'])
    const saved = join(world.tide, 'Set aside/Rescued/Curlew A/DCIM/100CURLW/CURL0044.MP4')
    expect(end.troubles.join('\n')).toMatch(
      /CURL0044\.MP4 cannot be read from the card of “Curlew A” at once\. It was read with \d+ hole/,
    )
    const rescued = readFileSync(saved)
    expect(rescued.length).toBe(original.length)
    // Source: the card's own bytes, read before it died.
    const holes = [...readFileSync(`${saved}.holes.txt`, 'utf8').matchAll(/^(\d+)-(\d+) /gm)].map(
      ([, from, to]) => [Number(from), Number(to)] as const,
    )
    expect(holes.length).toBeGreaterThan(0)
    let at = 0
    for (const [from, to] of [...holes, [original.length, original.length] as const]) {
      expect(rescued.subarray(at, from).equals(original.subarray(at, from))).toBe(true)
      at = to + 1
    }
    expect(holes).toEqual([[cut, original.length - 1]])
    await world.play()
    const { clear, copies } = await world.copies()
    expect(clear.clear).toBe(false)
    expect(copies.map((copy) => copy.filesCopied)).toEqual([3, 3])
  })

  more('that keeps a reading waiting is given up for that file alone', async () => {
    const folder = join(station.root, 'hanging folder')
    const at = join(station.root, 'hanging card')
    for (const one of [clipsOf(folder), at]) mkdirSync(one, { recursive: true })
    for (const name of ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4']) {
      writeFileSync(join(clipsOf(folder), name), ownClip(`hanging ${name}`))
      utimesSync(join(clipsOf(folder), name), FILMED_AT, FILMED_AT)
    }
    writeFileSync(join(folder, 'HANG.DAT'), Buffer.alloc(3_000_000, 1))
    const server = fork('tests/clear/hangingCard.mjs', [at, folder, 'HANG.DAT'])
    await new Promise((resolve) => server.once('message', resolve))
    try {
      const world = await newWorld(station, [], undefined, at)
      expect((await world.look()).state).toBe('done')
      const end = await world.copy()
      expect(end.state, end.sentence ?? '').toBe('done')
      expect(end.troubles.join('\n')).toMatch(/HANG\.DAT cannot be read from the card/)
      for (const name of readdirSync(clipsOf(folder)))
        expect(
          readFileSync(join(clipsOf(world.mirror(world.tide)), name)).equals(readFileSync(join(clipsOf(folder), name))),
        ).toBe(true)
      expect((await world.copies()).clear.clear).toBe(false)
      // Everything else goes on meanwhile.
      const other = await newWorld(station, ['CURL0099.MP4'])
      await other.look()
      expect((await other.copy()).sentence).toContain('All 1 file proved')
    } finally {
      execFileSync('umount', ['-l', at])
      server.kill('SIGKILL')
    }
    expect(statSync(folder).isDirectory()).toBe(true)
  })
})
