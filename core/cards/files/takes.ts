import { chaptersOf, headedChapters } from './counters'
import { folderOf, stemOf } from '../../units/filePath'
import type { MediaFile } from './mediaFile'

/** Where a file stands in a take that was split: the path of its first part, and which of how many it is. */
export interface PlaceInTake {
  readonly first: string
  readonly part: number
  readonly parts: number
}

const SAME_SECOND_MS = 1500
/** A file system of four gigabytes a file, and cameras that stop at two. */
const LEAST_SPLIT_BYTES = 1_900_000_000

/**
 * Takes that the camera split into files: chapters in its names, or a file at its size limit that the next one goes on
 * from.
 */
export function takesOf(media: readonly MediaFile[]): Map<string, PlaceInTake> {
  const films = media.filter((file) => file.hasVideo)
  const byPath = new Map(films.map((file) => [file.path, file]))
  const filesOf = (paths: readonly string[]) => paths.flatMap((path) => byPath.get(path) ?? [])
  const headed = headedChapters([...byPath.keys()]).flatMap((paths) => runsThat(filesOf(paths), goesOnFromHead))
  const inHeaded = new Set(headed.flat())
  const named = films.filter((file) => !inHeaded.has(file)).map((file) => file.path)
  const split = [...headed, ...chaptersOf(named).flatMap((paths) => runsThat(filesOf(paths), goesOnByName))]
  const taken = new Set(split.flat())
  const rest = films.filter((file) => !taken.has(file)).sort((a, b) => (a.path < b.path ? -1 : 1))
  const takes = [...split, ...runsThat(rest, goesOnBySize)]
  return new Map(
    takes.flatMap((parts) =>
      parts.map((file, at) => [file.path, { first: parts[0]?.path ?? file.path, part: at + 1, parts: parts.length }]),
    ),
  )
}

/** Runs of at least two in which each goes on where the one before ended. */
function runsThat(files: readonly MediaFile[], goesOn: (one: MediaFile, next: MediaFile) => boolean): MediaFile[][] {
  const runs: MediaFile[][] = []
  for (const [at, file] of files.entries()) {
    const before = files[at - 1]
    const run = runs.at(-1)
    if (run && before && goesOn(before, file)) run.push(file)
    else runs.push([file])
  }
  return runs.filter((run) => run.length > 1)
}

const isAlike = (one: MediaFile, other: MediaFile): boolean =>
  one.codec === other.codec && one.framePx === other.framePx && one.rate === other.rate

/** Whether it starts when the other ended; some cameras give every part the time of the first. */
function followsOn(one: MediaFile, next: MediaFile): boolean | undefined {
  if (one.recordedMs === undefined || next.recordedMs === undefined) return undefined
  const after = next.recordedMs - one.recordedMs
  return Math.abs(after - one.seconds * 1000) <= SAME_SECOND_MS
}

const goesOnByName = (one: MediaFile, next: MediaFile): boolean => {
  const sameStart = one.recordedMs !== undefined && one.recordedMs === next.recordedMs
  return isAlike(one, next) && (sameStart || followsOn(one, next) !== false)
}

const goesOnFromHead = (one: MediaFile, next: MediaFile): boolean =>
  goesOnByName(one, next) && (followsOn(one, next) === true || !isSecondCopy(one, next))

/** Programs put `_1` behind the name of a second copy, cameras more digits behind the name of a file that goes on. */
function isSecondCopy(one: MediaFile, next: MediaFile): boolean {
  const digits = /[-_ ](\d{1,3})$/.exec(stemOf(next.path))?.[1]
  if (digits === undefined) return false
  const isTwin = one.sizeBytes === next.sizeBytes && one.seconds === next.seconds
  return digits.length === 1 || (isTwin && one.sizeBytes < LEAST_SPLIT_BYTES)
}

const goesOnBySize = (one: MediaFile, next: MediaFile): boolean =>
  folderOf(one.path) === folderOf(next.path) &&
  one.sizeBytes >= LEAST_SPLIT_BYTES &&
  isAlike(one, next) &&
  followsOn(one, next) === true
