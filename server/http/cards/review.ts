import { Router } from 'express'
import { rangesOf, tidyRanges, timesOf } from '../../../core/cards/review'
import { previewTitle, reviewApi, type WatchView, type Waveform } from '../../../contract/review'
import { inTransaction } from '../../db/connection'
import {
  isShotOf,
  nameableRows,
  partsBeside,
  putNames,
  putReviews,
  putVerdicts,
  reviewPage,
  unmatchedShotsOf,
} from '../../db/queries/review'
import { lensesBeside } from '../../db/queries/rigs'
import { tellChanged } from '../../db/queries/tasks'
import { extentOf, rateOf, reviewClips, reviewOf, selectsOf } from '../../facts/review'
import { filmOf, filmstripOf, placeOf, waveOf } from '../../media/looked'
import { plays } from '../../media/play'
import { previewsKept, previewSize, removePreviews } from '../../media/previews'
import { watchPlace } from '../../media/watch'
import type { Context } from '../context'
import { sendFile } from '../copies/play'
import { orderTask } from '../orderTask'
import { conflict, invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve, serveStream } from '../route'
import { clipOf, watchableOf } from './clipOf'

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

  serve(router, reviewApi.set, async ({ params, body }) => {
    const clip = await clipOf(db, params.id)
    const { length, ticks } = extentOf(clip)
    if (body.ranges.some(({ to }) => to > length))
      throw invalid(
        `${clip.name} has ${length} ${ticks === '1000/1' ? 'thousandths of a second' : 'frames'}: a range ends behind it.`,
        'ranges',
      )
    if (body.shotId !== null && !(await isShotOf(db, body.shotId, clip.productionId)))
      throw invalid('That shot is not on the list of this production any more.', 'shotId')
    const lenses = [clip, ...(await lensesBeside(db, clip))]
    const { ranges, ...said } = body
    const times = timesOf(ranges, rateOf(clip))
    const parts = await Promise.all(lenses.map((one) => partsBeside(db, one)))
    await inTransaction(db, async (tx) => {
      await putReviews(
        tx,
        lenses.map((one) => {
          const tidy = tidyRanges(rangesOf(times, rateOf(one)), extentOf(one).length)
          return { clipId: one.id, ...said, times: timesOf(tidy, rateOf(one)) }
        }),
      )
      // A take that the camera split is kept or left as a whole.
      const others = parts.flat().map((part) => part.id)
      await putVerdicts(tx, others, body.verdict ?? null)
    })
    await tellChanged(db, 'review')
  })

  serve(router, reviewApi.watch, async ({ params }): Promise<WatchView> => {
    const clip = await watchableOf(db, params.id)
    const [place, preview] = [await watchPlace(db, clip), await previewSize(clip.id)]
    const where = {
      from: place?.from ?? 'nowhere',
      place: place?.name ?? '',
      volumeId: place?.volumeId ?? null,
    } as const
    if (clip.probe.sequence) return { ...where, how: 'frames' }
    if (plays(clip.probe)) return { ...where, how: 'file' }
    return { ...where, how: preview > 0 ? 'preview' : 'preview-needed' }
  })

  serveStream(router, reviewApi.film, async ({ params, req, res }) =>
    sendFile(await filmOf(db, await watchableOf(db, params.id)), req, res),
  )

  serveStream(router, reviewApi.strip, async ({ params, res }) => {
    const picture = await filmstripOf(db, await watchableOf(db, params.id))
    if (!picture) throw notFound('A filmstrip of that clip')
    res.type('image/jpeg').set('Cache-Control', 'private, max-age=86400').send(picture)
  })

  serve(
    router,
    reviewApi.wave,
    async ({ params }) => JSON.parse((await waveOf(db, await watchableOf(db, params.id))).toString()) as Waveform,
  )

  serve(router, reviewApi.preview, async ({ params, req }) => {
    const clip = await watchableOf(db, params.id)
    if (clip.probe.sequence) throw conflict(`${clip.name} begins a run of frames; a preview is made of films alone.`)
    await placeOf(db, clip)
    const order = {
      kind: 'preview',
      title: previewTitle(clip.name),
      productionId: clip.productionId,
      loadId: clip.loadId,
      input: { clipId: clip.id },
    } as const
    return { taskId: await orderTask(context, req, order, `A preview of ${clip.name} is being made already.`) }
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

  serve(router, reviewApi.setNames, async ({ params, body }) => {
    const clash = await putNames(db, (await productionOf(db, params.id)).id, body.names)
    if (clash !== undefined)
      throw conflict(`Two clips would be called “${clash}”. Choose a pattern that tells them apart.`)
    await tellChanged(db, 'review')
  })

  serve(router, reviewApi.previews, () => previewsKept())

  serve(router, reviewApi.removePreviews, async () => {
    await removePreviews()
    await tellChanged(db, 'review', 'copies')
  })

  return router
}
