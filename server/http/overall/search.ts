import { Router } from 'express'
import { searchApi } from '../../../contract/search'
import { search } from '../../db/queries/search'
import type { Context } from '../context'
import { serve } from '../route'

/** Finding anything. */
export function searchRoutes({ db }: Context): Router {
  const router = Router()
  serve(router, searchApi.find, ({ query }) => search(db, query.q))
  return router
}
