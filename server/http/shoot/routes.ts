import { Router } from 'express'
import { recordingBudget } from '../../../core/shoot/recording'
import { cameraPlan, type CameraPlanView } from '../../../contract/shoot'
import { addCameraPlan, cameraPlans, changeCameraPlan, removeCameraPlan } from '../../db/queries/shoot'
import { tellChanged } from '../../db/queries/tasks'
import { planOf } from '../../facts/plans'
import type { Context } from '../context'
import { bodyOf, idOf, notFound } from '../problem'
import { productionOf } from '../productionOf'

export function shootRoutes({ db }: Context): Router {
  const router = Router()

  router.get('/productions/:id/plans', async (req, res) => {
    const rows = await cameraPlans(db, [(await productionOf(db, req)).id])
    res.json(
      rows.map((row): CameraPlanView => {
        const plan = planOf(row)
        return { ...plan, id: row.id, rate: row.rate, budget: recordingBudget(plan) }
      }),
    )
  })

  router.post('/productions/:id/plans', async (req, res) => {
    const { id: productionId } = await productionOf(db, req)
    const { id } = await addCameraPlan(db, productionId, await bodyOf(cameraPlan, req))
    await tellChanged(db, 'productions')
    res.status(201).json({ id })
  })

  router.put('/plans/:id', async (req, res) => {
    if (!(await changeCameraPlan(db, idOf(req), await bodyOf(cameraPlan, req)))) throw notFound('That plan')
    await tellChanged(db, 'productions')
    res.status(204).end()
  })

  router.delete('/plans/:id', async (req, res) => {
    if (!(await removeCameraPlan(db, idOf(req)))) throw notFound('That plan')
    await tellChanged(db, 'productions')
    res.status(204).end()
  })

  return router
}
