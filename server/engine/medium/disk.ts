import { execFile } from 'node:child_process'
import * as calls from 'node:fs'
import { constants } from 'node:fs'
import * as fs from 'node:fs/promises'
import { promisify } from 'node:util'
import type { DeviceIdentity } from '../../../core/copies/device'
import { deviceOf, mediumNumber } from './device'
import type { FileStats } from './fileStats'
import { findTree } from './find'
import { deviceError, errorCode, parentOf, type SmallFile, type SmallRead, type Stamps, type TreeEntry } from './medium'
import { mountedNow, mountIdOf, mountOnTheWay, mountTable, notOfThisMedium } from './mounts'
import { liesAt, linkOnTheWay } from './openHere'
import { smallReaders } from './smallFiles'
import { stampsAt } from './stamps'

const run = promisify(execFile)

/**
 * The calls that are made for every file of a card: on bare descriptors they cost half of what they do on file handles.
 */
const call = {
  open: promisify(calls.open),
  close: promisify(calls.close),
  read: promisify(calls.read),
  write: promisify(calls.write),
  sync: promisify(calls.fsync),
  utimes: promisify(calls.futimes),
  stat: promisify(calls.fstat),
  lstat: promisify(calls.lstat),
  link: promisify(calls.link),
  unlink: promisify(calls.unlink),
}

/** An open file of a disk. */
export interface DiskFile {
  read(block: Uint8Array, offset: number, length: number, position: number): Promise<{ bytesRead: number }>
  write(block: Uint8Array, offset: number, length: number, position: number): Promise<{ bytesWritten: number }>
  sync(): Promise<void>
  utimes(accessedSeconds: number, modifiedSeconds: number): Promise<void>
  stat(): Promise<FileStats>
  close(): Promise<void>
}

/**
 * The calls of the system that a folder medium makes, so that tests can put a disk with a power switch in their place.
 */
export interface Disk {
  open(path: Buffer, flags: number, mode?: number): Promise<DiskFile>
  lstat(path: Buffer): Promise<FileStats>
  readdir(path: Buffer): Promise<Buffer[]>
  /** Everything below a folder at once, where there is a quick way. */
  tree?(path: Buffer): Promise<TreeEntry[] | undefined>
  /** Many small files at once, by threads; where that is possible. */
  readSmall?(files: readonly SmallFile[]): Promise<readonly SmallRead[]>
  readlink(path: Buffer): Promise<Buffer>
  mkdir(path: Buffer): Promise<void>
  link(from: Buffer, to: Buffer): Promise<void>
  /** A file of its own that shares the bytes of another, with its time; fails where the file system cannot. */
  clone(from: Buffer, to: Buffer): Promise<void>
  unlink(path: Buffer): Promise<void>
  rename(from: Buffer, to: Buffer): Promise<void>
  /** Removes a file or a whole folder; nothing there is no error. */
  remove(path: Buffer): Promise<void>
  /** Waits until everything written to the file system of this folder is on its medium. */
  syncFileSystem(folder: string): Promise<void>
  statfs(folder: string): Promise<{ blocks: number; bsize: number; bavail: number }>
  device(root: string): Promise<DeviceIdentity>
  /** What its file system tells of a file beside size and time. */
  stamps(root: string): Promise<Stamps>
  /** Places below the root where other file systems are mounted; path bytes, one a character. */
  mounted(): readonly string[]
  /** Another one whenever another folder, mount or medium stands at the root. */
  place(root: string): Promise<string>
}

/** How long a folder passes for one without links and mounts on its way, and the volume for the same. */
const TRUSTED_MS = 1000

const volumeGone = () => deviceError('ENODEV', 'The volume went away, or another one came in its place.')

/**
 * The calls of the system for what lies below one folder. A path that leads through a link is refused with `ELOOP`, one
 * that leads into another mount with `EXDEV`, whatever is asked; `root` itself must be a real path. It belongs to the
 * volume that it met first: once another one stands at the root, or none, it answers `ENODEV`, and calls nothing gone.
 */
export class RealDisk implements Disk {
  readonly #trusted = new Map<string, number>()
  #mounted: readonly string[] = []
  #mountedUntil = 0
  #first: { readonly place: string; readonly mountId: number | undefined } | undefined
  #sameUntil = 0
  #table = ''

  constructor(readonly root: string) {}

