import { constants, existsSync, readdirSync, readFileSync, realpathSync } from 'node:fs'
import { lstat, open, readdir, readFile, realpath, stat } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { NAMED_DISK, type DeviceIdentity } from '../../../core/copies/device'
import type { Medium } from '../../../core/copies/medium'
import { loopsApart } from '../../home'
import { busOf } from './bus'
import { mountIdOf, mounts } from './mounts'

/** Major and minor number as Linux packs them into a device number (glibc's `gnu_dev_major` and `gnu_dev_minor`). */
const numbersOf = (dev: number): { major: number; minor: number } => {
  const wide = BigInt(dev)
  const major = ((wide >> 8n) & 0xfffn) | ((wide >> 32n) & ~0xfffn)
  const minor = (wide & 0xffn) | ((wide >> 12n) & ~0xffn)
  return { major: Number(major), minor: Number(minor & 0xffffffffn) }
}

/**
 * The device that a folder stands on. A partition is its disk, a mapped or joined device is the disks below it
 * (`slaves` of the system's block device tree), a loop device is the disk that its image lies on. Memory, network
 * shares and pools have no block device: their file system is all that is known. Rejects when the folder is not there.
 */
export async function deviceOf(root: string): Promise<DeviceIdentity> {
  const given = testIdentity(root)
  if (given) return { fileSystem: given, disks: [given], known: true, pastCache: true }
  const { dev } = await lstat(root)
  const fileSystem = `fs:${dev}`
  const { type, source } = await mountOf(root)
  // Memory is one device however often it is mounted.
  if (MEMORY.has(type)) return { fileSystem, disks: [MEMORY_DISK], known: true, pastCache: false }
  const block = (await blockOf(dev)) ?? (await blockOfNode(source))
  if (block === undefined) return { fileSystem, disks: [], known: false, pastCache: false }
  const [below, bus, writeProtected, medium] = await Promise.all([
    type === 'btrfs' ? disksOfPool(block) : disksBelow(block),
    busOf(block),
    isWriteProtected(block),
    keptOn(block),
  ])
  // Of a pool only one disk is named where it is mounted: several may be of several kinds.
  const told = type === 'btrfs' && below.disks.length > 1 ? undefined : medium
  const pastCache = !type.startsWith('fuse') && !below.disks.includes(MEMORY_DISK)
  return {
    fileSystem,
    ...below,
    pastCache,
    ...(bus.length > 0 && { bus }),
    ...(told && { medium: told }),
    ...(writeProtected && { writeProtected }),
  }
}

/**
 * Whether the kernel takes no write for a block device: a card whose switch is on. Source: blockdev(8) of util-linux,
 * `--getro`.
 */
const isWriteProtected = async (block: string): Promise<boolean> => (await lineOf(join(block, 'ro'))) === '1'

/**
 * What the disks below a block device keep their bytes on; `undefined` where the kernel does not tell, or they differ.
 * That it rotates is taken from no USB disk and from none of a virtual machine: of those that say nothing the kernel
 * takes it for granted. Source: Documentation/ABI/stable/sysfs-block of Linux (`queue/rotational`, `removable`); what
 * those drivers take for granted is from memory.
 */
export async function keptOn(block: string): Promise<Medium | undefined> {
  const below = await readdir(join(block, 'slaves')).catch(() => [])
  if (below.length > 0) {
    const kinds = await Promise.all(below.map(async (name) => keptOn(await realpath(join(block, 'slaves', name)))))
    return kinds.every((one) => one === kinds[0]) ? kinds[0] : undefined
  }
  const whole = wholeOf(block)
  if (/^(loop|zram|ram)/.test(basename(whole))) return undefined
  if (basename(whole).startsWith('mmcblk') || (await lineOf(join(whole, 'removable'))) === '1') return 'flash'
  const rotates = await lineOf(join(whole, 'queue/rotational'))
  if (rotates === '0') return 'solid-state'
  return rotates === '1' && !/\/(usb|virtio)\d/.test(whole) ? 'disk' : undefined
}

