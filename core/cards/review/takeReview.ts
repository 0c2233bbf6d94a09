import { frameRateText, type FrameRate } from '../../units/frameRate'
import { tidyRanges, TIME_TICKS, UNSEEN, VERDICTS, type ClipRange, type ClipReview } from './review'

/** A file of a take with what was said of it; ranges and length are counted alike in all files of the take. */
export interface ReviewedPart {
  /** `undefined` when nobody said anything. */
  readonly review: ClipReview | undefined
  readonly length: number
}

/** Says of a file that nothing of it is used, where something of its take is. */
const NOTHING: readonly ClipRange[] = [{ from: 0, to: 0 }]
const MOST_NOTE = 2000

/** What a file's ranges are counted in, and how many of them it has. */
interface FileClock {
  readonly ticks: FrameRate
  readonly length: number
  readonly seconds: number
}

/** What all files of a take are counted in: what each of them is, or, where they differ, thousandths of a second. */
export function takeClock(files: readonly FileClock[]): {
  readonly ticks: FrameRate
  readonly lengths: readonly number[]
} {
  const rates = new Set(files.map(({ ticks }) => frameRateText(ticks)))
  if (files[0] && rates.size === 1) return { ticks: files[0].ticks, lengths: files.map(({ length }) => length) }
  return { ticks: TIME_TICKS, lengths: files.map(({ seconds }) => Math.round(seconds * TIME_TICKS.num)) }
}

const startsOf = (lengths: readonly number[]): number[] =>
  lengths.map((_, at) => lengths.slice(0, at).reduce((sum, length) => sum + length, 0))

/**
 * What is said of a take, on its own clock, from what was said of its files: the kindest verdict; their ranges one
 * after the other, and the whole of a file that was decided on without any; the first name and shot; all notes.
 */
export function takeReview(parts: readonly ReviewedPart[]): ClipReview {
  const said = parts.flatMap(({ review }) => review ?? [])
  const notes = [...new Set(said.map(({ note }) => note).filter((note) => note !== ''))]
  return {
    ...UNSEEN,
    verdict: VERDICTS.find((verdict) => said.some((review) => review.verdict === verdict)) ?? null,
    ranges: takeRanges(parts),
    note: notes.join('\n').slice(0, MOST_NOTE),
    name: said.find(({ name }) => name !== null)?.name ?? null,
    shotId: said.find(({ shotId }) => shotId !== null)?.shotId ?? null,
  }
}

function takeRanges(parts: readonly ReviewedPart[]): ClipRange[] {
  const isCut = parts.some(({ review }) => review?.ranges.some(({ from, to }) => from < to))
  if (!isCut) return []
  const starts = startsOf(parts.map(({ length }) => length))
  const ranges = parts.flatMap(({ review, length }, at) => {
    const start = starts[at] ?? 0
    if (!review) return []
    const own = review.ranges.length > 0 || review.verdict === null ? review.ranges : [{ from: 0, to: length }]
    return tidyRanges(own, length).map(({ from, to }) => ({ from: start + from, to: start + to }))
  })
  return tidyRanges(ranges, Number.POSITIVE_INFINITY)
}

/** Ranges of a take as those of each of its files, on the file's own clock. */
export function partRanges(ranges: readonly ClipRange[], lengths: readonly number[]): (readonly ClipRange[])[] {
  if (ranges.length === 0) return lengths.map(() => [])
  return startsOf(lengths).map((start, at) => {
    const own = tidyRanges(
      ranges.map(({ from, to }) => ({ from: from - start, to: to - start })),
      lengths[at] ?? 0,
    )
    return own.length > 0 ? own : NOTHING
  })
}

/** In which file of a take a frame lies, and where its file begins. */
export function fileAt(lengths: readonly number[], frame: number): { readonly file: number; readonly start: number } {
  const starts = startsOf(lengths)
  const found = starts.findLastIndex((start) => start <= frame)
  const file = Math.max(0, found)
  return { file, start: starts[file] ?? 0 }
}
