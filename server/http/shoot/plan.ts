import { Router } from 'express'
import { planFault, shootApi } from '../../../contract/shoot'
import { cardPromises, setLoadGear } from '../../db/queries/gear'
import { load } from '../../db/queries/cards'
import { offloads } from '../../db/queries/measured'
import { lastPlans, modesFit, planOf, plannedProductions, putPlan } from '../../db/queries/shoot'
import { tellChanged } from '../../db/queries/tasks'
import { isHeld } from '../../db/taken'
import { renewClocks } from '../../derived/clocks'
import { expansionLearned, offloadLearned } from '../../facts/measured'
import { dayIn } from '../../../core/units/day'
import type { Context } from '../context'
import { changedElsewhere, invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { undoably } from '../undoably'

/** A plan is changed as a whole. */
const ofPlan = (productionId: string) =>
  (['plan', 'planned_camera', 'planned_takes', 'planned_card'] as const).map((table) => ({
    ...{ table, by: 'production_id', ids: [productionId] },
  }))

const GONE = 'A camera, a mode or a card of this plan is no longer in the gear book.'

/** Station 1: what will be recorded, on which cards. */
export function planRoutes({ db }: Context): Router {
  const router = Router()
  const changed = () => tellChanged(db, 'productions', 'gear')

  serve(router, shootApi.plan, async ({ params }) => {
    const { id, shootOn } = await productionOf(db, params.id)
    const [plan, earlier, emptied, last] = await Promise.all([
      planOf(db, id),
      plannedProductions(db, id),
      offloads(db),
      lastPlans(db, id),
    ])
    const { version, takes, cameras } = plan
    return {
      version,
      shootOn,
      last,
      takes: [...takes],
      cameras: cameras.map((one) => ({ ...one, cardIds: [...one.cardIds] })),
      offload: offloadLearned(emptied),
      expansion: expansionLearned(emptied),
      earlier: earlier.map((one) => ({ id: one.id, title: one.title })),
    }
  })

  serve(router, shootApi.setPlan, async ({ params, body, res }) => {
    const { id } = await productionOf(db, params.id)
    const fault = planFault(body)
    if (fault !== undefined) throw invalid(fault, 'cameras')
    if (!(await modesFit(db, body.takes))) throw invalid(GONE, 'takes')
    try {
      const version = await undoably({ db, res }, ofPlan(id), 'The plan was changed.', async (tx) => {
        const made = await putPlan(tx, id, body)
        if (made === undefined) throw changedElsewhere()
        return made
      })
      await changed()
      return { version }
    } catch (error) {
      if (isHeld(error)) throw invalid(GONE)
      throw error
    }
  })

  serve(router, shootApi.copyPlan, async ({ params, res }) => {
    const [to, from] = await Promise.all([productionOf(db, params.id), productionOf(db, params.otherId)])
    const [plan, now] = await Promise.all([planOf(db, from.id), planOf(db, to.id)])
    const promised = new Set(
      (await cardPromises(db, dayIn(to.timeZone, Date.now())))
        .filter((one) => one.productionId !== to.id)
        .map((one) => one.cardId),
    )
    await undoably({ db, res }, ofPlan(to.id), `The plan of “${from.title}” was copied into this one.`, (tx) =>
      putPlan(tx, to.id, {
        version: now.version,
        takes: [...plan.takes],
        cameras: plan.cameras.map((one) => ({ ...one, cardIds: one.cardIds.filter((card) => !promised.has(card)) })),
      }),
    )
    await changed()
  })

  serve(router, shootApi.setLoadGear, async ({ params, body }) => {
    const about = await load(db, params.id)
    if (!about) throw notFound('That load')
    try {
      await setLoadGear(db, params.id, body)
      // Two cards of one camera share its clock.
      await renewClocks(db, about.productionId)
    } catch (error) {
      if (isHeld(error)) throw invalid('That card or camera is not in the gear book.')
      throw error
    }
    await tellChanged(db, 'gear', 'cards', 'productions', 'copies')
  })

  return router
}
