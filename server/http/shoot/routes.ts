import { Router } from 'express'
import { recordingBudget } from '../../../core/shoot/recording'
import { shootApi } from '../../../contract/shoot'
import { addCameraPlan, cameraPlans, changeCameraPlan, removeCameraPlan } from '../../db/queries/shoot'
import { tellChanged } from '../../db/queries/tasks'
import type { Context } from '../context'
import { notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'

/** Station 1: plans of cameras. */
export function shootRoutes({ db }: Context): Router {
  const router = Router()

  serve(router, shootApi.plans, async ({ params }) => {
    const rows = await cameraPlans(db, [(await productionOf(db, params.id)).id])
    return rows.map(({ id, rate, plan }) => ({ ...plan, id, rate, budget: recordingBudget(plan) }))
  })

  serve(router, shootApi.addPlan, async ({ params, body }) => {
    const { id } = await addCameraPlan(db, (await productionOf(db, params.id)).id, body)
    await tellChanged(db, 'productions')
    return { id }
  })

  serve(router, shootApi.changePlan, async ({ params, body }) => {
    if (!(await changeCameraPlan(db, params.id, body))) throw notFound('That plan')
    await tellChanged(db, 'productions')
  })

  serve(router, shootApi.removePlan, async ({ params }) => {
    if (!(await removeCameraPlan(db, params.id))) throw notFound('That plan')
    await tellChanged(db, 'productions')
  })

  return router
}
