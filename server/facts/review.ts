import { reviewSum, SOUND_TICKS, UNSEEN, type ReviewSum } from '../../core/cards/review'
import type { Select } from '../../core/cards/selects'
import { frameRateText, parseFrameRate } from '../../core/units/frameRate'
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
      row.ranges === null
        ? UNSEEN
        : {
            verdict: row.verdict,
            ranges: row.ranges,
            note: row.note ?? '',
            name: row.chosenName,
            shotId: row.shotId,
          },
  }))
}

/** What a clip's ranges are counted in, and how many of them it has. */
export function extentOf({ probe, seconds }: Pick<ReviewRow, 'probe' | 'seconds'>): { ticks: string; length: number } {
  return probe?.video
    ? { ticks: frameRateText(probe.video.rate), length: probe.video.frames }
    : { ticks: frameRateText(SOUND_TICKS), length: Math.round(seconds * SOUND_TICKS.num) }
}

/** What the review of a production comes to. */
export async function reviewOf(db: Db, productionId: string): Promise<ReviewSum> {
  const rows = await reviewFigures(db, productionId)
  return reviewSum(
    rows.map(({ verdict, ranges, frames, num, den, seconds, sizeBytes }) => ({
      review: { verdict, ranges },
      ...(frames !== null && num !== null && den !== null
        ? { frames, rate: { num, den } }
        : { frames: Math.round(seconds * SOUND_TICKS.num), rate: SOUND_TICKS }),
      sizeBytes,
    })),
    await clipsToReview(db, productionId),
  )
}

/** Kept clips of a production, each with the address of a copy. */
export async function selectsOf(db: Db, host: string, productionId: string): Promise<Select[]> {
  const places = new Map<string, Awaited<ReturnType<typeof keptPlaces>>[number]>()
  for (const place of await keptPlaces(db, host, productionId))
    if (!places.has(place.clipId)) places.set(place.clipId, place)
  return (await keptRows(db, productionId)).map((row) => {
    const { ticks, length } = extentOf(row)
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
      rate: parseFrameRate(ticks) ?? SOUND_TICKS,
      length,
      ranges: row.ranges ?? [],
      timecode: row.probe?.timecode,
      hasPicture: row.probe?.video !== undefined,
      hasSound: row.probe?.audio !== undefined,
      verdict: row.verdict ?? 'keep',
      shot: row.shotName ?? '',
      sizeBytes: row.sizeBytes,
      url: rooted ? `file://${urlPath(rooted)}` : urlPath(below),
    }
  })
}
