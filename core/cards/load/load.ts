import { isClockShift } from '../../copies/copyState'
import { isMediaName } from '../../media/mediaName'
import { chanceOf } from '../../units/digest'
import { counted } from '../../units/quantity'

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

/** A known load that a listing may be, and how far the clock has moved since. */
export interface Recognised {
  readonly id: string
  /** Whole hours in milliseconds that all times are later now; 0 mostly. */
  readonly shiftMs: number
}

/** Size and time as cards keep them: one file is another when either differs, whatever it is called. */
export const contentOf = (file: Pick<ListedFile, 'sizeBytes' | 'modifiedMs'>): string =>
  `${file.sizeBytes} ${Math.trunc(file.modifiedMs)}`

/**
 * Less than this share of a load's files found again means another load: cameras write the same few files after every
 * format.
 */
const LEAST_SHARE = 0.5

const bytesOf = (files: readonly ListedFile[]) => files.reduce((sum, file) => sum + file.sizeBytes, 0)

/**
 * Known loads that a card's listing may be, likeliest first: same path, size and time, or times that are all later or
 * earlier by the same whole hours. At least half of a load's files or clips must be there, and a clip among them where
 * it has any (else half of its bytes), since a load only grows until the next format. What a listing suggests, samples
 * of content must confirm.
 */
export function recogniseLoads(files: readonly ListedFile[], known: readonly KnownLoad[]): Recognised[] {
  const here = new Map(files.map((file) => [file.path, file]))
  const likely = known.flatMap((load) => {
    const { shiftMs, shared } = sharedFiles(load.files, here)
    return isEnough(shared, load.files) ? [{ id: load.id, shiftMs, shared: shared.length }] : []
  })
  likely.sort((a, b) => b.shared - a.shared || Math.abs(a.shiftMs) - Math.abs(b.shiftMs))
  return likely.map(({ id, shiftMs }) => ({ id, shiftMs }))
}

function sharedFiles(before: readonly ListedFile[], here: ReadonlyMap<string, ListedFile>) {
  const byShift = new Map<number, ListedFile[]>()
  for (const file of before) {
    const now = here.get(file.path)
    if (!now || now.sizeBytes !== file.sizeBytes) continue
    const shift = Math.trunc(now.modifiedMs) - Math.trunc(file.modifiedMs)
    if (shift !== 0 && !isClockShift(shift)) continue
    const shared = byShift.get(shift)
    if (shared) shared.push(file)
    else byShift.set(shift, [file])
  }
  const [best] = [...byShift].sort(([a, one], [b, other]) => other.length - one.length || Math.abs(a) - Math.abs(b))
  return { shiftMs: best?.[0] ?? 0, shared: best?.[1] ?? [] }
}

function isEnough(shared: readonly ListedFile[], all: readonly ListedFile[]): boolean {
  if (shared.length === 0) return false
  const isHalf = (some: readonly ListedFile[], whole: readonly ListedFile[]) =>
    some.length >= LEAST_SHARE * whole.length
  const clipsOf = (files: readonly ListedFile[]) => files.filter((file) => isMediaName(file.path))
  const [here, clips] = [clipsOf(shared), clipsOf(all)]
  // No format leaves a clip behind; it is written after it, with the small files that come back every time.
  if (clips.length > 0) return here.length > 0 && (isHalf(shared, all) || isHalf(here, clips))
  return isHalf(shared, all) && bytesOf(shared) >= LEAST_SHARE * bytesOf(all)
}

/** How many files of a card are sampled, the largest ones first and the rest by the draw. */
const SAMPLED = 12

/** Files whose ends are hashed at the scan: half of them the largest, half drawn by size and a seed. */
export function filesToSample<F extends ListedFile>(files: readonly F[], seed: string): F[] {
  const bySize = files.filter((file) => file.sizeBytes > 0).sort((a, b) => b.sizeBytes - a.sizeBytes)
  const largest = bySize.slice(0, SAMPLED / 2)
  const drawn = bySize
    .slice(SAMPLED / 2)
    .map((file) => ({ file, key: Math.log(Math.max(1e-9, chanceOf(seed, file.path))) / Math.log2(2 + file.sizeBytes) }))
    .sort((a, b) => b.key - a.key)
  return [...largest, ...drawn.slice(0, SAMPLED / 2).map(({ file }) => file)]
}

export interface CardChanges {
  /** Files that are there as they were. */
  readonly stayed: number
  readonly gone: number
  /** Files with a known name and other content. */
  readonly changed: number
  readonly added: number
  /** Clips and sounds among them. */
  readonly addedClips: number
}

/** How a card differs from what it listed before. */
export function cardChanges(before: readonly ListedFile[], now: readonly ListedFile[]): CardChanges {
  const here = new Map(now.map((file) => [file.path, contentOf(file)]))
  const found = before.filter((file) => here.has(file.path))
  const stayed = found.filter((file) => here.get(file.path) === contentOf(file)).length
  const known = new Set(before.map((file) => file.path))
  return {
    stayed,
    gone: before.length - found.length,
    changed: found.length - stayed,
    added: now.length - found.length,
    addedClips: now.filter((file) => !known.has(file.path) && isMediaName(file.path)).length,
  }
}

/** Changes for a person: `1 file gone, 2 files new`; empty when there are none. */
export function changeWords({ gone, changed, added }: CardChanges): string {
  const parts = [
    [gone, 'gone'],
    [changed, 'changed'],
    [added, 'new'],
  ] as const
  return parts.flatMap(([count, word]) => (count > 0 ? [`${counted(count, 'file')} ${word}`] : [])).join(', ')
}

/** How the card of a load differs from its latest scan, and what to do: a load that only grew went on. */
export function differenceSentence(label: string, changes: CardChanges, shiftMs = 0): string {
  if (changes.addedClips > 0 && changes.gone + changes.changed === 0)
    return (
      `The load “${label}” has ${changes.addedClips} new ` +
      `${changes.addedClips === 1 ? 'clip' : 'clips'}. Scan it again.`
    )
  const words = changeWords(changes) || (shiftMs === 0 ? 'its folders' : 'all its times')
  return `The card of “${label}” has changed (${words}): scan it again.`
}
