import { counted, formatBytes, formatLength } from '../../units/quantity'
import { secondsOfFrames, type FrameRate } from '../../units/frameRate'

/** What a person thinks of a clip. */
export const VERDICTS = ['keep', 'maybe', 'reject'] as const
export type Verdict = (typeof VERDICTS)[number]

/**
 * A piece of a clip in its own frames, from 0; `to` is the first frame that is no longer in it. Without frames of one
 * rate in thousandths of a second.
 */
export interface ClipRange {
  readonly from: number
  readonly to: number
}

/** What ranges are counted in where there are no frames of one rate: thousandths of a second. */
export const TIME_TICKS: FrameRate = { num: 1000, den: 1 }

/** A piece of a clip in microseconds from its start: it stays where it is whatever rate the clip is found to have. */
export interface TimeRange {
  readonly from: number
  readonly to: number
}

const MICROSECONDS = 1e6

/** Ranges of frames as times. Frames of less than half a million a second come back from them as they were. */
export const timesOf = (ranges: readonly ClipRange[], { num, den }: FrameRate): TimeRange[] =>
  ranges.map(({ from, to }) => ({
    from: Math.round((from * MICROSECONDS * den) / num),
    to: Math.round((to * MICROSECONDS * den) / num),
  }))

/** Times as the nearest frames; of a piece that is shorter than a frame, one; of an empty one, none. */
export const rangesOf = (times: readonly TimeRange[], { num, den }: FrameRate): ClipRange[] =>
  times.map(({ from, to }) => {
    const first = Math.round((from * num) / (MICROSECONDS * den))
    const last = from < to ? Math.max(first + 1, Math.round((to * num) / (MICROSECONDS * den))) : first
    return { from: first, to: last }
  })

/** Pictures in a filmstrip. */
export const STRIP_FRAMES = 40

/** What review says of one clip. */
export interface ClipReview {
  readonly verdict: Verdict | null
  readonly ranges: readonly ClipRange[]
  readonly note: string
  /** Its name in the sorted view; the mirror keeps the camera’s. */
  readonly name: string | null
  readonly shotId: string | null
}

export const UNSEEN: ClipReview = { verdict: null, ranges: [], note: '', name: null, shotId: null }

/** Ranges in order, inside the clip, those that overlap or touch made one; empty ones are left out. */
export function tidyRanges(ranges: readonly ClipRange[], frames: number): ClipRange[] {
  const inside = ranges
    .map(({ from, to }) => ({ from: Math.max(0, Math.min(from, frames)), to: Math.max(0, Math.min(to, frames)) }))
    .filter(({ from, to }) => from < to)
    .sort((a, b) => a.from - b.from)
  const tidy: ClipRange[] = []
  for (const range of inside) {
    const last = tidy.at(-1)
    if (last && range.from <= last.to) tidy[tidy.length - 1] = { from: last.from, to: Math.max(last.to, range.to) }
    else tidy.push(range)
  }
  return tidy
}

/** A clip as the sums of a review need it: its frames at its rate, and its bytes. */
export interface ReviewedClip {
  readonly review: Pick<ClipReview, 'verdict' | 'ranges'>
  readonly frames: number
  readonly rate: FrameRate
  readonly sizeBytes: number
}

/** What a review comes to: clips by verdict, and the seconds and bytes of what is kept. */
export interface ReviewSum {
  readonly clips: number
  readonly keep: number
  readonly maybe: number
  readonly reject: number
  /** Of kept clips: their ranges, or all of them where none is set. */
  readonly seconds: number
  /** The same with a handle on either side of every range. */
  readonly secondsWithHandles: number
  /** Of kept clips as files: in and out never cut an original. */
  readonly sizeBytes: number
}

/** Seconds left on either side of what is used. Common practice, no source. */
export const HANDLE_SECONDS = 1

/** The pieces of a clip that are worked with: its ranges, or the whole of it. */
export const usedRanges = (clip: Pick<ReviewedClip, 'frames'> & { review: Pick<ClipReview, 'ranges'> }): ClipRange[] =>
  clip.review.ranges.length > 0 ? tidyRanges(clip.review.ranges, clip.frames) : [{ from: 0, to: clip.frames }]

/** Ranges with a handle on either side, inside the clip; those that meet are one. */
export function withHandles(ranges: readonly ClipRange[], frames: number, rate: FrameRate): ClipRange[] {
  const handle = Math.round((HANDLE_SECONDS * rate.num) / rate.den)
  return tidyRanges(
    ranges.map(({ from, to }) => ({ from: from - handle, to: to + handle })),
    frames,
  )
}

const secondsOf = (ranges: readonly ClipRange[], rate: FrameRate): number =>
  ranges.reduce((sum, { from, to }) => sum + secondsOfFrames(to - from, rate), 0)

/**
 * Sums of a review; `clips` are the reviewed ones of `all`. Two clips of 250 frames at 25, one kept whole and one
 * from frame 50 to 100, are 12 s, and 14 s with handles.
 */
export function reviewSum(clips: readonly ReviewedClip[], all: number): ReviewSum {
  const kept = clips.filter(({ review }) => review.verdict === 'keep')
  const count = (verdict: Verdict) => clips.filter(({ review }) => review.verdict === verdict).length
  return {
    clips: all,
    keep: count('keep'),
    maybe: count('maybe'),
    reject: count('reject'),
    seconds: kept.reduce((sum, clip) => sum + secondsOf(usedRanges(clip), clip.rate), 0),
    secondsWithHandles: kept.reduce(
      (sum, clip) => sum + secondsOf(withHandles(usedRanges(clip), clip.frames, clip.rate), clip.rate),
      0,
    ),
    sizeBytes: kept.reduce((sum, clip) => sum + clip.sizeBytes, 0),
  }
}

/** A review in one sentence: `2 of 9 clips kept, 48 s of them used; 5 are still to be looked at.` */
export function reviewSentence({ clips, keep, maybe, reject, seconds }: ReviewSum): string {
  if (clips === 0) return 'There is nothing to look at yet: no clip of this production is known.'
  const open = clips - keep - maybe - reject
  if (open === clips) return clips === 1 ? '1 clip, still to be looked at.' : `${clips} clips, none of them looked at.`
  const kept =
    keep === 0 ? 'None kept so far' : `${keep} of ${counted(clips, 'clip')} kept, ${formatLength(seconds)} used`
  const unsure = maybe > 0 ? `, ${maybe} maybe` : ''
  return open > 0
    ? `${kept}${unsure}; ${open === 1 ? '1 is' : `${open} are`} still to be looked at.`
    : `${kept}${unsure}. Every clip has been looked at.`
}

/** Shots that were filmed, as somebody ticked, and that no clip is matched to; `undefined` where there are none. */
export const unmatchedSentence = (names: readonly string[]): string | undefined =>
  names.length === 0
    ? undefined
    : `Ticked as filmed, and no clip is matched to ${names.length === 1 ? 'it' : 'them'}: ${names
        .slice(0, 5)
        .map((name) => `“${name}”`)
        .join(
          ', ',
        )}${names.length > 5 ? ` and ${names.length - 5} more` : ''}. Match ${names.length === 1 ? 'it' : 'them'} here, or look for the card.`

/** Figures beside the sentence: what is kept as files, and with handles. */
export const reviewFigures = ({ keep, sizeBytes, secondsWithHandles }: ReviewSum): string =>
  keep === 0
    ? 'In and out never cut an original: its file is copied whole, the points say what later steps work on.'
    : `${formatBytes(sizeBytes)} as whole files; ${formatLength(secondsWithHandles)} with a second on ` +
      'either side. In and out never cut an original.'
