import { execFileSync } from 'node:child_process'
import { mkdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import type { ReaderView } from '../../contract/cards'
import type { ProductionView } from '../../contract/productions'
import { deviceOf, disksBelow, keptOn } from '../../server/engine/medium/device'
import { mediumOfVolume } from '../../server/db/queries/volumes'
import { FolderMedium } from '../../server/engine/medium/folder'
import { isLong } from '../long'
import { more } from '../more'
import {
  bind,
  canMount,
  canPartition,
  imageDrive,
  loopDrive,
  partitionedDrive,
  memoryDrive,
  protectedCard,
  unmountAll,
} from './mounts'
import { usually } from './rules'
import { newWorld, ownClip, startStation, type Station, type World } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

const words = async (world: World) => {
  const { clear } = await world.copies()
  return { clear: clear.clear, words: [clear.sentence, ...clear.reasons.map((reason) => reason.sentence)].join('\n') }
}

const line = async (at: Station, productionId: string) => {
  const { next, line: stations } = await at.get<ProductionView>(`/productions/${productionId}`)
  return { next: next.sentence, copies: stations[2] }
}

/** A world whose two drives are these folders, copied to and played from. */
async function worldOn(slipway: string, tide: string, at = station): Promise<World> {
  const world = await newWorld(at, ['CURL0041.MP4', 'CURL0042.MP4'], [slipway, tide])
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
      station.post('/volumes', {
        name: `folder ${name}`,
        kind: 'archive',
        site: 'house',
        path: join(root, name),
        sure: true,
      })
    expect((await add('a')).status).toBe(201)
    expect(await add('b')).toMatchObject({ status: 201, body: { sharesDriveWith: ['folder a'] } })
    const reader = await station.post('/readers', { name: 'reader c', path: join(root, 'c'), sure: true })
    expect(reader.body.sharesDriveWith).toEqual(['folder a', 'folder b'])
  })
})

