import { Router } from 'express'
import { rigsApi } from '../../../contract/rigs'
import { refuseRig, tieRig, untieRig } from '../../db/queries/rigs'
import { tellChanged } from '../../db/queries/tasks'
import { isTaken } from '../../db/taken'
import { renewRigs } from '../../derived/rigs'
import { rigsView } from '../../facts/rigs'
import type { Context } from '../context'
import { conflict, invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'

/** Cards that are the lenses of one rig. */
export function rigRoutes({ db }: Context): Router {
  const router = Router()
  const told = () => tellChanged(db, 'cards', 'review', 'productions', 'copies')

  serve(router, rigsApi.all, async ({ params }) => rigsView(db, (await productionOf(db, params.id)).id))

  serve(router, rigsApi.tie, async ({ params, body }) => {
    const { id } = await productionOf(db, params.id)
    const isTied = await tieRig(db, id, body).catch((error: unknown) => {
      if (isTaken(error)) throw invalid(`There is a rig called ${body.name} already.`, 'name')
      throw error
    })
    if (!isTied)
      throw conflict(
        'One of these cards is not of this production, or is in a rig already. Check which cards belong ' +
          'together, and try again.',
      )
    await renewRigs(db, id)
    await told()
  })

  serve(router, rigsApi.refuse, async ({ params, body }) => {
    const { id } = await productionOf(db, params.id)
    await refuseRig(db, id, body.loadIds)
    await renewRigs(db, id)
    await told()
  })

  serve(router, rigsApi.untie, async ({ params }) => {
    const productionId = await untieRig(db, params.id)
    if (productionId === undefined) throw notFound('That rig')
    await renewRigs(db, productionId)
    await told()
  })

  return router
}
