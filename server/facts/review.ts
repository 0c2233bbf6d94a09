import {
  rangesOf,
  reviewSum,
  tidyRanges,
  timesOf,
  TIME_TICKS,
  UNSEEN,
  type ClipRange,
  type ClipReview,
  type ReviewSum,
  type TimeRange,
} from '../../core/cards/review/review'
import type { Select } from '../../core/cards/review/selects'
import { partRanges, takeClock, takeReview } from '../../core/cards/review/takeReview'
import { isVariable } from '../../core/media/facts'
import { frameRateText, type FrameRate } from '../../core/units/frameRate'
import { urlPath } from '../../core/units/urlPath'
import type { ReviewBody, ReviewClip } from '../../contract/review'
import type { Db } from '../db/connection'
import {
  copyPlaces,
  keptRows,
  reviewFigures,
  shotNames,
  takeParts,
  takesToReview,
  type ReviewRow,
  type SaidOfFile,
} from '../db/queries/review'
import { clipFiles, clipView } from './clips'

/** First files of takes as review shows them, each with all of its take. */
export async function reviewClips(
  db: Db,
  rows: readonly (ReviewRow & { readonly lenses: number })[],
): Promise<ReviewClip[]> {
  const [files, takes] = await Promise.all([clipFiles(db, rows), wholeTakes(db, rows)])
  return rows.map((row) => {
    const take = takes.get(row.id) ?? takeFrom([row])
    return {
      ...clipView(row, { ...files(row), ...sumOf(take), parts: take.parts.length }),
      loadId: row.loadId,
      loadLabel: new Intl.ListFormat('en-GB').format([...new Set(take.parts.map((part) => part.loadLabel))]),
      lenses: row.lenses,
      files: take.parts.map((part, at) => ({
        ...{ clipId: part.id, loadId: part.loadId, name: part.name, trouble: part.trouble },
        length: take.lengths[at] ?? 0,
      })),
      ...{ ticks: frameRateText(take.ticks), step: take.step },
      length: take.lengths.reduce((sum, length) => sum + length, 0),
      review: take.review,
    }
  })
}

/** A take in what its ranges are counted in, with what is said of it. */
interface WholeTake {
  readonly parts: readonly ReviewRow[]
  readonly lengths: readonly number[]
  readonly ticks: FrameRate
  /** So many ticks are about one frame. */
  readonly step: number
  readonly review: ClipReview
}

/** One file's take needs no question; the others are asked for in one go. */
async function wholeTakes(db: Db, rows: readonly ReviewRow[]): Promise<Map<string, WholeTake>> {
  const split = rows.filter(({ parts }) => parts > 1).map(({ takeId }) => takeId)
  const parts = split.length === 0 ? [] : await takeParts(db, split)
  return new Map([...grouped(parts)].map(([id, own]) => [id, takeFrom(own)]))
}

/** The take that a media file is of, whole. */
export async function wholeTake(db: Db, takeId: string): Promise<WholeTake | undefined> {
  const parts = await takeParts(db, [takeId])
  return parts.length === 0 ? undefined : takeFrom(parts)
}

function grouped<Row extends { readonly takeId: string }>(rows: readonly Row[]): Map<string, Row[]> {
  const takes = new Map<string, Row[]>()
  for (const row of rows) {
    const known = takes.get(row.takeId)
    if (known) known.push(row)
    else takes.set(row.takeId, [row])
  }
  return takes
}

function takeFrom(parts: readonly ReviewRow[]): WholeTake {
  const extents = parts.map(extentOf)
  const { ticks, lengths } = takeClock(extents)
  const review = takeReview(
    parts.map((part, at) => ({
      length: lengths[at] ?? 0,
      review: part.times === null ? undefined : saidOf(part, part.times, ticks),
    })),
  )
  const first = extents[0]
  return { parts, lengths, ticks, step: first && first.ticks === ticks ? first.step : STEP_MS, review }
}

/** About a frame, where files of one take are counted otherwise each. */
const STEP_MS = 40

const saidOf = ({ verdict, note, chosenName, shotId }: ReviewRow, times: readonly TimeRange[], ticks: FrameRate) => ({
  ...{ verdict, shotId, name: chosenName, note: note ?? '' },
  ranges: rangesOf(times, ticks),
})

const sumOf = ({ parts }: WholeTake) => ({
  sizeBytes: parts.reduce((sum, part) => sum + part.sizeBytes, 0),
  seconds: parts.reduce((sum, part) => sum + part.seconds, 0),
})