describe('the system’s tree of block devices', () => {
  it('makes partitions, mapped and joined devices one with the disks below them', async () => {
    // Source: Linux, Documentation/ABI: a partition's folder lies in its disk's and holds `partition`; `slaves` links
    // to what is below.
    const sys = join(station.root, 'sys')
    for (const folder of ['sda/sda1/slaves', 'sda/sda2', 'sdb/sdb1', 'dm-0/slaves', 'md0/slaves', 'loop0'])
      mkdirSync(join(sys, folder), { recursive: true })
    for (const partition of ['sda/sda1', 'sda/sda2', 'sdb/sdb1']) writeFileSync(join(sys, partition, 'partition'), '1')
    symlinkSync(join(sys, 'sda/sda2'), join(sys, 'dm-0/slaves/sda2'))
    symlinkSync(join(sys, 'dm-0'), join(sys, 'md0/slaves/dm-0'))
    symlinkSync(join(sys, 'sdb/sdb1'), join(sys, 'md0/slaves/sdb1'))
    const disks = async (name: string) => (await disksBelow(join(sys, name))).disks
    expect(await disks('sda/sda1')).toEqual(['name:sda'])
    expect(await disks('dm-0')).toEqual(['name:sda'])
    expect(await disks('md0')).toEqual(['name:sda', 'name:sdb'])
    expect(await disks('loop0')).toEqual(['name:loop0'])
    // Serial numbers last, whatever name the next plugging gives.
    writeFileSync(join(sys, 'sdb/wwid'), 'naa.5000c500\n')
    expect(await disks('sdb/sdb1')).toEqual(['wwid:naa.5000c500'])
  })

  it('tells a drive by the number of its USB device, and a card reader not by its own', async () => {
    const usb = join(station.root, 'sys', '1-4')
    const disk = (name: string) => join(usb, '1-4:1.0/host6/6:0:0:0/block', name)
    for (const [name, removable] of [
      ['sdc', '0'],
      ['sdd', '1'],
    ] as const) {
      mkdirSync(disk(name), { recursive: true })
      writeFileSync(join(disk(name), 'removable'), removable)
      symlinkSync(join(usb, '1-4:1.0/host6/6:0:0:0'), join(disk(name), 'device'))
    }
    writeFileSync(join(usb, 'idVendor'), '1d6b')
    writeFileSync(join(usb, 'serial'), 'TIDE0001')
    expect((await disksBelow(disk('sdc'))).disks).toEqual(['usb:TIDE0001:0'])
    expect((await disksBelow(disk('sdd'))).disks).toEqual(['name:sdd'])
  })

  it('tells what a disk keeps its bytes on where the kernel knows, and believes no bridge that it rotates', async () => {
    const sys = join(station.root, 'sys of media')
    const disk = (at: string, rotates: string, removable = '0') => {
      mkdirSync(join(sys, at, 'queue'), { recursive: true })
      writeFileSync(join(sys, at, 'queue/rotational'), rotates)
      writeFileSync(join(sys, at, 'removable'), removable)
      return join(sys, at)
    }
    const [turns, still] = [disk('ata1/host0/block/sda', '1'), disk('ata2/host1/block/sdb', '0')]
    expect([await keptOn(turns), await keptOn(still)]).toEqual(['disk', 'solid-state'])
    expect(await keptOn(disk('nvme/nvme0n1', '0'))).toBe('solid-state')
    expect(await keptOn(disk('usb2/2-1/host4/block/sdc', '1'))).toBeUndefined()
    expect(await keptOn(disk('usb2/2-2/host5/block/sdd', '1', '1'))).toBe('flash')
    expect(await keptOn(disk('mmc0/block/mmcblk0', '0'))).toBe('flash')
    expect(await keptOn(disk('virtio3/block/vda', '1'))).toBeUndefined()
    expect(await keptOn(disk('virtual/block/loop0', '1'))).toBeUndefined()
    // A pool of both is neither; a partition is its disk.
    const pool = disk('virtual/block/md0', '1')
    mkdirSync(join(pool, 'slaves'))
    symlinkSync(turns, join(pool, 'slaves/sda'))
    expect(await keptOn(pool)).toBe('disk')
    symlinkSync(still, join(pool, 'slaves/sdb'))
    expect(await keptOn(pool)).toBeUndefined()
    mkdirSync(join(still, 'sdb1'))
    writeFileSync(join(still, 'sdb1/partition'), '1')
    expect(await keptOn(join(still, 'sdb1'))).toBe('solid-state')
    // The system’s word comes before a person’s; whoever says cloud has said it.
    const device = { fileSystem: 'fs:1', disks: [], known: true, pastCache: true }
    const kept = (kind: 'archive' | 'cloud', seen: 'disk' | undefined, medium: 'flash' | null) =>
      mediumOfVolume({ kind, device: { ...device, ...(seen && { medium: seen }) }, medium })
    expect([kept('archive', 'disk', 'flash'), kept('archive', undefined, 'flash')]).toEqual(['disk', 'flash'])
    expect([kept('archive', undefined, null), kept('cloud', 'disk', 'flash')]).toEqual([undefined, 'cloud'])
  })
})

describe.skipIf(!canMount)('a card whose switch is on (needs root to mount)', () => {
  more(
    'is said to be write-protected, and scanned and copied like any other; one whose switch is off says nothing',
    async () => {
      const card = protectedCard(station.root, 'switch', (at) => {
        mkdirSync(join(at, 'DCIM/100CURLW'), { recursive: true })
        writeFileSync(join(at, 'DCIM/100CURLW/CURL0301.MP4'), ownClip('switch'))
      })
      const drives = ['switch 1', 'switch 2'].map((name) => loopDrive(station.root, name))
      const world = await newWorld(station, [], [drives[0] ?? '', drives[1] ?? ''], card)
      const other = await newWorld(station, ['CURL0302.MP4'])
      await Promise.all([world.look(), other.look()])
      const readers = await station.get<ReaderView[]>('/readers')
      const isProtected = (id: string) => readers.find((one) => one.id === id)?.writeProtected
      expect([isProtected(world.readerId), isProtected(other.readerId)]).toEqual([true, false])
      expect((await world.copy()).sentence).toContain('All 1 file proved')
    },
  )
})

