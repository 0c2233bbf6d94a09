import { execFileSync } from 'node:child_process'
import { closeSync, existsSync, mkdirSync, openSync, truncateSync, writeSync } from 'node:fs'
import { join } from 'node:path'

/** Mounting needs root, and the tools of Debian's base system. */
export const canMount = process.getuid?.() === 0 && existsSync('/dev/loop-control')

const undo: (() => void)[] = []
const run = (program: string, ...args: string[]) => execFileSync(program, args, { encoding: 'utf8' }).trim()

/** Takes everything down that was mounted, the last first. */
export function unmountAll(): void {
  for (const step of undo.splice(0).reverse()) step()
}

function mount(what: string[], at: string): string {
  mkdirSync(at, { recursive: true })
  run('mount', ...what, at)
  undo.push(() => run('umount', '-l', at))
  return at
}

function loop(image: string): string {
  const device = run('losetup', '-fP', '--show', image)
  undo.push(() => run('losetup', '-d', device))
  return device
}

function imageFile(folder: string, name: string, sizeBytes: number): string {
  const image = join(folder, `${name}.img`)
  closeSync(openSync(image, 'w'))
  truncateSync(image, sizeBytes)
  return image
}

/** A file system of its own on a loop device of its own. */
export function loopDrive(folder: string, name: string): string {
  const device = loop(imageFile(folder, name, 64 * 1024 ** 2))
  run('mkfs.ext4', '-q', '-F', device)
  return mount([device], join(folder, name))
}

export const memoryDrive = (folder: string, name: string): string =>
  mount(['-t', 'tmpfs', '-o', 'size=64m', 'tmpfs'], join(folder, name))

/** Two file systems on two partitions of one device (master boot record: entries of 16 bytes from byte 446, 0x55aa at 510). */
export function twoPartitions(folder: string): [string, string] {
  const image = imageFile(folder, 'disk', 128 * 1024 ** 2)
  const record = Buffer.alloc(512)
  const sectors = (60 * 1024 ** 2) / 512
  for (const [at, first] of [2048, 2048 + sectors].entries()) {
    record[446 + at * 16 + 4] = 0x83
    record.writeUInt32LE(first, 446 + at * 16 + 8)
    record.writeUInt32LE(sectors, 446 + at * 16 + 12)
  }
  record.writeUInt16BE(0x55aa, 510)
  const handle = openSync(image, 'r+')
  writeSync(handle, record, 0, 512, 0)
  closeSync(handle)
  const device = loop(image)
  return [1, 2].map((number) => {
    run('mkfs.ext4', '-q', '-F', `${device}p${number}`)
    return mount([`${device}p${number}`], join(folder, `partition ${number}`))
  }) as [string, string]
}
