import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { ReaderView } from '../../contract/cards'
import type { AppearedView } from '../../contract/noticed'
import type { TaskView } from '../../contract/tasks'
import type { UnattendedView } from '../../contract/unattended'
import { more } from '../more'
import { bind, btrfsDrive, canBtrfs, canExfat, canMount, exfatDrive, filledImage, loopDrive, Slot } from './mounts'
import { cleared, CLIPS, expectNotClear, film, reasonsOf, slotWorld, twoDrives } from './slotWorld'
import { usually } from './rules'
import { newWorld, until, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

describe.skipIf(!canMount)('which card lies in a reader (needs root to mount)', () => {
  it('another card of the same names, sizes, times and ends, put in within a moment, gets no yes', async () => {
    const world = await cleared(await slotWorld(station))
    world.slot.change(world.other)
    await expectNotClear(world, /[1-4] of 4 clips differs?: it is not the card that was copied/)
    const copied = readFileSync(join(world.mirror(world.slipway), 'DCIM/100CURLW', CLIPS[0]))
    expect(copied.equals(readFileSync(join(world.card, 'DCIM/100CURLW', CLIPS[0])))).toBe(false)
    // The first card again, put in anew: compared with its copies, and yes.
    world.slot.change(world.image)
    expect((await world.copies()).clear.clear).toBe(true)
    expect(await reasonsOf(world)).toMatch(/4 of 4 clips were compared at one place with .*\./)
  })

  more('copying again mixes no other card into a copy that is there', async () => {
    const world = await cleared(await slotWorld(station))
    // What a cut copy leaves: some of the clips, on both drives.
    for (const drive of [world.slipway, world.tide])
      for (const name of CLIPS.slice(1)) rmSync(join(world.mirror(drive), 'DCIM/100CURLW', name))
    world.slot.change(world.other)
    const end = await world.copy()
    expect(end.state).toBe('failed')
    expect(end.sentence).toMatch(/not the card that was copied/)
    for (const drive of [world.slipway, world.tide])
      expect(readdirSync(join(world.mirror(drive), 'DCIM/100CURLW'))).toEqual([CLIPS[0]])
    await expectNotClear(world, /differ/)
    world.slot.change(world.image)
    expect((await world.copy()).sentence).toContain('All 4 files proved')
    await world.play()
    expect((await world.copies()).clear.clear).toBe(true)
  })

  more('a scan of the other card makes a load of its own', async () => {
    const world = await cleared(await slotWorld(station))
    const { id } = await world.load()
    world.slot.change(world.other)
    expect((await world.look()).state).toBe('done')
    const second = await world.load()
    expect(second.id).not.toBe(id)
    expect(second.whereabouts.state).toBe('nowhere')
    await world.copy()
    for (const name of CLIPS)
      expect(
        readFileSync(join(world.slipway, world.title, 'Cards', second.label, 'DCIM/100CURLW', name)).equals(
          readFileSync(join(world.card, 'DCIM/100CURLW', name)),
        ),
      ).toBe(true)
  })

  more('without any copy that can be read it is compared with its ends, and drives that are away say so', async () => {
    const world = await slotWorld(station)
    await world.look()
    world.slot.change(world.image)
    const { body } = await station.post(`/loads/${(await world.load()).id}/copies`, { volumeIds: world.volumeIds })
    expect((await station.ended(String(body.taskId))).sentence).toContain('All 4 files proved')
  })

  it('readers of two computers may have one name and one place', async () => {
    const { default: pg } = await import('pg')
    const db = new pg.Client({ connectionString: station.databaseUrl })
    await db.connect()
    const add = (host: string) =>
      db.query(`insert into reader (name, root_path, simulated, host) values ('left slot', '/media/left', false, $1)`, [
        host,
      ])
    await add('one')
    await add('two')
    await expect(add('two')).rejects.toThrow(/reader_(name|place)/)
    await db.query(`delete from reader where root_path = '/media/left'`)
    await db.end()
  })
})

describe.skipIf(!canMount)('what is mounted inside a copy (needs root to mount)', () => {
  it('is no part of it: a card shown in the place of its copy gets no yes, and is named and offered', async () => {
    const world = await clearWorldOn(twoDrives(station))
    for (const drive of [world.slipway, world.tide]) {
      rmSync(join(world.mirror(drive), 'DCIM'), { recursive: true })
      bind(join(world.card, 'DCIM'), join(world.mirror(drive), 'DCIM'))
    }
    await expectNotClear(world, /another file system is mounted inside the copy, at “.*Cards\/Curlew A\/DCIM”/)
    const check = await station.task(`/loads/${(await world.load()).id}/checks`, {
      volumeIds: world.volumeIds,
      how: 'whole',
    })
    expect(check.troubles.join('\n')).toMatch(/CURL0041\.MP4/)
    // Sorting, playing and copying again meet the same wall.
    const end = await world.copy()
    expect(end.troubles.join('\n')).toMatch(/Another file system is mounted at/)
    expect((await world.play()).status).not.toBe(204)
    const offered = await until(
      () => station.get<AppearedView[]>('/appeared'),
      (all) => all.some((one) => one.path.startsWith(world.mirror(world.slipway))),
    )
    expect(offered.map((one) => one.path)).toContain(join(world.mirror(world.slipway), 'DCIM'))
  })

  more('a mount that is there before the first copy takes nothing in', async () => {
    const world = await newWorld(station, ['CURL0041.MP4'], twoDrives(station))
    await world.look()
    for (const drive of [world.slipway, world.tide]) {
      mkdirSync(join(world.mirror(drive), 'DCIM'), { recursive: true })
      bind(join(world.card, 'DCIM'), join(world.mirror(drive), 'DCIM'))
    }
    const end = await world.copy()
    expect(end.sentence).toContain('hold no whole proved copy')
    expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([0, 0])
  })

  more('on a card hides what the card holds there: no look, and no yes', async () => {
    const world = await clearWorldOn(twoDrives(station))
    bind(world.slipway, join(world.card, 'DCIM/100CURLW'))
    await expectNotClear(world, /mounted on the card in .*, at “DCIM\/100CURLW”/)
    const look = await world.look()
    expect(look).toMatchObject({ state: 'failed', sentence: expect.stringContaining('mounted on the card') })
  })

  more('may be registered by itself, but not the card, and a subvolume belongs to its file system', async () => {
    const world = await clearWorldOn(twoDrives(station))
    const inner = join(world.slipway, 'inner')
    bind(world.tide, inner)
    const add = (name: string, path: string) =>
      station.post('/volumes', { name, kind: 'archive', site: 'house', path, sure: true })
    // It is the other drive, which is registered already.
    expect(await add('inner', inner)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('registered already') },
    })
    const [loop, at] = [loopDrive(station.root, 'a third drive'), join(world.slipway, 'third')]
    bind(loop, at)
    expect((await add('third', at)).status).toBe(201)
  })
})

