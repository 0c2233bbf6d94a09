import { Router } from 'express'
import { cardsApi } from '../../../contract/cards'
import { picturesFolder } from '../../home'
import { stillOf } from '../../media/watchedClip'
import type { Context } from '../context'
import { notFound } from '../problem'
import { serveStream } from '../route'
import { watchableOf } from './clipOf'

/** Pictures of clips: the one that was made at the scan, and any frame. */
export function pictureRoutes({ db }: Context): Router {
  const router = Router()

  serveStream(
    router,
    cardsApi.picture,
    ({ params, res }) =>
      new Promise((done, fail) => {
        res.sendFile(`${params.id}.jpg`, { root: picturesFolder(), maxAge: '1h' }, (error) => {
          if (error && !res.headersSent) fail(notFound('A picture of that clip'))
          else done()
        })
      }),
  )

  serveStream(router, cardsApi.frame, async ({ params, query: { at }, res }) => {
    const clip = await watchableOf(db, params.id)
    // Whoever scrubs on asks for the next frame: this one is wanted no more.
    const gone = new AbortController()
    res.on('close', () => gone.abort())
    const picture = await stillOf(db, clip, at, gone.signal).catch((error: unknown) => {
      if (gone.signal.aborted) return undefined
      throw error
    })
    if (gone.signal.aborted) return
    if (!picture) throw notFound('A picture of that clip')
    res.type('image/jpeg').set('Cache-Control', 'private, max-age=600').send(picture)
  })

  return router
}
