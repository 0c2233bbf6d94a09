import { execFileSync } from 'node:child_process'
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, truncateSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'

/** Mounting needs root, and the tools of Debian's base system. */
export const canMount =
  process.getuid?.() === 0 &&
  ['/dev/loop-control', '/sbin/mkfs.ext4', '/sbin/losetup'].every((path) => existsSync(path))

/**
 * One of the tests that run side by side changes loop devices at a time: a free number would be taken by another one.
 */
const LOOPS = '/tmp/yendra-loops.lock'

const undo: (() => void)[] = []
const run = (program: string, ...args: string[]) => execFileSync(program, args, { encoding: 'utf8' }).trim()

/** Partitions are told to the kernel by a program of util-linux. */
export const canPartition = canMount && existsSync('/usr/bin/addpart')

/** Takes everything down that was mounted, the last first. */
export function unmountAll(): void {
  for (const step of undo.splice(0).reverse()) step()
}

function mount(what: string[], at: string): string {
  mkdirSync(at, { recursive: true })
  run('mount', ...what, at)
  undo.push(() => run('sh', '-c', 'mountpoint -q "$1" && umount -l "$1" || true', 'sh', at))
  return at
}

function loop(image: string, ...options: string[]): string {
  const device = run('flock', '-o', LOOPS, 'losetup', ...options, '-f', '--show', image)
  undo.push(() => run('sh', '-c', 'losetup -d "$1" 2>/dev/null || true', 'sh', device))
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

/** A card with its switch on: the kernel takes no write for it. */
export function protectedCard(folder: string, name: string, fill: (at: string) => void): string {
  const image = filledImage(folder, name, fill)
  return mount(['-o', 'ro', loop(image, '-r')], join(folder, name))
}

/** One on which files can share their bytes (XFS, of Debian’s xfsprogs; 300 MiB are the least it takes). */
export function sharingDrive(folder: string, name: string): string {
  const device = loop(imageFile(folder, name, 320 * 1024 ** 2))
  run('mkfs.xfs', '-q', device)
  return mount([device], join(folder, name))
}
export const canShare = canMount && existsSync('/sbin/mkfs.xfs')

/** Takes a drive out: what was mounted there is gone, and its image stays for another time. */
export const takeOut = (at: string): string => run('umount', '-l', at)

/** Mounts the image of a drive again, at the same place or another. */
export const putIn = (folder: string, name: string, at: string): string =>
  mount([loop(join(folder, `${name}.img`))], at)

/** Sectors of a partition, 512 bytes each: 30 MiB. */
const PARTITION = 61_440

/** Waits a little for whoever still lists something there; a partition that is not there is dropped already. */
function dropPartition(disk: string, number: number): void {
  const script =
    'for n in 1 2 3 4 5 6 7 8; do [ -e "$1" ] || exit 0; delpart "$2" "$3" 2>/dev/null && exit 0; sleep 0.5; done'
  const at = `/sys/class/block/${basename(disk)}p${number}`
  execFileSync('sh', ['-c', script, 'sh', at, disk, String(number)])
}

/** Two file systems on two partitions of one disk, by the kernel itself (addpart of util-linux). */
export function partitionedDrive(folder: string, name: string): [string, string] {
  const disk = loop(imageFile(folder, name, 80 * 1024 ** 2))
  const mounted = [1, 2].map((number) => {
    const start = 2048 + (number - 1) * (PARTITION + 2048)
    // What a run that was killed left on this device is in nobody's use any more.
    dropPartition(disk, number)
    run('addpart', disk, String(number), String(start), String(PARTITION))
    undo.push(() => dropPartition(disk, number))
    const partition = `${disk}p${number}`
    const [major = '', minor = ''] = readFileSync(`/sys/class/block/${basename(partition)}/dev`, 'utf8')
      .trim()
      .split(':')
    // Where nobody makes device files by themselves.
    if (!existsSync(partition)) run('mknod', partition, 'b', major, minor)
    run('mkfs.ext4', '-q', '-F', partition)
    return mount([partition], join(folder, `${name} ${number}`))
  })
  return [mounted[0] ?? '', mounted[1] ?? '']
}

export const memoryDrive = (folder: string, name: string): string =>
  mount(['-t', 'tmpfs', '-o', 'size=64m', 'tmpfs'], join(folder, name))

/** A file system on an image that is there already, made on it. */
export function imageDrive(image: string, at: string): string {
  const device = loop(image)
  run('mkfs.ext4', '-q', '-F', device)
  return mount([device], at)
}

/** Shows a folder at another place as well, as `mount --bind` does. */
export const bind = (from: string, to: string): string => mount(['--bind', from], to)

/** A card of today: exFAT, served by a program (exfat-fuse of Debian), with times of 10 ms and no numbers of files. */
export function exfatDrive(folder: string, name: string): string {
  const device = loop(imageFile(folder, name, 64 * 1024 ** 2))
  run('mkfs.exfat', device)
  return mountExfat(device, join(folder, name))
}
export const canExfat = canMount && existsSync('/usr/sbin/mkfs.exfat') && existsSync('/usr/sbin/mount.exfat-fuse')

function mountExfat(device: string, at: string): string {
  mkdirSync(at, { recursive: true })
  run('mount.exfat-fuse', device, at)
  undo.push(() => run('sh', '-c', 'mountpoint -q "$1" && umount -l "$1" || true', 'sh', at))
  return at
}

/** A file system of pools, snapshots and subvolumes (btrfs-progs of Debian; 110 MiB are the least it takes). */
export function btrfsDrive(folder: string, name: string): string {
  const device = loop(imageFile(folder, name, 128 * 1024 ** 2))
  run('mkfs.btrfs', '-q', device)
  return mount([device], join(folder, name))
}
export const canBtrfs = canMount && existsSync('/usr/sbin/mkfs.btrfs')

/**
 * A medium in a slot: an image that can be changed for another within a moment, at one place and under one device
 * number.
 */
export class Slot {
  readonly #device: string
  /** What keeps the device number while the slot is empty. */
  readonly #nothing: string

  constructor(
    readonly at: string,
    image: string,
    /** What mounts it: the kernel, or a program that serves the file system. */
    readonly program: 'mount' | 'mount.exfat-fuse' = 'mount',
  ) {
    this.#nothing = imageFile(dirname(at), `${basename(at)} nothing`, 1024 ** 2)
    this.#device = loop(image)
    mkdirSync(at, { recursive: true })
    undo.push(() => run('sh', '-c', 'mountpoint -q "$1" && umount -l "$1" || true', 'sh', at))
    this.#sh('"$4" "$2" "$1"')
  }

  /** Shell text in which `$1` is the place, `$2` the device, `$3` an image and `$4` the program that mounts. */
  #sh(script: string, image = this.#nothing): void {
    run('flock', '-o', LOOPS, 'sh', '-ec', script, 'sh', this.at, this.#device, image, this.program)
  }

  /** Takes the medium out and puts another one, or the same, in. */
  change(image: string): void {
    this.#sh(`${DETACH}; ${OTHER}; "$4" "$2" "$1"`, image)
  }

  out(): void {
    this.#sh(`${DETACH}; ${OTHER}`)
  }

  /** As somebody pulls it, whoever reads from it. */
  outAtOnce(): void {
    // Its number is free when the last reader of it gives up.
    this.#sh(`umount -l "$1"; { ${OTHER}; } || true`)
  }

  putIn(image: string): void {
    this.#sh(`${OTHER}; "$4" "$2" "$1"`, image)
  }

  /** It is needed no more. */
  end(): void {
    this.#sh(`${DETACH}; losetup -d "$2"`)
  }
}

/** Whoever looks at it just now is done in a moment, and so is a program that served the medium. */
const DETACH =
  'for n in 1 2 3 4 5 6 7 8 9; do umount "$1" 2>/dev/null && break; sleep 0.2; [ $n = 9 ] && umount "$1"; done'
const OTHER =
  '{ losetup -d "$2" 2>/dev/null || true; }; for n in 1 2 3 4 5 6 7 8 9; do losetup "$2" "$3" 2>/dev/null && break; sleep 0.2; [ $n = 9 ] && losetup "$2" "$3"; done'

/** An image with an ext4 file system that `fill` writes on. */
export function filledImage(folder: string, name: string, fill: (at: string) => void): string {
  const image = imageFile(folder, name, 96 * 1024 ** 2)
  run('mkfs.ext4', '-q', '-F', image)
  const at = join(folder, `${name} filling`)
  const slot = new Slot(at, image)
  fill(at)
  slot.end()
  return image
}