/**
 * The numbers that the kernel gives anew to each medium in a drive, of the disks below a file system; `''` where there
 * is no block device, or a kernel before 5.15. Source: Documentation/ABI/stable/sysfs-block of Linux (`diskseq`).
 */
export async function mediumNumber(root: string): Promise<string> {
  const { dev } = await lstat(root)
  const { major, minor } = numbersOf(dev)
  const own = `/sys/dev/block/${major}:${minor}`
  const block = existsSync(own) ? realpathSync.native(own) : await blockOfNode((await mountOf(root)).source)
  return block === undefined ? '' : numbersBelow(block)
}

/**
 * Other places where something of the same disks is mounted; none where the system does not tell which disks they are.
 */
export async function alsoMounted(root: string): Promise<string[]> {
  const own = new Set((await mediumNumber(root)).split('+').filter((number) => number !== ''))
  const found: string[] = []
  for (const { path, device, source } of mounts()) {
    if (path === root) continue
    const block = (await realpath(`/sys/dev/block/${device}`).catch(() => undefined)) ?? (await blockOfNode(source))
    if (
      block !== undefined &&
      numbersBelow(block)
        .split('+')
        .some((number) => own.has(number))
    )
      found.push(path)
  }
  return found
}

/** Whether the medium below a folder has such a number, so that another one in its place is noticed. */
export const numberedMedium = async (root: string): Promise<boolean> => (await mediumNumber(root)) !== ''

/** What is mounted where a folder lies. */
export const mountedFrom = async (root: string): Promise<string> => (await mountOf(root)).source

/** The disk that a partition is a part of; anything else is itself. */
const wholeOf = (block: string): string => (existsSync(join(block, 'partition')) ? dirname(block) : block)

/** All of it is the kernel’s memory: nothing is waited for. */
function numbersBelow(block: string): string {
  const slaves = join(block, 'slaves')
  const below = existsSync(slaves) ? readdirSync(slaves) : []
  if (below.length > 0) return below.map((name) => numbersBelow(realpathSync.native(join(slaves, name)))).join('+')
  const whole = wholeOf(block)
  const file = join(whole, 'diskseq')
  return existsSync(file) ? `${basename(whole)}#${readFileSync(file, 'utf8').trim()}` : ''
}

/** File systems on which two files may share bytes until one is changed. Source: ioctl_ficlone(2) of Linux. */
const SHARING = new Set(['btrfs', 'xfs', 'bcachefs', 'ocfs2'])
/** File systems of cards and sticks, and of shares, on which a file has one name. From memory. */
const ONE_NAME = new Set(['vfat', 'msdos', 'exfat', 'fuse.exfat', 'cifs', 'smb3', '9p'])

/** Whether files below a folder can share bytes, have a second name, or neither. */
export async function linksOf(root: string): Promise<'reflink' | 'hard' | 'none'> {
  const { type } = await mountOf(root)
  return SHARING.has(type) ? 'reflink' : ONE_NAME.has(type) ? 'none' : 'hard'
}

const MEMORY = new Set(['tmpfs', 'ramfs'])
const MEMORY_DISK = 'memory'

const blockOf = (dev: number): Promise<string | undefined> => {
  const { major, minor } = numbersOf(dev)
  return realpath(`/sys/dev/block/${major}:${minor}`).catch(() => undefined)
}

/** File systems with numbers of their own name the device they are mounted from. */
async function blockOfNode(path: string): Promise<string | undefined> {
  if (!path.startsWith('/dev/')) return undefined
  const stats = await stat(path).catch(() => undefined)
  return stats?.isBlockDevice() ? blockOf(stats.rdev) : undefined
}

/**
 * Type and source of the file system that a folder lies on: its mount as the kernel numbers it, since the numbers of
 * some file systems (btrfs) are others in the list of mounts than in what is said of a file. Rejects when the folder is
 * not there.
 */
