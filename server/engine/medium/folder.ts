import { constants } from 'node:fs'
import type { DeviceIdentity } from '../../../core/copies/device'
import { GRID } from './blocks'
import { RealDisk, type Disk, type DiskFile } from './disk'
import { identityOf, kindOf } from './fileStats'
import { mountOnTheWay, notOfThisMedium } from './mounts'
import {
  deviceError,
  errorCode,
  joinPath,
  nameOf,
  parentOf,
  type FileIdentity,
  type Medium,
  type MediumEntry,
  type ReadableFile,
  type SmallFile,
  type SmallRead,
  type Stamps,
  type TreeEntry,
  type WritableFile,
} from './medium'
import { notAFolder } from './wayBlocked'

const BESIDE = Buffer.from('.yendra-part')

/** Something that is there, and of which nothing else can be said. */
const nothingKnown = (path: Buffer): MediumEntry => ({
  name: nameOf(path),
  kind: 'special',
  ...{ sizeBytes: 0, modifiedMs: 0, changedMs: 0, node: '', linkTarget: undefined },
})

/** A folder of a mounted file system. */
export class FolderMedium implements Medium {
  readonly #made = new Set<string>()
  readonly #disk: Disk
  readonly #rootBytes: Buffer
  #device: Promise<DeviceIdentity> | undefined
  #stamps: Promise<Stamps> | undefined

  constructor(
    readonly root: string,
    disk: Disk = new RealDisk(root),
  ) {
    this.#disk = disk
    this.#rootBytes = Buffer.from(root)
  }

  #at(path: Buffer): Buffer {
    if (path.includes(0) || (path.includes('..') && path.toString('latin1').split('/').includes('..')))
      throw deviceError('EINVAL', 'A path leaves its volume.')
    return joinPath(this.#rootBytes, path)
  }

