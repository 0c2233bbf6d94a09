/** A file as a card lists it, enough to know it again without reading it. */
export interface ListedFile {
  readonly path: string
  readonly sizeBytes: number
  readonly modifiedMs: number
}

export interface KnownLoad {
  readonly id: string
  readonly files: readonly ListedFile[]
}

/** Size and time as cards keep them: one file is another when either differs, whatever it is called. */
export const contentOf = (file: Pick<ListedFile, 'sizeBytes' | 'modifiedMs'>): string =>
  `${file.sizeBytes} ${Math.trunc(file.modifiedMs)}`

const identity = (file: ListedFile) => `${contentOf(file)} ${file.path}`

/** Less than this share of a load's files found again means another load: cameras write the same few files after every format. */
const LEAST_SHARE = 0.5

/**
 * Which known load a card holds: the one that shares most files (same path, size and time), and at least half of its
 * own, since a load only grows until the next format. `undefined`: a new load.
 */
export function recogniseLoad(files: readonly ListedFile[], known: readonly KnownLoad[]): string | undefined {
  const here = new Set(files.map(identity))
  const shared = known.map((load) => ({ load, files: load.files.filter((file) => here.has(identity(file))).length }))
  const likely = shared.filter(({ load, files }) => files > 0 && files >= LEAST_SHARE * load.files.length)
  return likely.sort((a, b) => b.files - a.files)[0]?.load.id
}

export interface CardChanges {
  /** Files that are there as they were. */
  readonly stayed: number
  readonly gone: number
  /** Files with a known name and other content. */
  readonly changed: number
  readonly added: number
}

/** How a card differs from what it listed before. */
export function cardChanges(before: readonly ListedFile[], now: readonly ListedFile[]): CardChanges {
  const here = new Map(now.map((file) => [file.path, contentOf(file)]))
  const found = before.filter((file) => here.has(file.path))
  const stayed = found.filter((file) => here.get(file.path) === contentOf(file)).length
  return {
    stayed,
    gone: before.length - found.length,
    changed: found.length - stayed,
    added: now.length - found.length,
  }
}
