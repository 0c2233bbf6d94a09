/** What the engine needs of a place that stores files. A real folder and a simulated device look the same from here. */

export type EntryKind = 'file' | 'folder' | 'link' | 'special'

export interface MediumEntry {
  readonly name: Buffer
  readonly kind: EntryKind
  readonly sizeBytes: number
  readonly modifiedMs: number
  /** Where a link points, never followed. */
  readonly linkTarget: Buffer | undefined
}

export interface ReadableFile {
  /** Fills `block` from `position`; 0 at the end. Block and position are multiples of 4096. */
  read(block: Uint8Array, position: number): Promise<number>
  close(): Promise<void>
  /** False when the system's cache may have answered instead of the medium. */
  readonly fromMedium: boolean
}

export interface WritableFile {
  write(block: Uint8Array, position: number): Promise<void>
  /** Sets the time of the last change, and waits for the medium when `durable` is asked for. */
  close(modifiedMs: number, durability: 'durable' | 'settled-later'): Promise<void>
  /** Closes without keeping; the file itself is removed by the caller. */
  abandon(): Promise<void>
}

/** Paths are relative to the root, as bytes with `/` between parts. Errors carry the system's code (`ENOSPC`, `EIO` …). */
export interface Medium {
  readonly root: string
  list(folder: Buffer): Promise<MediumEntry[]>
  /** `undefined` when there is nothing by that name; links are not followed. */
  entry(path: Buffer): Promise<MediumEntry | undefined>
  /** Opens for reading past the system's cache where the file system allows it. */
  open(path: Buffer): Promise<ReadableFile>
  /** Creates or empties a file of ours. */
  create(path: Buffer): Promise<WritableFile>
  /** Creates a folder and its parents; refuses to pass through a link. */
  makeFolder(path: Buffer): Promise<void>
  /** Gives a finished part its final name; `taken` when something has that name already. Never overwrites. */
  publish(part: Buffer, path: Buffer): Promise<'named' | 'taken'>
  /** Moves within the medium, to a name that is free. */
  move(from: Buffer, to: Buffer): Promise<void>
  remove(path: Buffer): Promise<void>
  /** Waits until everything written so far is on the medium. */
  settle(): Promise<void>
  /** Makes names in these folders durable. */
  settleFolders(folders: readonly Buffer[]): Promise<void>
  room(): Promise<{ capacityBytes: number; freeBytes: number }>
}

export const joinPath = (...parts: readonly Buffer[]): Buffer =>
  Buffer.concat(
    parts.filter((part) => part.length > 0).flatMap((part, at) => (at === 0 ? [part] : [Buffer.from('/'), part])),
  )

export const parentOf = (path: Buffer): Buffer => path.subarray(0, Math.max(0, path.lastIndexOf(0x2f)))

/** The system's code of an error, `''` when it has none. */
export const errorCode = (error: unknown): string =>
  error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : ''

export const deviceError = (code: string, message: string): Error => Object.assign(new Error(message), { code })

const AT_ONCE = 64

/** Those of a mirror's files that are no longer in its folder, or have another size there. Nothing is read but names and sizes. */
export async function lostFiles<F extends { readonly path: Buffer; readonly sizeBytes: number }>(
  medium: Medium,
  folder: Buffer,
  files: readonly F[],
): Promise<F[]> {
  const lost: F[] = []
  for (let at = 0; at < files.length; at += AT_ONCE) {
    const looked = await Promise.all(
      files
        .slice(at, at + AT_ONCE)
        .map(async (file) => ({ file, entry: await medium.entry(joinPath(folder, file.path)) })),
    )
    lost.push(
      ...looked.flatMap(({ file, entry }) =>
        entry?.kind === 'file' && entry.sizeBytes === file.sizeBytes ? [] : [file],
      ),
    )
  }
  return lost
}
