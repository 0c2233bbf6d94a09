import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { describe, expect, it } from 'vitest'
import type { ReaderView } from '../../contract/cards'
import type { LetGoView, StateView } from '../../contract/state'
import type { StorageView } from '../../contract/storage'
import { isLong } from '../long'
import { more } from '../more'
import { copyOfBooks, markOnDrives, newestMark, putBooksBack } from './recordsCopy'
import { bind, canMount, canPartition, loopDrive, memoryDrive, partitionedDrive } from './mounts'
import { clearWorld, flipBit, newWorld, ownClip, startStation, until, type Station, thirdDrive } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one), { YENDRA_BOOKS_PAUSE_MS: '2000' })

const same = (a: string, b: string) => spawnSync('diff', ['-r', '-q', a, b]).status === 0

describe('a copy from drive to drive', () => {
  it('is made of the proved one when the card is formatted, is planned and proved, and equals it', async () => {
    const world = await clearWorld(station)
    writeFileSync(join(world.card, 'empty.txt'), '')
    await world.look()
    await world.copy()
    const before = execFileSync('find', [world.card, '-type', 'f'], { encoding: 'utf8' }).length
    expect(before).toBeGreaterThan(0)
    // The card is formatted and filled again; then one copy is lost.
    rmSync(join(world.card, 'DCIM'), { recursive: true })
    rmSync(join(world.card, 'empty.txt'))
    const { loadId } = await world.copies()
    const lost = world.mirror(world.tide)
    renameSync(lost, join(world.root, 'lost'))
    expect((await world.copies()).copies.map((copy) => copy.mirrorLost)).toEqual([false, true])
    const neap = await thirdDrive(world)
    const [slipway, tide] = world.volumeIds
    const plan = await station.get<{ volumes: { name: string; copy: { files: number } }[] }>(
      `/loads/${loadId}/plan?volumeIds=${tide},${neap.id}&from=${slipway}`,
    )
    expect(plan.volumes.map((volume) => volume.copy.files)).toEqual([3, 3])
    const end = await station.task(`/loads/${loadId}/copies`, { volumeIds: [tide, neap.id], from: slipway })
    expect(end).toMatchObject({ state: 'done', troubles: [] })
    expect(end.sentence).toContain('All 3 files proved on Tide')
    expect(same(world.mirror(world.slipway), lost)).toBe(true)
    expect(same(world.mirror(world.slipway), join(neap.path, world.title, 'Cards/Curlew A'))).toBe(true)
    const { copies } = await world.copies()
    expect(copies.map((copy) => copy.mark >= 2)).toEqual([true, true, true])
    // What was read was proved again by that.
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    const { rows } = await db.query<{ volume_id: string; n: string }>(
      `select volume_id, count(*) as n from proof where load_id = $1 and source_volume_id = $2 group by 1`,
      [loadId, slipway],
    )
    await db.end()
    expect(Object.fromEntries(rows.map((row) => [row.volume_id, Number(row.n)]))).toEqual({
      [slipway]: 3,
      [tide]: 3,
      [neap.id]: 3,
    })
    // The list beside it is that of any copy.
    execFileSync('xxhsum', ['--strict', '--quiet', '-c', 'Curlew A.xxh64'], {
      cwd: join(neap.path, world.title, 'Cards'),
    })
  })

  more('passes no rotten file on: it is named, withdrawn, and everything else is copied', async () => {
    const world = await clearWorld(station)
    const neap = await thirdDrive(world)
    const [slipway] = world.volumeIds
    // Older books know no number of a file: a flipped bit is found by reading alone.
    flipBit(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0042.MP4'))
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    await db.query(`update copy_file set inode = null, changed_ms = null where volume_id = $1`, [slipway])
    await db.end()
    const { loadId } = await world.copies()
    const end = await station.task(`/loads/${loadId}/copies`, { volumeIds: [neap.id], from: slipway })
    expect(end.troubles.join('\n')).toMatch(/CURL0042\.MP4 .*not what was copied before/)
    // Not the card is asked to be kept, but what was read.
    expect(end.sentence).toMatch(/no whole proved copy yet\. Keep the copy on Slipway \d+ as it is\./)
    expect(readdirSync(join(neap.path, world.title, 'Cards/Curlew A/DCIM/100CURLW'))).toEqual(['CURL0041.MP4'])
    const { copies, clear } = await world.copies()
    expect(copies.find((copy) => copy.volumeId === slipway)?.filesMismatched).toBe(1)
    expect(clear.clear).toBe(false)
  })

  more('copies nothing onto itself, and says where there is nothing to copy from', async () => {
    const world = await clearWorld(station)
    const { loadId } = await world.copies()
    const [slipway] = world.volumeIds
    const order = (body: object) => station.post(`/loads/${loadId}/copies`, body)
    expect((await order({ volumeIds: [slipway], from: slipway })).status).toBe(422)
    const neap = await thirdDrive(world)
    const none = await station.ended(String((await order({ volumeIds: [slipway], from: neap.id })).body.taskId))
    expect(none).toMatchObject({ state: 'failed', sentence: expect.stringContaining('holds no copy') })
  })
})

describe('setting aside', () => {
  more('meets what nobody knew of, in the same order', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4'])
    await world.look()
    const path = join(world.mirror(world.slipway), 'DCIM/100CURLW')
    mkdirSync(path, { recursive: true })
    writeFileSync(join(path, 'CURL0041.MP4'), 'a letter of mine')
    const end = await world.copy({ setAside: true })
    expect(end).toMatchObject({ troubles: [], sentence: expect.stringContaining('All 2 files proved') })
    expect(readFileSync(join(world.slipway, 'Set aside', end.id, 'DCIM/100CURLW/CURL0041.MP4'), 'utf8')).toBe(
      'a letter of mine',
    )
  })
})