describe('mounted drives', () => {
  it.skipIf(!canMount)('needs root to mount: two loop devices are two drives', async () => {
    const world = await worldOn(loopDrive(station.root, 'loop 1'), loopDrive(station.root, 'loop 2'))
    expect(await words(world)).toMatchObject({
      clear: true,
      words: expect.stringMatching(/read back from the medium[^]*Disk images count as drives of their own/),
    })
  })

  it.skipIf(!canMount || !isLong)('needs root to mount: two disk images on one disk are one drive', async () => {
    const plain = await startStation({ YENDRA_LOOPS: '' })
    try {
      const world = await worldOn(loopDrive(plain.root, 'image 1'), loopDrive(plain.root, 'image 2'), plain)
      const { copies, clear } = await world.copies()
      expect(copies.map((copy) => copy.mark)).toEqual([3, 2])
      expect(copies[0]?.sharesDriveWith).toHaveLength(1)
      expect(clear).toMatchObject({ clear: false, sentence: expect.stringContaining('lie on the same drive') })
      expect(await line(plain, world.productionId)).toEqual({
        next: expect.stringContaining('to another drive: two copies on one drive'),
        copies: { station: 'copies', state: 'open', figure: 'not copied twice', worry: '1 load not safe' },
      })
      // An image in memory, on a disk that is none: read through memory, and known to be.
      const image = join(memoryDrive(plain.root, 'ram'), 'image.img')
      execFileSync('truncate', ['-s', '30M', image])
      const at = imageDrive(image, join(plain.root, 'ram drive'))
      expect(await deviceOf(at)).toMatchObject({ disks: ['memory'], pastCache: false })
      rmSync(image)
      expect(await deviceOf(at)).toMatchObject({ disks: [], known: false })
    } finally {
      unmountAll()
      await plain.stop()
    }
  })

  it.skipIf(!canPartition || !isLong)('needs root to mount: two partitions of one disk are one drive', async () => {
    const world = await worldOn(...partitionedDrive(station.root, 'one disk'))
    const { copies, clear } = await world.copies()
    expect(copies.map((copy) => copy.mark)).toEqual([3, 2])
    expect(copies.map((copy) => copy.sharesDriveWith.length)).toEqual([1, 1])
    expect(clear.clear).toBe(false)
  })

  it.skipIf(!canMount)(
    'needs root to mount: what may have been read from memory is copied, not verified, unless the rule accepts it',
    async () => {
      const world = await worldOn(memoryDrive(station.root, 'memory'), loopDrive(station.root, 'loop 3'))
      expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([1, 2])
      const answer = await words(world)
      expect(answer.clear).toBe(false)
      expect(answer.words).toContain('perhaps not from the medium')
      const asBefore = await usually(station, { acceptMemory: true })
      expect((await world.copies()).copies.map((copy) => copy.mark)).toEqual([3, 2])
      expect(await words(world)).toMatchObject({
        clear: true,
        words: expect.stringContaining('which your rule accepts'),
      })
      await asBefore()
      const copy = await world.copy()
      expect(copy.sentence).toContain('perhaps not from the medium')
    },
  )
})

describe.skipIf(!canMount)('a mount that comes between two files (needs root to mount)', () => {
  it('is seen by the kernel’s own word on where an open file lies', async () => {
    const [root, other] = ['a drive', 'somewhere else'].map((name) => join(station.root, name)) as [string, string]
    for (const folder of [root, other]) {
      mkdirSync(join(folder, 'DCIM'), { recursive: true })
      writeFileSync(join(folder, 'DCIM/CURL0001.MP4'), folder)
    }
    const medium = new FolderMedium(root)
    const clip = Buffer.from('DCIM/CURL0001.MP4')
    // Everything that the medium remembers for a while is fresh now.
    await (await medium.open(clip)).close()
    bind(join(other, 'DCIM'), join(root, 'DCIM'))
    await expect(medium.open(clip)).rejects.toThrow('mounted')
  })
})
