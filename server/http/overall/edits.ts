import { Router } from 'express'
import { editsApi } from '../../../contract/edits'
import type { Topic } from '../../../contract/topics'
import { ChangedSince, takeBack, type EditedTable } from '../../db/edits'
import { tellChanged } from '../../db/queries/tasks'
import { isHeld, isTaken } from '../../db/taken'
import type { Context } from '../context'
import { conflict, notFound } from '../problem'
import { serve } from '../route'
import { sayEdit } from '../undoably'

/** Changes of people, taken back and done again. */
export function editRoutes({ db }: Context): Router {
  const router = Router()
  serve(router, editsApi.takeBack, async ({ params, res }) => {
    const done = await takeBack(db, params.id).catch((error: unknown) => {
      if (error instanceof ChangedSince) throw conflict(error.message)
      if (isHeld(error))
        throw conflict('Something else refers to it by now, or what it refers to is gone, so nothing was taken back.')
      if (isTaken(error)) throw conflict('Its name is taken by now, so nothing was taken back.')
      throw error
    })
    if (!done) throw notFound('That change')
    sayEdit(res, done.edit)
    await tellChanged(db, ...topicsOf(done.tables))
    return done.edit
  })
  return router
}

const topicsOf = (tables: readonly EditedTable[]): Topic[] => [
  'productions',
  ...(tables.includes('review') ? (['review'] as const) : []),
  ...(tables.includes('without_proxy') ? (['proxies'] as const) : []),
  ...(tables.some((table) => !['review', 'shot', 'without_proxy'].includes(table)) ? (['gear', 'cards'] as const) : []),
]
