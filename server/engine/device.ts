import { existsSync, readFileSync } from 'node:fs'
import { lstat, readdir, readFile, realpath, stat } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { NAMED_DISK, type DeviceIdentity } from '../../core/copies/device'
import { busOf } from './bus'

/** Major and minor number as Linux packs them into a device number (glibc's `gnu_dev_major` and `gnu_dev_minor`). */
const numbersOf = (dev: number): { major: number; minor: number } => {
  const wide = BigInt(dev)
  const major = ((wide >> 8n) & 0xfffn) | ((wide >> 32n) & ~0xfffn)
  const minor = (wide & 0xffn) | ((wide >> 12n) & ~0xffn)
  return { major: Number(major), minor: Number(minor & 0xffffffffn) }
}

/**
 * The device that a folder stands on. A partition is its disk, a mapped or joined device is the disks below it
 * (`slaves` of the system's block device tree), a loop device is its own. Memory, network shares and pools have no
 * block device: their file system is all that is known. Rejects when the folder is not there.
 */
export async function deviceOf(root: string): Promise<DeviceIdentity> {
  const given = testIdentity(root)
  if (given) return { fileSystem: given, disks: [given], known: true, pastCache: true }
  const { dev } = await lstat(root)
  const fileSystem = `fs:${dev}`
  const { type, source } = await mountOf(dev)
  // Memory is one device however often it is mounted.
  if (MEMORY.has(type)) return { fileSystem, disks: ['memory'], known: true, pastCache: false }
  const block = (await blockOf(dev)) ?? (source.startsWith('/dev/') ? await blockOfNode(source) : undefined)
  if (block === undefined) return { fileSystem, disks: [], known: false, pastCache: false }
  const [disks, bus] = await Promise.all([disksBelow(block), busOf(block)])
  return { fileSystem, disks, known: true, pastCache: !type.startsWith('fuse'), ...(bus.length > 0 && { bus }) }
}

/** File systems on which two files may share bytes until one is changed. Source: ioctl_ficlone(2) of Linux. */
const SHARING = new Set(['btrfs', 'xfs', 'bcachefs', 'ocfs2'])
/** File systems of cards and sticks, and of shares, on which a file has one name. From memory. */
const ONE_NAME = new Set(['vfat', 'msdos', 'exfat', 'fuse.exfat', 'cifs', 'smb3', '9p'])

/** Whether files below a folder can share bytes, have a second name, or neither. */
export async function linksOf(root: string): Promise<'reflink' | 'hard' | 'none'> {
  const { type } = await mountOf((await lstat(root)).dev)
  return SHARING.has(type) ? 'reflink' : ONE_NAME.has(type) ? 'none' : 'hard'
}

const MEMORY = new Set(['tmpfs', 'ramfs'])

const blockOf = (dev: number): Promise<string | undefined> => {
  const { major, minor } = numbersOf(dev)
  return realpath(`/sys/dev/block/${major}:${minor}`).catch(() => undefined)
}

/** File systems with numbers of their own name the device they are mounted from. */
async function blockOfNode(path: string): Promise<string | undefined> {
  const stats = await stat(path).catch(() => undefined)
  return stats?.isBlockDevice() ? blockOf(stats.rdev) : undefined
}

/** Type and source of a file system, by the kernel's list of mounts (proc(5), mountinfo). */
export async function mountOf(dev: number): Promise<{ type: string; source: string }> {
  const { major, minor } = numbersOf(dev)
  const mounts = await readFile('/proc/self/mountinfo', 'utf8').catch(() => '')
  for (const line of mounts.split('\n')) {
    const [before, after] = line.split(' - ')
    if (before?.split(' ')[2] !== `${major}:${minor}`) continue
    const [type = '', source = ''] = after?.split(' ') ?? []
    return { type, source }
  }
  return { type: '', source: '' }
}

/** The whole disks below a block device, by its folder in the system’s tree. */
export async function disksBelow(block: string): Promise<string[]> {
  const below = await readdir(join(block, 'slaves')).catch(() => [])
  if (below.length > 0) {
    const nested = await Promise.all(below.map(async (name) => disksBelow(await realpath(join(block, 'slaves', name)))))
    return [...new Set(nested.flat())].sort()
  }
  const whole = existsSync(join(block, 'partition')) ? dirname(block) : block
  return [await lastingMark(whole)]
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
