import { Router } from 'express'
import { previewTitle, reviewApi, type WatchView, type Waveform } from '../../../contract/review'
import { tellChanged } from '../../db/queries/tasks'
import { filmOf, filmstripOf, placeOf, waveOf } from '../../media/watchedClip'
import { plays } from '../../../core/media/plays'
import { previewsKept, previewSize, removePreviews } from '../../media/previews'
import { watchPlace } from '../../media/watch'
import type { Context } from '../context'
import { sendFile } from '../copies/play'
import { orderTask } from '../orderTask'
import { conflict, notFound } from '../problem'
import { serve, serveStream } from '../route'
import { watchableOf } from './clipOf'

/** What is watched of a clip: the file itself or a preview, its filmstrip and its waveform. */
export function watchRoutes(context: Context): Router {
  const { db } = context
  const router = Router()

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
    if (clip.probe.sequence) throw conflict(`${clip.name} is a clip of single frames; a preview is made of films only.`)
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

  serve(router, reviewApi.previews, () => previewsKept())

  serve(router, reviewApi.removePreviews, async () => {
    await removePreviews()
    await tellChanged(db, 'review', 'copies')
  })

  return router
}