/** What is said of a take, as it is kept of each of its files. */
export function saidOfFiles({ parts, lengths, ticks }: WholeTake, { ranges, ...said }: ReviewBody): SaidOfFile[] {
  const whole = lengths.reduce((sum, length) => sum + length, 0)
  const split = partRanges(tidyRanges(ranges, whole), lengths)
  return parts.map((part, at) => ({
    ...said,
    // A note and a shot are said once, of the first file.
    ...(at > 0 && { note: '', shotId: null }),
    mediaFileId: part.id,
    times: timesOf(split[at] ?? [], ticks),
  }))
}

/** The same ranges counted otherwise. */
export const recounted = (ranges: readonly ClipRange[], from: FrameRate, to: FrameRate): ClipRange[] =>
  rangesOf(timesOf(ranges, from), to)

/**
 * What a file's ranges are counted in, how many of them it has, and how many are about a frame: a variable film has no
 * count of frames that is a time.
 */
function extentOf({ probe, seconds }: Pick<ReviewRow, 'probe' | 'seconds'>) {
  const video = probe?.video
  if (video && !isVariable(video)) return { ticks: video.rate, length: video.frames, step: 1, seconds }
  const step = video ? Math.max(1, Math.round((TIME_TICKS.num * video.rate.den) / video.rate.num)) : 1
  return { ticks: TIME_TICKS, length: Math.round(seconds * TIME_TICKS.num), step, seconds }
}

/** What the review of a production comes to. */
export async function reviewOf(db: Db, productionId: string): Promise<ReviewSum> {
  const takes = grouped(await reviewFigures(db, productionId))
  return reviewSum(
    [...takes.values()].map((parts) => {
      const { ticks, lengths } = takeClock(
        parts.map(({ frames, num, den, seconds }) =>
          frames !== null && num !== null && den !== null
            ? { ticks: { num, den }, length: frames, seconds }
            : { ticks: TIME_TICKS, length: Math.round(seconds * TIME_TICKS.num), seconds },
        ),
      )
      const review = takeReview(
        parts.map(({ verdict, times }, at) => ({
          length: lengths[at] ?? 0,
          review: times === null ? undefined : { ...UNSEEN, verdict, ranges: rangesOf(times, ticks) },
        })),
      )
      return {
        ...{ review, rate: ticks },
        frames: lengths.reduce((sum, length) => sum + length, 0),
        sizeBytes: parts.reduce((sum, part) => sum + part.sizeBytes, 0),
      }
    }),
    await takesToReview(db, productionId),
  )
}

/**
 * Kept takes of a production, each of their files with the address of a copy; files of which nothing is used are left
 * out.
 */
export async function selectsOf(db: Db, host: string, productionId: string): Promise<Select[]> {
  const rows = await keptRows(db, productionId)
  const [placed, shots] = await Promise.all([
    copyPlaces(
      db,
      host,
      rows.map(({ id }) => id),
    ),
    shotNames(db, productionId),
  ])
  const places = new Map<string, (typeof placed)[number]>()
  for (const place of placed) if (!places.has(place.id)) places.set(place.id, place)
  return [...grouped(rows).values()].flatMap((parts) => {
    const { lengths, ticks: rate, review } = takeFrom(parts)
    const split = partRanges(review.ranges, lengths)
    return parts.flatMap((row, at) => {
      const ranges = split[at] ?? []
      if (ranges.length > 0 && ranges.every(({ from, to }) => from === to)) return []
      const place = places.get(row.id)
      const below = Buffer.concat([Buffer.from(`${place?.folder ?? `Cards/${row.loadLabel}`}/`), row.pathBytes])
      const rooted =
        place?.connected && place.rootPath ? Buffer.concat([Buffer.from(`${place.rootPath}/`), below]) : undefined
      return [
        {
          clipId: row.id,
          name: (at === 0 ? review.name : row.chosenName) ?? row.name,
          path: row.pathText,
          load: row.loadLabel,
          note: review.note,
          rate,
          length: lengths[at] ?? 0,
          ranges,
          // Its addresses count frames of one rate.
          timecode: row.probe?.video && isVariable(row.probe.video) ? undefined : row.probe?.timecode,
          hasPicture: row.probe?.video !== undefined,
          hasSound: row.probe?.audio !== undefined,
          verdict: review.verdict ?? 'keep',
          shot: shots.get(review.shotId ?? '') ?? '',
          sizeBytes: row.sizeBytes,
          url: rooted ? `file://${urlPath(rooted)}` : urlPath(below),
        },
      ]
    })
  })
}