  mounted(): readonly string[] {
    if (this.#mountedUntil < performance.now()) {
      this.#mounted = mountedNow(this.root)
      this.#mountedUntil = performance.now() + TRUSTED_MS
    }
    return this.#mounted
  }

  /** Looks anew which mounts lie below the root. */
  #mountedNow(): readonly string[] {
    this.#mountedUntil = 0
    return this.mounted()
  }

  #relative(path: Buffer): string {
    return path.subarray(Buffer.byteLength(this.root) + 1).toString('latin1')
  }

  /** Throws when a path leads into another mount. */
  #assertOwn(path: Buffer): void {
    const places = this.mounted()
    if (places.length === 0) return
    const place = mountOnTheWay(this.#relative(path), places)
    if (place !== undefined) throw notOfThisMedium(place)
  }

  async #look(root: string): Promise<{ place: string; mountId: number | undefined }> {
    const fd = await call.open(root, constants.O_RDONLY | constants.O_DIRECTORY)
    try {
      const { dev, ino } = await call.stat(fd)
      const mountId = mountIdOf(fd)
      return { place: `${dev}:${ino}:${mountId ?? ''}:${await mediumNumber(root)}`, mountId }
    } finally {
      await call.close(fd)
    }
  }

  /** Throws where another volume stands at the root than at first; the mount that it lies on. */
  async #assertSame(): Promise<number | undefined> {
    // Read before: what is mounted while it is looked is looked at again.
    const table = mountTable()
    const now = await this.#look(this.root).catch((error: unknown) => {
      throw this.#first && ['ENOENT', 'ENOTDIR'].includes(errorCode(error)) ? volumeGone() : error
    })
    this.#first ??= now
    if (now.place !== this.#first.place) throw volumeGone()
    this.#sameUntil = performance.now() + TRUSTED_MS
    this.#table = table
    return now.mountId
  }

  /** The same, as of a moment ago. */
  async #sameMount(): Promise<number | undefined> {
    return this.#sameUntil < performance.now() ? this.#assertSame() : this.#first?.mountId
  }

  /** The same, as of now: nothing was mounted or unmounted since, by what the kernel knows from memory. */
  async #sameNow(): Promise<number | undefined> {
    return mountTable() === this.#table ? this.#sameMount() : this.#assertSame()
  }

  /** What is not there is not there only while its volume is. */
  readonly #unlessGone = async (error: unknown): Promise<never> => {
    if (['ENOENT', 'ENOTDIR'].includes(errorCode(error))) await this.#sameNow()
    throw error
  }

  /**
   * Throws when there is a link or a mount on the way to a folder; one that is not there is left to the call itself.
   */
  async #trust(folder: Buffer): Promise<void> {
    if (folder.length <= Buffer.byteLength(this.root)) return
    const key = folder.toString('latin1')
    if ((this.#trusted.get(key) ?? 0) > performance.now()) return
    this.#assertOwn(folder)
    const real = await fs.realpath(folder, { encoding: 'buffer' }).catch(() => undefined)
    if (real === undefined) return
    if (!real.equals(folder)) throw linkOnTheWay()
    this.#trusted.set(key, performance.now() + TRUSTED_MS)
  }

  async open(path: Buffer, flags: number, mode?: number): Promise<DiskFile> {
    // Nothing may be made or emptied behind a link before it is noticed.
    if ((flags & (constants.O_CREAT | constants.O_TRUNC)) !== 0) await this.#trust(parentOf(path))
    const own = await ((flags & constants.O_CREAT) !== 0 ? this.#sameNow() : this.#sameMount())
    const fd = await call.open(path, flags | constants.O_NOFOLLOW, mode).catch(this.#unlessGone)
    // The kernel itself says on which mount the open file lies: a mount that came in this very moment is seen too.
    const isOwn = mountIdOf(fd) === own
    if (isOwn && liesAt(fd, path)) return new OpenFile(fd)
    await call.close(fd)
    if (isOwn) throw linkOnTheWay()
    await this.#assertSame()
    throw notOfThisMedium(mountOnTheWay(this.#relative(path), this.#mountedNow()) ?? '')
  }

  async readSmall(files: readonly SmallFile[]): Promise<readonly SmallRead[]> {
    return smallReaders.read({ files, mountId: await this.#sameMount() })
  }

  async lstat(path: Buffer): Promise<FileStats> {
    await this.#sameMount()
    await this.#trust(parentOf(path))
    this.#assertOwn(path)
    return call.lstat(path).catch(this.#unlessGone)
  }

  async readdir(path: Buffer): Promise<Buffer[]> {
    await this.#trust(path)
    return fs.readdir(path, { encoding: 'buffer' })
  }

  async tree(path: Buffer): Promise<TreeEntry[] | undefined> {
    await this.#trust(path)
    for (let turn = 0; turn < 3; turn += 1) {
      const before = this.#mountedNow()
      const tree = await findTree(path)
      if (this.#mountedNow().join('\0') !== before.join('\0')) continue
      return tree && withoutMounts(tree, path.subarray(Buffer.byteLength(this.root) + 1), before)
    }
    throw deviceError('EBUSY', 'Something is being mounted or unmounted there. Try again in a moment.')
  }

  readlink = (path: Buffer): Promise<Buffer> => fs.readlink(path, { encoding: 'buffer' })

  async mkdir(path: Buffer): Promise<void> {
    await this.#sameNow()
    await this.#trust(parentOf(path))
    await fs.mkdir(path)
  }

  async link(from: Buffer, to: Buffer): Promise<void> {
    await Promise.all([this.#trust(parentOf(from)), this.#trust(parentOf(to))])
    await call.link(from, to)
  }

  async clone(from: Buffer, to: Buffer): Promise<void> {
    await Promise.all([this.#trust(parentOf(from)), this.#trust(parentOf(to))])
    const { atime, mtime } = await fs.lstat(from)
    await fs.copyFile(from, to, constants.COPYFILE_FICLONE_FORCE | constants.COPYFILE_EXCL)
    await fs.utimes(to, atime, mtime)
  }

  async unlink(path: Buffer): Promise<void> {
    await this.#trust(parentOf(path))
    await call.unlink(path)
  }

  async rename(from: Buffer, to: Buffer): Promise<void> {
    await Promise.all([this.#trust(parentOf(from)), this.#trust(parentOf(to))])
    await fs.rename(from, to)
  }

  async remove(path: Buffer): Promise<void> {
    await this.#trust(parentOf(path))
    // Nothing is removed through a mount, wherever below it lies.
    const path1 = this.#relative(path)
    const inside = this.#mountedNow().find((place) => place === path1 || place.startsWith(`${path1}/`))
    if (inside !== undefined) throw notOfThisMedium(inside)
    await fs.rm(path, { force: true, recursive: true })
  }

  syncFileSystem = (folder: string): Promise<void> => run('sync', ['-f', folder]).then(() => undefined)
  statfs = (folder: string) => fs.statfs(folder)
  device = deviceOf
  stamps = stampsAt

  async place(root: string): Promise<string> {
    return (await this.#look(root)).place
  }
}

/** A mount point is there and no part of the medium: of what is below it nothing is listed. */
function withoutMounts(tree: TreeEntry[], folder: Buffer, mounted: readonly string[]): TreeEntry[] {
  if (mounted.length === 0) return tree
  const start = folder.length === 0 ? '' : `${folder.toString('latin1')}/`
  return tree.flatMap((entry) => {
    const path = start + entry.path.toString('latin1')
    const place = mountOnTheWay(path, mounted)
    if (place === undefined) return entry
    return place === path ? { ...entry, kind: 'special' as const, sizeBytes: 0 } : []
  })
}

const CLOSED = -1

/**
 * A descriptor that is closed once and never used again: the system gives its number to the next file that is opened.
 */
class OpenFile implements DiskFile {
  #fd: number

  constructor(fd: number) {
    this.#fd = fd
  }

  read(block: Uint8Array, offset: number, length: number, position: number): Promise<{ bytesRead: number }> {
    return call.read(this.#fd, block, offset, length, position)
  }

  write(block: Uint8Array, offset: number, length: number, position: number): Promise<{ bytesWritten: number }> {
    return call.write(this.#fd, block, offset, length, position)
  }

  sync = (): Promise<void> => call.sync(this.#fd)
  utimes = (accessedSeconds: number, modifiedSeconds: number): Promise<void> =>
    call.utimes(this.#fd, accessedSeconds, modifiedSeconds)
  stat = (): Promise<FileStats> => call.stat(this.#fd)

  async close(): Promise<void> {
    const fd = this.#fd
    this.#fd = CLOSED
    if (fd !== CLOSED) await call.close(fd)
  }
}