describe.skipIf(!canBtrfs)('a drive with subvolumes (needs root to mount)', () => {
  more('holds copies across them as one drive', async () => {
    const [btrfs, plain] = [btrfsDrive(station.root, 'pool'), loopDrive(station.root, 'beside the pool')]
    const { execFileSync } = await import('node:child_process')
    execFileSync('btrfs', ['subvolume', 'create', join(btrfs, 'Production of the pool')])
    const world = await newWorld(station, ['CURL0041.MP4'], [btrfs, plain])
    execFileSync('btrfs', ['subvolume', 'create', join(btrfs, world.title)])
    await world.look()
    await world.copy()
    await world.play()
    const { clear, copies } = await world.copies()
    expect(copies.map((copy) => copy.mark)).toEqual([3, 2])
    expect(clear.clear, clear.sentence).toBe(true)
  })
})

/** As clearWorld, on drives that are mounted. */
const clearWorldOn = async (on: readonly [string, string]): Promise<World> =>
  cleared(await newWorld(station, ['CURL0041.MP4', 'CURL0042.MP4', 'CURL0043.MP4'], on))

describe.skipIf(!canMount)('a file that was replaced with the same size and time (needs root to mount)', () => {
  const checksOf = async () =>
    (await station.get<TaskView[]>('/tasks')).filter(
      (task) => task.kind === 'check' && task.title.includes('may have been replaced'),
    )

  it('is doubted at once, read again by itself, and found', async () => {
    const world = await clearWorldOn(twoDrives(station))
    const path = join(world.mirror(world.tide), 'DCIM/100CURLW/CURL0042.MP4')
    const { atime, mtime, size } = statSync(path)
    writeFileSync(`${path} new`, Buffer.alloc(size, 7))
    utimesSync(`${path} new`, atime, mtime)
    renameSync(`${path} new`, path)
    await expectNotClear(world, /may have been replaced|differ from the card/)
    const { copies } = await until(
      () => world.copies(),
      (now) => now.copies.some((copy) => copy.filesMismatched > 0),
    )
    expect(copies.map((copy) => copy.filesMismatched)).toEqual([0, 1])
    const [task] = await checksOf()
    expect(task?.title).toMatch(/1 file on Tide \d+ \(\d+\.?\d* kB/)
  })

  more('counts again where it was only touched', async () => {
    const world = await clearWorldOn(twoDrives(station))
    for (const name of ['CURL0041.MP4', 'CURL0042.MP4']) {
      const path = join(world.mirror(world.slipway), 'DCIM/100CURLW', name)
      const { atime, mtime } = statSync(path)
      const bytes = readFileSync(path)
      writeFileSync(path, bytes)
      utimesSync(path, atime, mtime)
    }
    // The reading begins by itself, and may be quicker than anybody who asks.
    const named = `2 files on ${(await world.copies()).copies.find((copy) => copy.volumeId === world.volumeIds[0])?.volumeName} `
    const { clear, read } = await until(
      async () => ({
        clear: (await world.copies()).clear,
        read: (await checksOf()).filter((task) => task.title.includes(named) && task.state === 'done'),
      }),
      (now) => now.clear.clear && now.read.length > 0,
    )
    expect(clear.clear, clear.sentence).toBe(true)
    expect(read[0]?.troubles).toEqual([])
  })

  more('a second name that is ours is no doubt, one that is not is', async () => {
    const world = await clearWorldOn(twoDrives(station))
    for (const clip of await world.clips())
      await station.send('PUT', `/clips/${clip.id}/review`, { verdict: 'keep', ranges: [], note: '', shotId: null })
    const view = {
      template: [{ path: 'Video', takes: 'a-roll' }],
      aRoll: [],
      which: 'keep',
      links: 'hard',
      editBegun: false,
    }
    await station.send('PUT', `/productions/${world.productionId}/sorted`, { ...view, volumeId: world.volumeIds[0] })
    expect((await station.task(`/productions/${world.productionId}/sorted`)).sentence).toContain('3 files added')
    expect(statSync(join(world.mirror(world.slipway), 'DCIM/100CURLW/CURL0041.MP4')).nlink).toBe(2)
    const { clear, copies } = await world.copies()
    expect(copies.map((copy) => copy.filesDoubted)).toEqual([0, 0])
    expect(clear.clear, clear.sentence).toBe(true)
    expect((await station.task(`/productions/${world.productionId}/sorted/undo`)).state).toBe('done')
    expect((await world.copies()).clear.clear).toBe(true)
  })
})

describe.skipIf(!canExfat)('times that move by whole hours (needs root to mount)', () => {
  more('are a clock on exFAT, and no clip that was replaced meanwhile comes through', async () => {
    const on: [string, string] = [exfatDrive(station.root, 'fat 1'), exfatDrive(station.root, 'fat 2')]
    const world = await newWorld(station, [...CLIPS], on)
    // A program serves exFAT here, so that what is read back may come from memory.
    const asBefore = await usually(station, { acceptMemory: true })
    await world.look()
    await world.copy()
    await world.play()
    expect((await world.copies()).clear.clear).toBe(true)
    const folder = join(world.mirror(world.tide), 'DCIM/100CURLW')
    const shift = () => {
      for (const name of CLIPS) {
        const moved = new Date(statSync(join(folder, name)).mtimeMs + 3_600_000)
        utimesSync(join(folder, name), moved, moved)
      }
    }
    shift()
    expect((await world.copies()).clear.clear, await reasonsOf(world)).toBe(true)
    const { size } = statSync(join(folder, CLIPS[2]))
    writeFileSync(join(folder, CLIPS[2]), Buffer.alloc(size, 9))
    const before = statSync(join(folder, CLIPS[1]))
    utimesSync(join(folder, CLIPS[2]), before.atime, before.mtime)
    shift()
    await expectNotClear(world, /1 file is gone or no longer as it was proved/)
    await asBefore()
  })

  more('are a change everywhere else', async () => {
    const world = await clearWorldOn(twoDrives(station))
    const folder = join(world.mirror(world.tide), 'DCIM/100CURLW')
    for (const name of readdirSync(folder)) {
      const moved = new Date(statSync(join(folder, name)).mtimeMs + 3_600_000)
      utimesSync(join(folder, name), moved, moved)
    }
    await expectNotClear(world, /3 files are gone or no longer as they were proved/)
  })
})

describe.skipIf(!canMount)('what was tried by itself (needs root to mount)', () => {
  const view = () => station.get<UnattendedView>('/unattended')
  const stateOf = async (reader: string) => (await view()).cards.find((card) => card.name === reader)

  more(
    'hangs on the stay: the next card shows no fault of the one before, and one that was pulled out is tried again',
    async () => {
      const image = filledImage(station.root, `card of the night`, (at) => film(at, `night of the night`, 9_000_000))
      const strange = filledImage(station.root, `strange of the night`, (at) =>
        writeFileSync(join(at, 'X_1.BIN'), 'unknown'),
      )
      const slot = new Slot(join(station.root, `slot of the night`), image)
      const world = await newWorld(station, [], twoDrives(station), slot.at)
      const { name } = (await station.get<ReaderView[]>('/readers')).find((row) => row.id === world.readerId) ?? {
        name: '',
      }
      // A look that fails since the card is pulled out.
      const order = await station.post(`/readers/${world.readerId}/scan`, {
        productionId: world.productionId,
        label: 'Night',
      })
      slot.outAtOnce()
      expect((await station.ended(String(order.body.taskId))).state).toBe('failed')
      slot.putIn(strange)
      expect(
        await until(
          () => stateOf(name),
          (card) => card !== undefined,
        ),
      ).toMatchObject({ state: 'unknown' })
      slot.change(image)
      await world.look()
      const camera = await station.post('/cameras', { name: 'Curlew of the night' })
      await station.send('PUT', `/loads/${(await world.load()).id}/gear`, { cardId: null, cameraId: camera.body.id })
      const rule = { productionId: world.productionId, volumeIds: world.volumeIds }
      await station.send('PUT', '/unattended', { ...rule, on: true })
      await until(
        () =>
          Promise.resolve(
            existsSync(join(world.tide, '.yendra/parts')) && readdirSync(join(world.tide, '.yendra/parts')).length > 0,
          ),
        (begun) => begun,
      )
      slot.outAtOnce()
      await until(
        () => station.get<TaskView[]>('/tasks'),
        (tasks) => tasks.some((task) => task.kind === 'copy' && task.loadId !== null && task.state === 'failed'),
      )
      slot.putIn(image)
      const end = await until(
        () => stateOf(name),
        (card) => card?.state === 'proved' || card?.state === 'wrong',
      )
      expect(end).toMatchObject({ state: 'proved' })
      await station.send('PUT', '/unattended', { ...rule, on: false })
    },
  )
})
