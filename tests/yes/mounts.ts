import { execFileSync } from 'node:child_process'
import { closeSync, existsSync, mkdirSync, openSync, truncateSync } from 'node:fs'
import { join } from 'node:path'

/** Mounting needs root, and the tools of Debian's base system. */
export const canMount =
  process.getuid?.() === 0 &&
  ['/dev/loop-control', '/sbin/mkfs.ext4', '/sbin/losetup'].every((path) => existsSync(path))

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
  const device = run('losetup', '-f', '--show', image)
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
