import { chanceOf } from '../units/digest'

/** A clip of a copy that can be played, as it is known before. */
export interface SampleClip {
  readonly id: string
  readonly sizeBytes: number
  /** Seconds; 0 where the file does not say. */
  readonly seconds: number
  /** Somebody played it from this copy before. */
  readonly isWatched: boolean
  /** Frames from one whole picture to the next; a cut end is lost up to the last of them. 1 where each is whole. */
  readonly keyDistance: number
  /** Something was found in it. */
  readonly isOdd: boolean
}

export type WhyDrawn = 'odd' | 'largest' | 'first' | 'last' | 'long' | 'unwatched' | 'drawn'

/** Said before the name of a clip that is played. */
export const WHY_WORDS: Readonly<Record<WhyDrawn, string>> = {
  odd: 'Something was found in it',
  largest: 'The largest: a fault meets it most likely',
  first: 'The first that was filmed',
  last: 'The last that was filmed: a full card or an empty battery cuts it',
  long: 'Whole pictures lie far apart in it: its end breaks most easily',
  unwatched: 'Never watched from this copy',
  drawn: 'Chosen by chance',
}

/** A part of a clip, in seconds. */
export interface Piece {
  readonly fromSeconds: number
  readonly seconds: number
}

/** So many clips are a minute, at three pieces of three seconds each. */
export const SAMPLE_CLIPS = 6
export const PIECE_SECONDS = 3

/**
 * Beginning, middle and end of a clip, three seconds each; a short one is played whole. Of one whose pictures lean on
 * others the end comes first.
 */
export function piecesOf({ seconds, keyDistance }: Pick<SampleClip, 'seconds' | 'keyDistance'>): Piece[] {
  if (seconds <= 3 * PIECE_SECONDS) return [{ fromSeconds: 0, seconds: Math.max(0, seconds) || PIECE_SECONDS }]
  const at = (fromSeconds: number) => ({ fromSeconds, seconds: PIECE_SECONDS })
  const [begin, middle, end] = [at(0), at((seconds - PIECE_SECONDS) / 2), at(seconds - PIECE_SECONDS)]
  return keyDistance > 1 ? [end, begin, middle] : [begin, middle, end]
}

export interface DrawnClip {
  readonly id: string
  readonly why: WhyDrawn
  readonly pieces: readonly Piece[]
}

/**
 * Clips of a copy that are worth a look, the riskiest first: what has findings, the largest, the first, the last, the
 * one with the longest way between whole pictures, then what nobody watched, then by chance. `clips` in the order in
 * which they were filmed; the same seed draws the same.
 */
export function playSample(clips: readonly SampleClip[], seed: string, most = SAMPLE_CLIPS): DrawnClip[] {
  const drawn = new Map<string, DrawnClip>()
  const take = (clip: SampleClip | undefined, why: WhyDrawn) => {
    if (clip && drawn.size < most && !drawn.has(clip.id))
      drawn.set(clip.id, { id: clip.id, why, pieces: piecesOf(clip) })
  }
  const byChance = [...clips].sort((a, b) => chanceOf(seed, a.id) - chanceOf(seed, b.id))
  const greatest = (of: (clip: SampleClip) => number) =>
    clips.reduce<SampleClip | undefined>((best, clip) => (best && of(best) >= of(clip) ? best : clip), undefined)
  // One with findings leaves room for the others.
  take(
    byChance.find((clip) => clip.isOdd),
    'odd',
  )
  take(
    greatest((clip) => clip.sizeBytes),
    'largest',
  )
  take(clips[0], 'first')
  take(clips.at(-1), 'last')
  const long = greatest((clip) => clip.keyDistance)
  if (long && long.keyDistance > 1) take(long, 'long')
  for (const clip of byChance) if (clip.isOdd) take(clip, 'odd')
  for (const clip of byChance) if (!clip.isWatched) take(clip, 'unwatched')
  for (const clip of byChance) take(clip, 'drawn')
  return [...drawn.values()]
}