export async function mountOf(root: string): Promise<{ readonly type: string; readonly source: string }> {
  const folder = await open(root, constants.O_RDONLY | constants.O_DIRECTORY)
  try {
    const id = mountIdOf(folder.fd)
    return mounts().find((mount) => mount.id === id) ?? { type: '', source: '' }
  } finally {
    await folder.close()
  }
}

type Below = Pick<DeviceIdentity, 'disks' | 'known'>

/**
 * The whole disks below a block device, by its folder in the system’s tree; not known where one of them cannot be told.
 */
export async function disksBelow(block: string): Promise<Below> {
  const below = await readdir(join(block, 'slaves')).catch(() => [])
  if (below.length > 0) {
    const nested = await Promise.all(below.map(async (name) => disksBelow(await realpath(join(block, 'slaves', name)))))
    return {
      disks: [...new Set(nested.flatMap((one) => one.disks))].sort(),
      known: nested.every((one) => one.known),
    }
  }
  const whole = wholeOf(block)
  const image = await lineOf(join(whole, 'loop/backing_file'))
  if (image !== '' && !loopsApart()) return disksOfImage(image)
  return { disks: [await lastingMark(whole)], known: true }
}

const POOLS = '/sys/fs/btrfs'

/**
 * A pool may lie on several disks, of which only one is named where it is mounted. Source: btrfs(5), sysfs interface.
 */
async function disksOfPool(block: string): Promise<Below> {
  for (const pool of await readdir(POOLS).catch((): string[] => [])) {
    const devices = await readdir(join(POOLS, pool, 'devices')).catch((): string[] => [])
    if (!devices.includes(basename(block))) continue
    const all = await Promise.all(
      devices.map(async (name) => disksBelow(await realpath(join(POOLS, pool, 'devices', name)))),
    )
    return { disks: [...new Set(all.flatMap((one) => one.disks))].sort(), known: all.every((one) => one.known) }
  }
  return disksBelow(block)
}

/**
 * The disks that a disk image lies on; nothing is known of one that was deleted, or that lies on a share or behind a
 * program. Source: Documentation/ABI/testing/sysfs-block-loop of Linux (`backing_file`).
 */
async function disksOfImage(image: string): Promise<Below> {
  const stats = await lstat(image).catch(() => undefined)
  const folder = stats && dirname(image)
  const { type } = folder ? await mountOf(folder) : { type: '' }
  if (folder === undefined || type.startsWith('fuse')) return { disks: [], known: false }
  const { disks, known } = await deviceOf(folder)
  return { disks, known }
}

/** Files in which the system tells one disk from all others, in its own folder (NVMe, SCSI and ATA, memory cards). */
const MARKS = ['wwid', 'device/cid', 'device/wwid', 'device/serial'] as const

const lineOf = async (path: string) => (await readFile(path, 'utf8').catch(() => '')).trim()

/**
 * What tells a disk from others wherever it is plugged in; its name of today where it has no such mark. The number of a
 * USB device is that of the drive only when its medium cannot be taken out: a card reader is not the card in it.
 */
async function lastingMark(disk: string): Promise<string> {
  for (const mark of MARKS) {
    const text = await lineOf(join(disk, mark))
    if (text !== '') return `${basename(mark)}:${text}`
  }
  const removable = (await lineOf(join(disk, 'removable'))) === '1'
  for (let folder = dirname(disk), height = 0; !removable && height < 9; folder = dirname(folder), height += 1) {
    if ((await lineOf(join(folder, 'idVendor'))) === '') continue
    const serial = await lineOf(join(folder, 'serial'))
    const unit = basename(await realpath(join(disk, 'device')).catch(() => ''))
      .split(':')
      .at(-1)
    if (serial !== '') return `usb:${serial}:${unit ?? ''}`
    break
  }
  return `${NAMED_DISK}${basename(disk)}`
}

/** Tests name devices in a file; people have no use for it. */
function testIdentity(root: string): string | undefined {
  const file = process.env.YENDRA_TEST_DEVICES
  if (!file || !existsSync(file)) return undefined
  const named = JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>
  return named[root]
}