describe('“I formatted it”', () => {
  more('said with the full card in the reader is asked about at once, and can be taken back', async () => {
    const world = await clearWorld(station)
    expect((await world.formatted()).status).toBe(204)
    const now = await world.copies()
    expect(now).toMatchObject({ saidButThere: true, formattedAt: null })
    expect(now.clear).toMatchObject({
      clear: false,
      sentence: expect.stringMatching(/^Was this card formatted\? Everything is still on it/),
    })
    const back = () => station.post(`/loads/${now.loadId}/unformatted`, { twinId: null })
    expect((await back()).status).toBe(204)
    expect((await world.copies()).clear.clear).toBe(true)
    expect((await back()).status).toBe(409)
    // Both stay written down.
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    const { rows } = await db.query<{ kind: string }>(
      `select kind from said where load_id = $1 and kind like '%formatted' order by id`,
      [now.loadId],
    )
    await db.end()
    expect(rows.map((row) => row.kind)).toEqual(['formatted', 'unformatted'])
    // Said again and done: the answer states it.
    await world.formatted()
    rmSync(join(world.card, 'DCIM'), { recursive: true })
    mkdirSync(join(world.card, 'DCIM'))
    const { clear } = await until(
      () => world.copies(),
      (one) => !one.saidButThere,
    )
    expect(clear.sentence).toBe('You said this card was formatted. The next scan starts a new load.')
  })
})

describe('a card that is read whole', () => {
  more('is known by that, and a card that is another one is found by it', async () => {
    const world = await clearWorld(station)
    const { loadId } = await world.copies()
    expect(await station.task(`/loads/${loadId}/card/read`)).toMatchObject({
      state: 'done',
      sentence: expect.stringContaining('of the card'),
    })
    const { clear } = await world.copies()
    expect(clear.reasons.map((reason) => reason.sentence).join('\n')).toContain(
      '2 of 2 files were read whole and compared.',
    )
    flipBit(join(world.card, 'DCIM/100CURLW/CURL0041.MP4'), 30_000)
    const end = await station.task(`/loads/${loadId}/card/read`)
    expect(end.troubles.join()).toContain('CURL0041.MP4 on the card is not what was copied')
    expect((await world.copies()).clear.clear).toBe(false)
  })
})

describe('books that come back from an older copy', () => {
  /** Does something that is written down, and waits until the drives know of it. */
  const noted = async (act: () => Promise<unknown>) => {
    const before = newestMark(station)
    await act()
    await until(
      () => Promise.resolve(markOnDrives(station)),
      (n) => n > before,
    )
  }

  more('forget what was last seen of a card that is out, and ask for it', async () => {
    const world = await clearWorld(station)
    await noted(() => world.play())
    const older = copyOfBooks(station)
    await noted(async () => {
      world.film('CURL0043.MP4')
      expect((await world.copies()).clear.sentence).toContain('1 new clip')
    })
    renameSync(world.card, `${world.card} away`)
    await putBooksBack(station, older)
    await until(
      () => world.copies(),
      ({ clear }) => clear.sentence.includes('restored from an older backup'),
    )
    const { loadId } = await world.copies()
    await station.task(`/loads/${loadId}/checks`, { volumeIds: world.volumeIds, how: 'whole' })
    const { clear } = await world.copies()
    expect(clear.clear).toBe(false)
    expect(clear.sentence).toContain('what was last seen of the card of “Curlew A” is forgotten. Put it in first')
    renameSync(`${world.card} away`, world.card)
    await until(
      () => world.copies(),
      (now) => now.clear.sentence.includes('1 new clip'),
    )
  })

  it('know that they are older, and nothing counts before it was read again', async () => {
    const world = await clearWorld(station)
    const { loadId } = await world.copies()
    await noted(() => world.play())
    const older = copyOfBooks(station)
    // A rotten file is found out after that.
    flipBit(join(world.mirror(world.tide), 'DCIM/100CURLW/CURL0042.MP4'))
    await noted(() => station.task(`/loads/${loadId}/checks`, { volumeIds: [world.volumeIds[1]], how: 'whole' }))
    // The database is put back as it was; the drive looks as ever, since the books knew no number of its files.
    await putBooksBack(
      station,
      older,
      'set search_path = public; update copy_file set inode = null, changed_ms = null;',
    )
    const answer = await until(
      () => world.copies(),
      (one) => one.clear.reasons.some((reason) => reason.sentence.includes('restored from an older backup')),
    )
    expect(answer.clear.clear).toBe(false)
    await station.task(`/loads/${loadId}/checks`, { volumeIds: world.volumeIds, how: 'whole' })
    const now = await world.copies()
    expect(now.copies.map((copy) => copy.filesMismatched)).toEqual([0, 1])
    expect(now.clear.clear).toBe(false)
  })
})