  async list(folder: Buffer): Promise<MediumEntry[]> {
    const names = await this.#disk.readdir(this.#at(folder))
    const entries = await Promise.all(names.map((name) => this.#listed(joinPath(folder, name))))
    return entries.flatMap((entry) => entry ?? [])
  }

  async tree(folder: Buffer): Promise<readonly TreeEntry[] | undefined> {
    return this.#disk.tree?.(this.#at(folder))
  }

  /** A name that cannot even be asked about is there all the same. */
  async #listed(path: Buffer): Promise<MediumEntry | undefined> {
    return this.entry(path).catch((error: unknown) => {
      if (!['EACCES', 'EPERM', 'EIO', 'ENAMETOOLONG', 'EUCLEAN'].includes(errorCode(error))) throw error
      return nothingKnown(path)
    })
  }

  async entry(path: Buffer): Promise<MediumEntry | undefined> {
    const full = this.#at(path)
    const stats = await this.#disk.lstat(full).catch((error: unknown) => {
      // What lies behind a link does not lie here.
      if (['ENOENT', 'ENOTDIR', 'ELOOP'].includes(errorCode(error))) return undefined
      // Nor does what lies on another mount; the place where it is mounted is there.
      if (errorCode(error) === 'EXDEV') return this.mounted().includes(path.toString('latin1')) ? 'mount' : undefined
      throw error
    })
    if (stats === 'mount') return nothingKnown(path)
    if (!stats) return undefined
    const kind = kindOf(stats)
    return {
      name: nameOf(path),
      kind,
      ...identityOf(stats),
      linkTarget: kind === 'link' ? await this.#disk.readlink(full) : undefined,
    }
  }

  async open(path: Buffer, how?: 'settled'): Promise<ReadableFile> {
    const { handle, fromMedium } = await this.#openedForReading(path)
    try {
      if (how === 'settled') await handle.sync()
    } catch (error) {
      await handle.close()
      throw error
    }
    return new FolderReadable(handle, fromMedium)
  }

  async #openedForReading(path: Buffer): Promise<{ handle: DiskFile; fromMedium: boolean }> {
    const full = this.#at(path)
    const flags = constants.O_RDONLY | constants.O_NOFOLLOW
    const { pastCache } = await this.device()
    if (!pastCache) return { handle: await this.#disk.open(full, flags), fromMedium: false }
    try {
      return { handle: await this.#disk.open(full, flags | constants.O_DIRECT), fromMedium: true }
    } catch (error) {
      // File systems without direct reading answer EINVAL; the caller is told through fromMedium.
      if (errorCode(error) !== 'EINVAL') throw error
      return { handle: await this.#disk.open(full, flags), fromMedium: false }
    }
  }

  async readSmall(files: readonly SmallFile[]): Promise<readonly SmallRead[]> {
    const { pastCache } = await this.device()
    if (!pastCache || !this.#disk.readSmall) return files.map(() => ({ code: 'ENOSYS' }))
    return this.#disk.readSmall(files.map(({ path, sizeBytes }) => ({ path: this.#at(path), sizeBytes })))
  }

  async create(path: Buffer): Promise<WritableFile> {
    const { O_WRONLY, O_CREAT, O_TRUNC, O_NOFOLLOW, O_DIRECT } = constants
    const full = this.#at(path)
    return new FolderWritable(await this.#disk.open(full, O_WRONLY | O_CREAT | O_TRUNC | O_NOFOLLOW, 0o644), () =>
      this.#disk.open(full, O_WRONLY | O_NOFOLLOW | O_DIRECT),
    )
  }

  async makeFolder(path: Buffer): Promise<boolean> {
    const key = path.toString('latin1')
    if (key === '' || this.#made.has(key)) return false
    await this.makeFolder(parentOf(path))
    const isNew = await this.#disk.mkdir(this.#at(path)).then(
      () => true,
      (error: unknown) => {
        if (errorCode(error) !== 'EEXIST') throw error
        return false
      },
    )
    if (mountOnTheWay(key, this.mounted()) !== undefined) throw notOfThisMedium(key)
    const there = await this.entry(path)
    if (there?.kind !== 'folder') throw notAFolder(path, there?.kind ?? 'special')
    this.#made.add(key)
    return isNew
  }

  async publish(part: Buffer, path: Buffer): Promise<'named' | 'taken'> {
    try {
      await this.#disk.link(this.#at(part), this.#at(path))
      await this.#disk.unlink(this.#at(part))
      return 'named'
    } catch (error) {
      if (errorCode(error) === 'EEXIST') return 'taken'
      if (errorCode(error) === 'EXDEV') return this.#acrossParts(part, path, 'link')
      if (!['EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS', 'EMLINK'].includes(errorCode(error))) throw error
    }
    // File systems without hard links (exFAT and its kin on cards and sticks).
    if (await this.entry(path)) return 'taken'
    await this.#disk.rename(this.#at(part), this.#at(path))
    return 'named'
  }

  async replace(part: Buffer, path: Buffer): Promise<void> {
    await this.#disk.rename(this.#at(part), this.#at(path)).catch(async (error: unknown) => {
      if (errorCode(error) !== 'EXDEV') throw error
      await this.#acrossParts(part, path, 'rename')
    })
  }

  /**
   * Parts of one file system between which no file can be moved (subvolumes): the bytes are shared with a file beside
   * the name, which then gets it. What a cut leaves of it is taken away when the name is given again.
   */
  async #acrossParts(part: Buffer, path: Buffer, how: 'link' | 'rename'): Promise<'named' | 'taken'> {
    const beside = Buffer.concat([path, BESIDE])
    await this.#disk.remove(this.#at(beside))
    await this.#disk.clone(this.#at(part), this.#at(beside))
    await this.settleFile(beside)
    const result =
      how === 'rename'
        ? await this.#disk.rename(this.#at(beside), this.#at(path)).then(() => 'named' as const)
        : await this.#disk.link(this.#at(beside), this.#at(path)).then(
            () => 'named' as const,
            (error: unknown) => {
              if (errorCode(error) !== 'EEXIST') throw error
              return 'taken' as const
            },
          )
    await this.#disk.remove(this.#at(beside))
    if (result === 'named') await this.#disk.unlink(this.#at(part))
    return result
  }

  async linkFile(from: Buffer, to: Buffer): Promise<void> {
    await this.makeFolder(parentOf(to))
    await this.#disk.link(this.#at(from), this.#at(to))
  }

  async cloneFile(from: Buffer, to: Buffer): Promise<void> {
    await this.makeFolder(parentOf(to))
    await this.#disk.clone(this.#at(from), this.#at(to))
  }

  async move(from: Buffer, to: Buffer): Promise<void> {
    await this.makeFolder(parentOf(to))
    if (await this.entry(to)) throw deviceError('EEXIST', 'Something has that name already.')
    await this.#disk.rename(this.#at(from), this.#at(to))
  }

  async remove(path: Buffer): Promise<void> {
    await this.#disk.remove(this.#at(path))
    this.#made.clear()
  }

  async settle(): Promise<void> {
    await this.#disk.syncFileSystem(this.root)
  }

  async settleFile(path: Buffer): Promise<void> {
    await this.#sync(path, constants.O_RDONLY | constants.O_NOFOLLOW)
  }

  async settleFolders(folders: readonly Buffer[]): Promise<void> {
    await Promise.all(folders.map((folder) => this.#sync(folder, constants.O_RDONLY | constants.O_DIRECTORY)))
  }

  async #sync(path: Buffer, flags: number): Promise<void> {
    const handle = await this.#disk.open(this.#at(path), flags)
    try {
      await handle.sync()
    } finally {
      await handle.close()
    }
  }

  async room(): Promise<{ capacityBytes: number; freeBytes: number }> {
    const stats = await this.#disk.statfs(this.root)
    return { capacityBytes: stats.blocks * stats.bsize, freeBytes: stats.bavail * stats.bsize }
  }

  place(): Promise<string> {
    return this.#disk.place(this.root)
  }

  stamps(): Promise<Stamps> {
    this.#stamps ??= this.#disk.stamps(this.root)
    return this.#stamps
  }

  mounted(): readonly string[] {
    return this.#disk.mounted()
  }

  /** Asked once: a medium is made anew for each piece of work. */
  device(): Promise<DeviceIdentity> {
    this.#device ??= this.#disk.device(this.root)
    return this.#device
  }
}

