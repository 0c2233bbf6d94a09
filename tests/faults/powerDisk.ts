import { constants } from 'node:fs'
import type { Disk, DiskFile } from '../../server/engine/medium/disk'
import type { FileStats } from '../../server/engine/medium/fileStats'
import { deviceError } from '../../server/engine/medium/medium'

/**
 * How a file system may look after the power went: whatever was not waited for may be gone, or its names may have
 * stayed without their data.
 */
export type Aftermath = 'only what was waited for' | 'names without data'

/** Lets the power go at one step; every call on any disk of a run is a step. */
export class Power {
  steps = 0
  goesAt = Infinity
  /** Steps by what they are, to see that a run made them. */
  readonly made: string[] = []

  step(what: string): void {
    this.steps += 1
    this.made.push(what)
    if (this.steps > this.goesAt) throw deviceError('EIO', 'The power is gone.')
  }
}

interface Inode {
  readonly number: number
  readonly kind: 'file' | 'folder'
  /** Of a file: what reading gives now, and what the medium holds. */
  data: Buffer
  durable: Buffer
  modifiedMs: number
  durableMs: number
  /** Of a folder: names now, and names on the medium. */
  names: Map<string, Inode>
  durableNames: Map<string, Inode>
}

let numbers = 0
const inode = (kind: Inode['kind']): Inode => ({
  number: (numbers += 1),
  kind,
  data: Buffer.alloc(0),
  durable: Buffer.alloc(0),
  modifiedMs: 0,
  durableMs: 0,
  names: new Map(),
  durableNames: new Map(),
})

const splitPath = (path: Buffer) => path.toString('latin1').split('/').filter(Boolean)

/**
 * A disk in memory that keeps what was made durable and may forget everything else: data of a file once it was
 * synced, a name once its folder was. After POSIX, fsync: "data … to be transferred to the storage device"; a new
 * name needs an fsync of its folder (fsync(2) of Linux, "Calling fsync() does not necessarily ensure that the entry in
 * the directory containing the file has also reached disk").
 */
export class PowerDisk implements Disk {
  #root = inode('folder')
  power: Power

  constructor(
    readonly device_: string,
    power: Power,
  ) {
    this.power = power
  }

  /** The power went: the disk comes back with what it held. */
  cut(aftermath: Aftermath): void {
    const keepNames = aftermath === 'names without data'
    const recover = (node: Inode): void => {
      if (node.kind === 'file') {
        node.data = node.durable
        node.modifiedMs = node.durableMs
        return
      }
      node.names = new Map(keepNames ? node.names : node.durableNames)
      node.durableNames = new Map(node.names)
      for (const child of node.names.values()) recover(child)
    }
    recover(this.#root)
  }

  /** Every file below a folder with its content, read without a step. */
  files(folder = ''): Map<string, Buffer> {
    const found = new Map<string, Buffer>()
    const visit = (node: Inode, path: string) => {
      if (node.kind === 'file') found.set(path, node.data)
      for (const [name, child] of node.names) visit(child, path ? `${path}/${name}` : name)
    }
    const start = this.#find(splitPath(Buffer.from(folder)))
    if (start) visit(start, '')
    return found
  }

  /** Puts a file there that some other program wrote and nobody waited for. */
  put(path: string, content: Buffer, modifiedMs = 1_700_000_000_000): void {
    const parts = path.split('/')
    let at = this.#root
    for (const part of parts.slice(0, -1)) {
      const next = at.names.get(part) ?? inode('folder')
      at.names.set(part, next)
      at = next
    }
    const file = inode('file')
    file.data = content
    file.modifiedMs = modifiedMs
    at.names.set(parts.at(-1) ?? '', file)
  }

  /** Everything that lies there now is on the medium. */
  settleAll(): void {
    const settle = (node: Inode) => {
      node.durable = Buffer.from(node.data)
      node.durableMs = node.modifiedMs
      node.durableNames = new Map(node.names)
      for (const child of node.names.values()) settle(child)
    }
    settle(this.#root)
  }

  #find(parts: readonly string[]): Inode | undefined {
    let at: Inode | undefined = this.#root
    for (const part of parts) at = at?.names.get(part)
    return at
  }

  #get(path: Buffer): Inode {
    const node = this.#find(splitPath(path))
    if (!node) throw deviceError('ENOENT', `nothing at ${path.toString()}`)
    return node
  }