describe('letting go', () => {
  it.skipIf(!canMount)('unmounts what nobody holds, and names who does (needs root to mount)', async () => {
    const drives = [loopDrive(station.root, 'goes'), loopDrive(station.root, 'stays')] as const
    const world = await newWorld(station, ['CURL0041.MP4'], drives)
    const holder = spawn('sleep', ['600'], { cwd: drives[0] })
    const go = (id: string) => station.post(`/volumes/${id}/let-go`)
    const held = await go(world.volumeIds[0])
    expect(held).toMatchObject({
      status: 409,
      body: { detail: expect.stringMatching(/still held by .*sleep \(\d+\)/) },
    })
    holder.kill()
    await until(
      () => Promise.resolve(holder.exitCode ?? holder.signalCode),
      (ended) => ended !== null,
    )
    const out = await go(world.volumeIds[0])
    expect(out).toMatchObject({ status: 200, body: { sentence: expect.stringContaining('may be pulled out') } })
    expect(readFileSync('/proc/self/mounts', 'utf8')).not.toContain(drives[0].replaceAll(' ', '\\040'))
    const { volumes } = await station.get<StorageView>(`/productions/${world.productionId}/storage`)
    expect(volumes.find((volume) => volume.id === world.volumeIds[0])?.connected).toBe(false)
  })

  it.skipIf(!canPartition)(
    'says no drive may be pulled out while its disk is in use elsewhere (needs root)',
    async () => {
      const parts = partitionedDrive(station.root, 'disk')
      const world = await newWorld(station, ['CURL0041.MP4'], parts)
      const go = (id: string) => station.post(`/volumes/${id}/let-go`)
      const again = bind(parts[1], join(station.root, 'seen again'))
      const below = bind(world.card, join(parts[0], 'below'))
      // Nobody's program holds it, and it cannot go all the same.
      expect(await go(world.volumeIds[0])).toMatchObject({
        status: 409,
        body: { detail: expect.stringContaining(below) },
      })
      execFileSync('umount', [below])
      const first = await go(world.volumeIds[0])
      expect(first).toMatchObject({ status: 200, body: { out: false } })
      for (const at of [parts[1], again]) expect(first.body.sentence).toContain(at)
      expect(first.body.sentence).not.toContain('may be pulled out.')
      const second = await go(world.volumeIds[1])
      expect(second).toMatchObject({ body: { out: false, sentence: expect.stringContaining(again) } })
    },
  )

  it('says of a folder that it goes with its drive, and waits for work under way', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'])
    const { body, status } = await station.post(`/readers/${world.readerId}/let-go`)
    expect(status).toBe(200)
    expect((body as unknown as LetGoView).sentence).toContain('It is a folder of a drive that is in use')
    expect((await station.get<ReaderView[]>('/readers')).some((row) => row.id === world.readerId)).toBe(true)
  })
})

describe('the disk of the books', () => {
  it.skipIf(!canMount || !isLong)('is told of before it is full (needs root to mount)', async () => {
    const small = await startStation({ YENDRA_BOOKS: memoryDrive(station.root, 'books') })
    try {
      const { notices } = await small.get<StateView>('/state')
      expect(notices).toEqual([expect.stringMatching(/^The disk with Yendra’s records has 67\.\d MB left/)])
    } finally {
      await small.stop()
    }
  })
})

describe('one sentence before bed', () => {
  more('says when everything is proved and what waits, and nothing while nothing goes on', async () => {
    const world = await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4'])
    for (const at of [1, 2, 3, 4])
      writeFileSync(
        join(world.card, `LOG${at}.BIN`),
        Buffer.concat([ownClip(`log ${at}`), Buffer.alloc(40_000_000, at)]),
      )
    await world.look()
    const { body } = await station.post(`/loads/${(await world.load()).id}/copies`, { volumeIds: world.volumeIds })
    const said = await until(
      () => station.get<StateView>('/state'),
      ({ goodNight }) => goodNight?.includes('will be proved') ?? false,
    )
    expect(said.goodNight).toMatch(/“Curlew A” will be proved/)
    await station.ended(String(body.taskId))
    await until(
      () => station.get<StateView>('/state'),
      ({ goodNight }) => goodNight === null,
    )
    expect(existsSync(world.mirror(world.tide))).toBe(true)
  })
})
