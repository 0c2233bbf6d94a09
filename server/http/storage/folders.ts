import { Router } from 'express'
import { foldersApi } from '../../../contract/folders'
import { readers } from '../../db/queries/readers'
import { volumes } from '../../db/queries/volumes'
import { foldersIn, mountedPlaces } from '../../media/choose'
import type { Context } from '../context'
import { serve } from '../route'

/** Choosing a folder, one level at a time. */
export function folderRoutes({ db, host }: Context): Router {
  const router = Router()
  const taken = async () =>
    [...(await volumes(db, host)).filter((row) => row.connected), ...(await readers(db))].map((row) => row.rootPath)

  serve(router, foldersApi.mounted, async () => mountedPlaces(await taken()))
  serve(router, foldersApi.inside, async ({ query: { path } }) => foldersIn(path, await taken()))
  return router
}
