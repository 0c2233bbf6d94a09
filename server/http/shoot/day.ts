import { Router } from 'express'
import { shootApi } from '../../../contract/shoot'
import { addOffload, clocksOff, removeOffload } from '../../db/queries/measured'
import { daySheet, planOf, putDay } from '../../db/queries/shoot'
import { tellChanged } from '../../db/queries/tasks'
import { measuredView } from '../../facts/measured'
import type { Context } from '../context'
import { notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'

/** The day of the shoot, and what was learned on days before. */
export function dayRoutes({ db }: Context): Router {
  const router = Router()

  serve(router, shootApi.day, async ({ params }) => {
    const { id, shootOn, timeZone } = await productionOf(db, params.id)
    const plan = await planOf(db, id)
    const [sheet, off] = await Promise.all([
      daySheet(db, id),
      clocksOff(
        db,
        plan.cameras.map((one) => one.cameraId),
      ),
    ])
    return { shootOn: shootOn ?? '', timeZone, ...sheet, clocksOff: off }
  })

  serve(router, shootApi.setDay, async ({ params, body }) => {
    await putDay(db, (await productionOf(db, params.id)).id, body)
    await tellChanged(db, 'productions')
  })

  serve(router, shootApi.measured, async ({ params }) => measuredView(db, (await productionOf(db, params.id)).id))

  serve(router, shootApi.addOffload, async ({ params, body }) => {
    const { id } = await productionOf(db, params.id)
    const made = await addOffload(db, { ...body, productionId: id, loadId: null, cameraId: null })
    await tellChanged(db, 'gear', 'productions')
    return made
  })

  serve(router, shootApi.removeOffload, async ({ params }) => {
    if (!(await removeOffload(db, params.id))) throw notFound('That entry')
    await tellChanged(db, 'gear', 'productions')
  })

  return router
}
