import { Router } from 'express'
import { TIME_TICKS, type ClipReview } from '../../../core/cards/review/review'
import { counted } from '../../../core/units/quantity'
import { reviewApi, type ReviewBody } from '../../../contract/review'
import { isShotOf, nameableRows, putNames, putReviews, reviewPage, unmatchedShotsOf } from '../../db/queries/review'
import { otherLenses } from '../../db/queries/rigs'
import { takeOf } from '../../db/queries/takes'
import { tellChanged } from '../../db/queries/tasks'
import { recounted, reviewClips, reviewOf, saidOfFiles, selectsOf, wholeTake } from '../../facts/review'
import type { Context } from '../context'
import { conflict, invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { undoably } from '../undoably'
import { clipOf } from './clipOf'

const reviewsOf = (ids: readonly string[]) => [{ table: 'review', by: 'media_file_id', ids }] as const

/** What is said of a clip by now that was not before, in one sentence. */
function whatWasSaid(name: string, before: ClipReview, { verdict, ranges, note }: ReviewBody): string {
  if (verdict !== before.verdict)
    return verdict === null ? `The verdict on “${name}” was cleared.` : `“${name}”: ${verdict}.`
  if (JSON.stringify(ranges) !== JSON.stringify(before.ranges)) return `The ranges of “${name}” were changed.`
  return note === before.note ? `The shot of “${name}” was changed.` : `The note on “${name}” was changed.`
}

/** The desk at which clips are looked at and chosen from. */
export function reviewRoutes(context: Context): Router {
  const { db } = context
  const router = Router()

  serve(router, reviewApi.clips, async ({ params, query }) => {
    const { id } = await productionOf(db, params.id)
    const { rows, next } = await reviewPage(db, id, query)
    return { rows: await reviewClips(db, rows), next }
  })

  serve(router, reviewApi.sum, async ({ params }) => {
    const { id } = await productionOf(db, params.id)
    const [sum, unmatchedShots] = await Promise.all([reviewOf(db, id), unmatchedShotsOf(db, id)])
    return { ...sum, unmatchedShots }
  })

  serve(router, reviewApi.set, async ({ params, body, res }) => {
    const clip = await clipOf(db, params.id)
    const own = await takeOf(db, clip.id)
    const take = own && (await wholeTake(db, own.id))
    if (!own || !take) throw notFound('That clip')
    const length = take.lengths.reduce((sum, part) => sum + part, 0)
    if (body.ranges.some(({ to }) => to > length))
      throw invalid(
        `${clip.name} has ${length} ` +
          `${take.ticks.num === TIME_TICKS.num ? 'thousandths of a second' : 'frames'}: a range ends after its last one.`,
        'ranges',
      )
    if (body.shotId !== null && !(await isShotOf(db, body.shotId, clip.productionId)))
      throw invalid('That shot is not on the list of this production any more.', 'shotId')
    const lenses = await Promise.all((await otherLenses(db, own)).map((id) => wholeTake(db, id)))
    const said = [take, ...lenses].flatMap((one) =>
      one ? saidOfFiles(one, { ...body, ranges: recounted(body.ranges, take.ticks, one.ticks) }) : [],
    )
    await undoably(
      { db, res },
      reviewsOf(said.map((one) => one.mediaFileId)),
      whatWasSaid(clip.name, take.review, body),
      (tx) => putReviews(tx, said),
    )
    // The next step goes by verdicts; a note or a range is nothing to the line.
    await tellChanged(db, 'review', ...(take.review.verdict === body.verdict ? [] : (['productions'] as const)))
  })

  serve(router, reviewApi.selects, async ({ params }) =>
    selectsOf(db, context.host, (await productionOf(db, params.id)).id),
  )

  serve(router, reviewApi.nameable, async ({ params }) => {
    const { id, title, shootOn } = await productionOf(db, params.id)
    return (await nameableRows(db, id)).map(({ recordedAt, camera, shot, ...row }) => ({
      ...row,
      date: recordedAt.slice(0, 10) || (shootOn ?? ''),
      production: title,
      camera: camera ?? '',
      shot: shot ?? '',
    }))
  })

  serve(router, reviewApi.setNames, async ({ params, body: { names }, res }) => {
    const { id } = await productionOf(db, params.id)
    const clash = await undoably(
      { db, res },
      reviewsOf(names.map((one) => one.id)),
      `${counted(names.length, 'name')} changed.`,
      (tx) => putNames(tx, id, names),
    )
    if (clash !== undefined)
      throw conflict(`Two clips would be called “${clash}”. Choose a pattern that tells them apart.`)
    await tellChanged(db, 'review', 'productions')
  })

  return router
}
