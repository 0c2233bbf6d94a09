import { rangesOf, reviewSum, TIME_TICKS, UNSEEN, type ReviewSum } from '../../core/cards/review'
import type { Select } from '../../core/cards/selects'
import { isVariable } from '../../core/media/facts'
import { frameRateText, parseFrameRate, type FrameRate } from '../../core/units/frameRate'
import { urlPath } from '../../core/units/urlPath'
import type { ReviewClip } from '../../contract/review'
import type { Db } from '../db/connection'
import { clipsToReview, keptPlaces, keptRows, reviewFigures, type ReviewRow } from '../db/queries/review'
import { clipFiles, clipView } from './clips'

/** Rows of clips as review shows them. */
export async function reviewClips(db: Db, rows: readonly ReviewRow[]): Promise<ReviewClip[]> {
  const files = await clipFiles(db, rows)
  return rows.map((row) => ({
    ...clipView(row, { ...files(row), sizeBytes: row.sizeBytes, seconds: row.seconds }),
    loadId: row.loadId,
    loadLabel: row.loadLabel,
    lenses: row.lenses,
    place: row.part !== null && row.parts !== null ? { part: row.part, parts: row.parts } : null,
    goesOnFrom: row.goesOn?.name === row.name ? `${row.goesOn.from} of “${row.goesOn.fromLabel}”` : null,
    ...extentOf(row),
    review:
      row.times === null
        ? UNSEEN
        : {
            verdict: row.verdict,
            ranges: rangesOf(row.times, rateOf(row)),
            note: row.note ?? '',
            name: row.chosenName,
            shotId: row.shotId,
          },
  }))
}

type Extent = Pick<ReviewClip, 'ticks' | 'length' | 'step'>

/** What a clip's ranges are counted in, how many of them it has, and how many are about a frame: a variable film has no count of frames that is a time. */
export function extentOf({ probe, seconds }: Pick<ReviewRow, 'probe' | 'seconds'>): Extent {
  const video = probe?.video
  if (video && !isVariable(video)) return { ticks: frameRateText(video.rate), length: video.frames, step: 1 }
  const step = video ? Math.max(1, Math.round((TIME_TICKS.num * video.rate.den) / video.rate.num)) : 1
  return { ticks: frameRateText(TIME_TICKS), length: Math.round(seconds * TIME_TICKS.num), step }
}

/** The rate of what its ranges are counted in. */
export const rateOf = (row: Pick<ReviewRow, 'probe' | 'seconds'>): FrameRate =>
  parseFrameRate(extentOf(row).ticks) ?? TIME_TICKS

/** What the review of a production comes to. */
export async function reviewOf(db: Db, productionId: string): Promise<ReviewSum> {
  const rows = await reviewFigures(db, productionId)
  return reviewSum(
    rows.map(({ verdict, times, frames, num, den, seconds, sizeBytes, goesOn }) => {
      const extent =
        frames !== null && num !== null && den !== null
          ? { frames, rate: { num, den } }
          : { frames: Math.round(seconds * TIME_TICKS.num), rate: TIME_TICKS }
      return { review: { verdict, ranges: rangesOf(times, extent.rate) }, ...extent, sizeBytes, goesOn }
    }),
    await clipsToReview(db, productionId),
  )
}

/** Kept clips of a production, each with the address of a copy. */
export async function selectsOf(db: Db, host: string, productionId: string): Promise<Select[]> {
  const places = new Map<string, Awaited<ReturnType<typeof keptPlaces>>[number]>()
  for (const place of await keptPlaces(db, host, productionId))
    if (!places.has(place.clipId)) places.set(place.clipId, place)
  return (await keptRows(db, productionId)).map((row) => {
    const { length } = extentOf(row)
    const rate = rateOf(row)
    const place = places.get(row.id)
    const below = Buffer.concat([Buffer.from(`${place?.folder ?? `Cards/${row.loadLabel}`}/`), row.pathBytes])
    const rooted =
      place?.connected && place.rootPath ? Buffer.concat([Buffer.from(`${place.rootPath}/`), below]) : undefined
    return {
      clipId: row.id,
      name: row.chosenName ?? row.name,
      path: row.pathText,
      load: row.loadLabel,
      note: row.note ?? '',
      rate,
      length,
      ranges: rangesOf(row.times ?? [], rate),
      // Its addresses count frames of one rate.
      timecode: row.probe?.video && isVariable(row.probe.video) ? undefined : row.probe?.timecode,
      hasPicture: row.probe?.video !== undefined,
      hasSound: row.probe?.audio !== undefined,
      verdict: row.verdict ?? 'keep',
      shot: row.shotName ?? '',
      sizeBytes: row.sizeBytes,
      url: rooted ? `file://${urlPath(rooted)}` : urlPath(below),
    }
  })
}
