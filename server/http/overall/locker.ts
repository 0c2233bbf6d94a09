import { Router } from 'express'
import type { Endpoint } from '../../../contract/endpoint'
import { gearApi } from '../../../contract/gear'
import { productionsApi } from '../../../contract/productions'
import { rulesApi } from '../../../contract/rules'
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
  clear_rule: 'rule',
}

/**
 * What can be done with everything that has a name: call it otherwise, put it away, bring it back, erase what holds
 * nothing.
 */
export function lockerRoutes({ db, host }: Context): Router {
  const router = Router()
  const missing = (thing: locker.Thing) => notFound(`That ${WORDS[thing]}`)
  const changed = () => tellChanged(db, 'gear', 'productions', 'storage', 'cards', 'copies')

  const canBePutAway = (endpoint: Away, thing: locker.Thing) =>
    serve(router, endpoint, async ({ params, body }) => {
      if (!(await locker.putAway(db, thing, params.id, body.away))) throw missing(thing)
      await changed()
      return undefined
    })

  async function kept(
    thing: 'site' | 'reader' | 'client' | 'volume',
    write: () => Promise<unknown>,
  ): Promise<undefined> {
    try {
      if (!(await write())) throw missing(thing)
    } catch (error) {
      if (isTaken(error)) throw invalid(`There is a ${WORDS[thing]} of that name already. Choose another.`, 'name')
      if (isHeld(error)) throw notFound('That rule')
      throw error
    }
    await changed()
    return undefined
  }

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

  serve(router, gearApi.locker, () => lockerView(db, host))
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
  serveChange(router, { db, row: 'volume' }, gearApi.changeVolume, ({ params, body }) =>
    kept('volume', () => changeVolume(db, params.id, body)),
  )
  serveChange(router, { db, row: 'client' }, gearApi.changeClient, ({ params, body }) =>
    kept('client', () => locker.changeClient(db, params.id, body)),
  )
  serveChange(router, { db, row: 'site' }, gearApi.changeSite, ({ params, body }) =>
    kept('site', () => locker.changeSite(db, params.id, body)),
  )
  serveChange(router, { db, row: 'reader' }, gearApi.renameReader, ({ params, body }) =>
    kept('reader', () => locker.rename(db, 'reader', params.id, body.name)),
  )
  canBePutAway(productionsApi.putAway, 'production')
  canBePutAway(gearApi.putCamera, 'camera')
  canBePutAway(gearApi.putMode, 'recording_mode')
  canBePutAway(gearApi.putCard, 'card')
  canBePutAway(gearApi.putClient, 'client')
  canBePutAway(gearApi.putSite, 'site')
  canBePutAway(gearApi.putVolume, 'volume')
  canBePutAway(gearApi.putReader, 'reader')
  canBePutAway(rulesApi.putAway, 'clear_rule')
  canBeErased(gearApi.eraseCamera, 'camera')
  canBeErased(gearApi.eraseCard, 'card')
  canBeErased(gearApi.eraseClient, 'client')
  return router
}
