import { Router } from 'express'
import { placesApi } from '../../../contract/places'
import { readers, volumes } from '../../db/queries/places'
import { foldersIn, mountedPlaces } from '../../media/choose'
import type { Context } from '../context'
import { serve } from '../route'

/** Choosing a folder, one level at a time. */
export function placeRoutes({ db, host }: Context): Router {
  const router = Router()
  const taken = async () =>
    [...(await volumes(db, host)).filter((row) => row.connected), ...(await readers(db))].map((row) => row.rootPath)

  serve(router, placesApi.mounted, async () => mountedPlaces(await taken()))
  serve(router, placesApi.inside, async ({ query: { path } }) => foldersIn(path, await taken()))
  return router
}
