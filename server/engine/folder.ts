import { execFile } from 'node:child_process'
import { constants, type Stats } from 'node:fs'
import {
  link,
  lstat,
  mkdir,
  open,
  readdir,
  readlink,
  rename,
  rm,
  statfs,
  unlink,
  type FileHandle,
} from 'node:fs/promises'
import { promisify } from 'node:util'
import {
  deviceError,
  errorCode,
  joinPath,
  parentOf,
  type EntryKind,
  type Medium,
  type MediumEntry,
  type ReadableFile,
  type WritableFile,
} from './medium'

const run = promisify(execFile)

const kindOf = (stats: Stats): EntryKind =>
  stats.isFile() ? 'file' : stats.isDirectory() ? 'folder' : stats.isSymbolicLink() ? 'link' : 'special'

/** A folder of a mounted file system. */
export class FolderMedium implements Medium {
  readonly #made = new Set<string>()

  constructor(readonly root: string) {}

  #at(path: Buffer): Buffer {
    if (path.includes(0) || path.toString('latin1').split('/').includes('..'))
      throw deviceError('EINVAL', 'A path leaves its volume.')
    return joinPath(Buffer.from(this.root), path)
  }

  async list(folder: Buffer): Promise<MediumEntry[]> {
    const names = await readdir(this.#at(folder), { encoding: 'buffer' })
    const entries = await Promise.all(names.map((name) => this.entry(joinPath(folder, name))))
    return entries.flatMap((entry) => entry ?? [])
  }

  async entry(path: Buffer): Promise<MediumEntry | undefined> {
    const full = this.#at(path)
    const stats = await lstat(full).catch((error: unknown) => {
      if (errorCode(error) === 'ENOENT' || errorCode(error) === 'ENOTDIR') return undefined
      throw error
    })
    if (!stats) return undefined
    const kind = kindOf(stats)
    return {
      name: path.subarray(path.lastIndexOf(0x2f) + 1),
      kind,
      sizeBytes: stats.size,
      modifiedMs: stats.mtimeMs,
      linkTarget: kind === 'link' ? await readlink(full, { encoding: 'buffer' }) : undefined,
    }
  }

  async open(path: Buffer): Promise<ReadableFile> {
    const full = this.#at(path)
    const flags = constants.O_RDONLY | constants.O_NOFOLLOW
    try {
      return new FolderReadable(await open(full, flags | constants.O_DIRECT), true)
    } catch (error) {
      // File systems without direct reading answer EINVAL; the caller is told through fromMedium.
      if (errorCode(error) !== 'EINVAL') throw error
      return new FolderReadable(await open(full, flags), false)
    }
  }

  async create(path: Buffer): Promise<WritableFile> {
    const { O_WRONLY, O_CREAT, O_TRUNC, O_NOFOLLOW, O_DIRECT } = constants
    const full = this.#at(path)
    return new FolderWritable(await open(full, O_WRONLY | O_CREAT | O_TRUNC | O_NOFOLLOW, 0o644), () =>
      open(full, O_WRONLY | O_NOFOLLOW | O_DIRECT),
    )
  }

  async makeFolder(path: Buffer): Promise<void> {
    const key = path.toString('latin1')
    if (key === '' || this.#made.has(key)) return
    await this.makeFolder(parentOf(path))
    await mkdir(this.#at(path)).catch((error: unknown) => {
      if (errorCode(error) !== 'EEXIST') throw error
    })
    if ((await this.entry(path))?.kind !== 'folder')
      throw deviceError('ENOTDIR', 'A file or link stands where a folder is needed.')
    this.#made.add(key)
  }

  async publish(part: Buffer, path: Buffer): Promise<'named' | 'taken'> {
    try {
      await link(this.#at(part), this.#at(path))
      await unlink(this.#at(part))
      return 'named'
    } catch (error) {
      if (errorCode(error) === 'EEXIST') return 'taken'
      if (!['EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS', 'EMLINK'].includes(errorCode(error))) throw error
    }
    // File systems without hard links (exFAT and its kin on cards and sticks).
    if (await this.entry(path)) return 'taken'
    await rename(this.#at(part), this.#at(path))
    return 'named'
  }

  async move(from: Buffer, to: Buffer): Promise<void> {
    await this.makeFolder(parentOf(to))
    if (await this.entry(to)) throw deviceError('EEXIST', 'Something has that name already.')
    await rename(this.#at(from), this.#at(to))
  }

  async remove(path: Buffer): Promise<void> {
    await rm(this.#at(path), { force: true, recursive: true })
    this.#made.clear()
  }

  async settle(): Promise<void> {
    await run('sync', ['-f', this.root])
  }

  async settleFolders(folders: readonly Buffer[]): Promise<void> {
    await Promise.all(
      folders.map(async (folder) => {
        const handle = await open(this.#at(folder), constants.O_RDONLY | constants.O_DIRECTORY)
        await handle.sync().finally(() => handle.close())
      }),
    )
  }

  async room(): Promise<{ capacityBytes: number; freeBytes: number }> {
    const stats = await statfs(this.root)
    return { capacityBytes: stats.blocks * stats.bsize, freeBytes: stats.bavail * stats.bsize }
  }
}

class FolderReadable implements ReadableFile {
  readonly #handle: FileHandle
  constructor(
    handle: FileHandle,
    readonly fromMedium: boolean,
  ) {
    this.#handle = handle
  }

  async read(block: Uint8Array, position: number): Promise<number> {
    return (await this.#handle.read(block, 0, block.length, position)).bytesRead
  }

  close(): Promise<void> {
    return this.#handle.close()
  }
}

const GRID = 4096
/** Below this, the cache is quicker than going straight to the medium. */
const DIRECT_FROM = 4 * 1024 * 1024

class FolderWritable implements WritableFile {
  readonly #handle: FileHandle
  readonly #openDirect: () => Promise<FileHandle>
  #direct: Promise<FileHandle | undefined> | undefined

  constructor(handle: FileHandle, openDirect: () => Promise<FileHandle>) {
    this.#handle = handle
    this.#openDirect = openDirect
  }

  /**
   * Large whole blocks go straight to the medium, so that it is busy while the source is still read; the system
   * would otherwise hold gigabytes back until they are asked for. The odd end of a file takes the usual way.
   */
  async write(block: Uint8Array, position: number): Promise<void> {
    if (block.length >= DIRECT_FROM && block.length % GRID === 0 && position % GRID === 0) {
      this.#direct ??= this.#openDirect().catch(() => undefined)
      const direct = await this.#direct
      if (direct && (await writeDirect(direct, block, position))) return
    }
    await writeAll(this.#handle, block, position)
  }

  async close(modifiedMs: number, durability: 'durable' | 'settled-later'): Promise<void> {
    try {
      await this.#handle.utimes(modifiedMs / 1000, modifiedMs / 1000)
      if (durability === 'durable') await this.#handle.sync()
    } finally {
      await this.abandon()
    }
  }

  async abandon(): Promise<void> {
    await (await this.#direct)?.close()
    await this.#handle.close()
  }
}

async function writeAll(handle: FileHandle, block: Uint8Array, position: number): Promise<void> {
  for (let done = 0; done < block.length;) {
    const { bytesWritten } = await handle.write(block, done, block.length - done, position + done)
    if (bytesWritten === 0) throw deviceError('EIO', 'The volume takes no more bytes.')
    done += bytesWritten
  }
}

/** False when this memory or file system does not allow it; nothing is lost then, the block is written the usual way. */
async function writeDirect(handle: FileHandle, block: Uint8Array, position: number): Promise<boolean> {
  try {
    const { bytesWritten } = await handle.write(block, 0, block.length, position)
    return bytesWritten === block.length
  } catch (error) {
    if (errorCode(error) === 'EINVAL') return false
    throw error
  }
}
