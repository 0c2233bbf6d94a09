import { Router } from 'express'
import type { Endpoint } from '../../../contract/endpoint'
import { gearApi } from '../../../contract/gear'
import { productionsApi } from '../../../contract/productions'
import * as locker from '../../db/queries/locker'
import { tellChanged } from '../../db/queries/tasks'
import { changeVolume } from '../../db/queries/volumes'
import { isHeld, isTaken } from '../../db/taken'
import { lockerView } from '../../facts/gear'
import type { Context } from '../context'
import { conflict, invalid, notFound } from '../problem'
import { serve } from '../route'
import { serveChange } from '../serveChange'

type Away = Endpoint<`/${string}/:id/away`, { away: boolean }, undefined, undefined>
type Named = Endpoint<`/${string}/:id`, { name: string }, undefined, undefined>
type Erased = Endpoint<`/${string}/:id`, undefined, undefined, undefined>

const WORDS: Record<locker.Thing, string> = {
  production: 'production',
  camera: 'camera',
  recording_mode: 'mode',
  card: 'card',
  volume: 'volume',
  site: 'site',
  reader: 'reader',
  client: 'client',
}

/**
 * What can be done with everything that has a name: call it otherwise, put it away, bring it back, erase what holds
 * nothing.
 */
export function lockerRoutes({ db }: Context): Router {
  const router = Router()
  const missing = (thing: locker.Thing) => notFound(`That ${WORDS[thing]}`)
  const changed = () => tellChanged(db, 'gear', 'productions', 'storage', 'cards', 'copies')

  const canBePutAway = (endpoint: Away, thing: locker.Thing) =>
    serve(router, endpoint, async ({ params, body }) => {
      if (!(await locker.putAway(db, thing, params.id, body.away))) throw missing(thing)
      await changed()
      return undefined
    })

  const canBeRenamed = (endpoint: Named, thing: 'site' | 'reader' | 'client') =>
    serveChange(router, { db, row: thing }, endpoint, async ({ params, body }) => {
      try {
        if (!(await locker.rename(db, thing, params.id, body.name))) throw missing(thing)
      } catch (error) {
        if (isTaken(error)) throw invalid(`There is a ${WORDS[thing]} of that name already. Choose another.`, 'name')
        throw error
      }
      await changed()
      return undefined
    })

  const canBeErased = (endpoint: Erased, thing: 'camera' | 'card' | 'client') =>
    serve(router, endpoint, async ({ params }) => {
      try {
        if (!(await locker.erase(db, thing, params.id))) throw missing(thing)
      } catch (error) {
        if (isHeld(error))
          throw conflict(`Something is known of this ${WORDS[thing]}, and that stays. Put it away instead.`)
        throw error
      }
      await changed()
      return undefined
    })

  serve(router, gearApi.locker, () => lockerView(db))
  serve(router, gearApi.addClient, async ({ body }) => {
    try {
      const made = await locker.addClient(db, body.name)
      await changed()
      return made
    } catch (error) {
      if (isTaken(error)) throw invalid('There is a client of that name already.', 'name')
      throw error
    }
  })
  serveChange(router, { db, row: 'volume' }, gearApi.changeVolume, async ({ params, body }) => {
    try {
      if (!(await changeVolume(db, params.id, body))) throw missing('volume')
    } catch (error) {
      if (isTaken(error)) throw invalid('There is a volume of that name already. Choose another.', 'name')
      throw error
    }
    await changed()
  })
  canBePutAway(productionsApi.putAway, 'production')
  canBePutAway(gearApi.putCamera, 'camera')
  canBePutAway(gearApi.putMode, 'recording_mode')
  canBePutAway(gearApi.putCard, 'card')
  canBePutAway(gearApi.putClient, 'client')
  canBePutAway(gearApi.putSite, 'site')
  canBePutAway(gearApi.putVolume, 'volume')
  canBePutAway(gearApi.putReader, 'reader')
  canBeRenamed(gearApi.renameClient, 'client')
  canBeRenamed(gearApi.renameSite, 'site')
  canBeRenamed(gearApi.renameReader, 'reader')
  canBeErased(gearApi.eraseCamera, 'camera')
  canBeErased(gearApi.eraseCard, 'card')
  canBeErased(gearApi.eraseClient, 'client')
  return router
}