  #parent(path: Buffer): { folder: Inode; name: string } {
    const parts = splitPath(path)
    const folder = this.#find(parts.slice(0, -1))
    if (folder?.kind !== 'folder') throw deviceError('ENOENT', `no folder for ${path.toString()}`)
    return { folder, name: parts.at(-1) ?? '' }
  }

  #step<T>(what: string, work: () => T): Promise<T> {
    try {
      this.power.step(what)
      return Promise.resolve(work())
    } catch (error) {
      return Promise.reject(error)
    }
  }

  open(path: Buffer, flags: number): Promise<DiskFile> {
    return this.#step('open', () => {
      const { folder, name } = splitPath(path).length > 0 ? this.#parent(path) : { folder: this.#root, name: '' }
      let node = name === '' ? this.#root : folder.names.get(name)
      if (!node && flags & constants.O_CREAT) {
        node = inode('file')
        folder.names.set(name, node)
      }
      if (!node) throw deviceError('ENOENT', `nothing at ${path.toString()}`)
      if (flags & constants.O_TRUNC) node.data = Buffer.alloc(0)
      return this.#file(node)
    })
  }

  #file(node: Inode): DiskFile {
    return {
      read: (block, offset, length, position) =>
        this.#step('read', () => {
          const piece = node.data.subarray(position, position + length)
          block.set(piece, offset)
          return { bytesRead: piece.length }
        }),
      write: (block, offset, length, position) =>
        this.#step('write', () => {
          const grown = Buffer.alloc(Math.max(node.data.length, position + length))
          node.data.copy(grown)
          grown.set(block.subarray(offset, offset + length), position)
          node.data = grown
          return { bytesWritten: length }
        }),
      sync: () =>
        this.#step('sync', () => {
          node.durable = Buffer.from(node.data)
          node.durableMs = node.modifiedMs
          node.durableNames = new Map(node.names)
        }),
      utimes: (_accessed, modified) => this.#step('utimes', () => void (node.modifiedMs = modified * 1000)),
      stat: () => this.#step('stat', () => statsOf(node)),
      // A process that lost its disk still gives its handles back.
      close: () => Promise.resolve(),
    }
  }

  lstat(path: Buffer): Promise<FileStats> {
    return this.#step('lstat', () => statsOf(this.#get(path)))
  }

  readdir(path: Buffer): Promise<Buffer[]> {
    return this.#step('readdir', () => [...this.#get(path).names.keys()].map((name) => Buffer.from(name, 'latin1')))
  }

  readlink(): Promise<Buffer> {
    return Promise.reject(deviceError('EINVAL', 'no link'))
  }

  mkdir(path: Buffer): Promise<void> {
    return this.#step('mkdir', () => {
      const { folder, name } = this.#parent(path)
      if (folder.names.has(name)) throw deviceError('EEXIST', 'exists')
      folder.names.set(name, inode('folder'))
    })
  }

  link(from: Buffer, to: Buffer): Promise<void> {
    return this.#step('link', () => {
      const node = this.#get(from)
      const { folder, name } = this.#parent(to)
      if (folder.names.has(name)) throw deviceError('EEXIST', 'exists')
      folder.names.set(name, node)
    })
  }

  clone(): Promise<void> {
    return Promise.reject(deviceError('ENOTSUP', 'no shared bytes'))
  }

  unlink(path: Buffer): Promise<void> {
    return this.#step('unlink', () => {
      const { folder, name } = this.#parent(path)
      folder.names.delete(name)
    })
  }

  rename(from: Buffer, to: Buffer): Promise<void> {
    return this.#step('rename', () => {
      const node = this.#get(from)
      const source = this.#parent(from)
      const target = this.#parent(to)
      source.folder.names.delete(source.name)
      target.folder.names.set(target.name, node)
    })
  }

  remove(path: Buffer): Promise<void> {
    return this.#step('remove', () => {
      const parts = splitPath(path)
      this.#find(parts.slice(0, -1))?.names.delete(parts.at(-1) ?? '')
    })
  }

  syncFileSystem(): Promise<void> {
    return this.#step('syncfs', () => this.settleAll())
  }

  statfs(): Promise<{ blocks: number; bsize: number; bavail: number }> {
    return Promise.resolve({ blocks: 1e9, bsize: 4096, bavail: 1e9 })
  }

  stamps() {
    return Promise.resolve('none' as const)
  }

  mounted() {
    return []
  }

  place() {
    return Promise.resolve(this.device_)
  }

  device() {
    return Promise.resolve({ fileSystem: this.device_, disks: [this.device_], known: true, pastCache: true })
  }
}

const statsOf = (node: Inode): FileStats => ({
  size: node.data.length,
  mtimeMs: node.modifiedMs,
  ctimeMs: node.modifiedMs,
  dev: 1,
  ino: node.number,
  isFile: () => node.kind === 'file',
  isDirectory: () => node.kind === 'folder',
  isSymbolicLink: () => false,
})
