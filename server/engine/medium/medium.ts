import type { DeviceIdentity } from '../../../core/copies/device'

/** What the engine needs of a place that stores files. A real folder and a simulated device look the same from here. */

/**
 * What a file system tells of a file beside its size and time, in a way that lasts: its number and when anything of it
 * was last changed. Elsewhere both are invented anew at each mount.
 */
export type Stamps = 'inode-and-change' | 'change' | 'none'

export type EntryKind = 'file' | 'folder' | 'link' | 'special'

/** What tells a file from another at the same path: a file rewritten under its old name differs in one of these. */
export interface FileIdentity {
  readonly sizeBytes: number
  readonly modifiedMs: number
  /** File system and inode. */
  readonly node: string
  /** When anything of it was last changed (ctime), as the system says; lasting only where `stamps` says so. */
  readonly changedMs: number
}

export interface MediumEntry extends FileIdentity {
  readonly name: Buffer
  readonly kind: EntryKind
  /** Where a link points, never followed. */
  readonly linkTarget: Buffer | undefined
}

/** An entry of a listing of many: its name is the end of its path. */
export interface TreeEntry extends Omit<MediumEntry, 'name'> {
  /** Below the folder that was listed. */
  readonly path: Buffer
}

export const nameOf = (path: Buffer): Buffer => path.subarray(path.lastIndexOf(0x2f) + 1)

export interface ReadableFile {
  /** Fills `block` from `position`; 0 at the end. Block and position are multiples of 4096. */
  read(block: Uint8Array, position: number): Promise<number>
  identity(): Promise<FileIdentity>
  close(): Promise<void>
  /** False when the system's cache may have answered instead of the medium. */
  readonly fromMedium: boolean
}

/**
 * What lies at the beginning of a file, as far as the block holds it, in bytes; the file is closed whatever happens.
 */
export async function readOnce(file: ReadableFile, block: Uint8Array): Promise<number> {
  try {
    return await file.read(block, 0)
  } finally {
    await file.close()
  }
}

/** A small file by its path. */
export interface SmallFile {
  readonly path: Buffer
  readonly sizeBytes: number
}

/** How a file lay when it was opened and what was read of it; a code where it is to be read by the usual way. */
export type SmallRead =
  | {
      readonly hash: string
      /** As `EndsHash` makes it. */
      readonly ends: string | null
      readonly sizeBytes: number
      readonly identity: FileIdentity
    }
  | { readonly code: string }

export interface WritableFile {
  write(block: Uint8Array, position: number): Promise<void>
  /** Sets the time of the last change, and waits for the medium when `durable` is asked for. */
  close(modifiedMs: number, durability: 'durable' | 'settled-later'): Promise<void>
  /** Closes without keeping; the file itself is removed by the caller. */
  abandon(): Promise<void>
}

/**
 * Paths are relative to the root, as bytes with `/` between parts. Errors carry the system's code (`ENOSPC`, `EIO` …).
 */
export interface Medium {
  readonly root: string
  list(folder: Buffer): Promise<MediumEntry[]>
  /** Everything below a folder at once, paths relative to it; `undefined` where each folder must be asked by itself. */
  tree?(folder: Buffer): Promise<readonly TreeEntry[] | undefined>
  /** `undefined` when there is nothing by that name; links are not followed. */
  entry(path: Buffer): Promise<MediumEntry | undefined>
  /**
   * Opens for reading past the system's cache where the file system allows it; `settled` waits first until what others
   * wrote to it is on the medium.
   */
  open(path: Buffer, how?: 'settled'): Promise<ReadableFile>
  /** Reads many small files at once past the cache, where there is a quick way; in the order of the files. */
  readSmall?(files: readonly SmallFile[]): Promise<readonly SmallRead[]>
  /** Hash of the ends of a file (`sampleHash`), where what reads it can make that in one go. */
  sample?(path: Buffer, sizeBytes: number): Promise<string>
  /** Creates or empties a file of ours. */
  create(path: Buffer): Promise<WritableFile>
  /**
   * Creates a folder and its parents; refuses to pass through a link. True when it was not there before, and so is
   * empty.
   */
  makeFolder(path: Buffer): Promise<boolean>
  /** Gives a finished part its final name; `taken` when something has that name already. Never overwrites. */
  publish(part: Buffer, path: Buffer): Promise<'named' | 'taken'>
  /** Gives a newer version of a file of ours its name; at every moment one of the two has it. */
  replace(part: Buffer, path: Buffer): Promise<void>
  /** Gives a file a second name, which is free: one content under both. Error codes of the system where it cannot. */
  linkFile(from: Buffer, to: Buffer): Promise<void>
  /** Makes a file that shares its bytes with another until either is changed (reflink), under a free name. */
  cloneFile(from: Buffer, to: Buffer): Promise<void>
  /** Moves within the medium, to a name that is free. */
  move(from: Buffer, to: Buffer): Promise<void>
  remove(path: Buffer): Promise<void>
  /** Waits until everything written so far is on the medium. */
  settle(): Promise<void>
  /** Waits until a file that others wrote is on the medium. */
  settleFile(path: Buffer): Promise<void>
  /** Makes names in these folders durable. */
  settleFolders(folders: readonly Buffer[]): Promise<void>
  room(): Promise<{ capacityBytes: number; freeBytes: number }>
  /** Changes when another medium, file system or folder stands at the root. */
  place(): Promise<string>
  /** What tells its files from others of the same size and time. */
  stamps(): Promise<Stamps>
  /**
   * Places below its root where other file systems are mounted, which are no part of it; path bytes, one a character.
   */
  mounted(): readonly string[]
  /** What it stands on: two media on one device are one copy. */
  device(): Promise<DeviceIdentity>
}

export function joinPath(...parts: readonly Buffer[]): Buffer {
  let length = 0
  for (const part of parts) if (part.length > 0) length += part.length + (length > 0 ? 1 : 0)
  const path = Buffer.allocUnsafe(length)
  let at = 0
  for (const part of parts) {
    if (part.length === 0) continue
    if (at > 0) at = path.writeUInt8(0x2f, at)
    at += part.copy(path, at)
  }
  return path
}

export const parentOf = (path: Buffer): Buffer => path.subarray(0, Math.max(0, path.lastIndexOf(0x2f)))

/** The system's code of an error, `''` when it has none. */
export const errorCode = (error: unknown): string =>
  error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : ''

export const deviceError = (code: string, message: string): Error => Object.assign(new Error(message), { code })

/** Two looks at one file: nothing wrote to it in between, and no other file has its name now. */
export const sameFile = (a: FileIdentity, b: FileIdentity): boolean =>
  a.node === b.node && a.sizeBytes === b.sizeBytes && a.modifiedMs === b.modifiedMs