class FolderReadable implements ReadableFile {
  readonly #handle: DiskFile
  constructor(
    handle: DiskFile,
    readonly fromMedium: boolean,
  ) {
    this.#handle = handle
  }

  async read(block: Uint8Array, position: number): Promise<number> {
    return (await this.#handle.read(block, 0, block.length, position)).bytesRead
  }

  async identity(): Promise<FileIdentity> {
    return identityOf(await this.#handle.stat())
  }

  close(): Promise<void> {
    return this.#handle.close()
  }
}

/** Below this, the cache is quicker than going straight to the medium. */
const DIRECT_FROM = 4 * 1024 * 1024

class FolderWritable implements WritableFile {
  readonly #handle: DiskFile
  readonly #openDirect: () => Promise<DiskFile>
  #direct: Promise<DiskFile | undefined> | undefined

  constructor(handle: DiskFile, openDirect: () => Promise<DiskFile>) {
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

async function writeAll(handle: DiskFile, block: Uint8Array, position: number): Promise<void> {
  for (let done = 0; done < block.length;) {
    const { bytesWritten } = await handle.write(block, done, block.length - done, position + done)
    if (bytesWritten === 0) throw deviceError('EIO', 'The volume takes no more bytes.')
    done += bytesWritten
  }
}

/**
 * False when this memory or file system does not allow it; nothing is lost then, the block is written the usual way.
 */
async function writeDirect(handle: DiskFile, block: Uint8Array, position: number): Promise<boolean> {
  try {
    const { bytesWritten } = await handle.write(block, 0, block.length, position)
    return bytesWritten === block.length
  } catch (error) {
    if (errorCode(error) === 'EINVAL') return false
    throw error
  }
}
