import { Router } from 'express'
import { shootApi } from '../../../contract/shoot'
import { addOffload, clocksOff, removeOffload } from '../../db/queries/measured'
import { daySheet, planOf, putDay } from '../../db/queries/shoot'
import { dayVersion } from '../../db/queries/versions'
import { tellChanged } from '../../db/queries/tasks'
import { measuredView } from '../../facts/measured'
import type { Context } from '../context'
import { notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { serveChange } from '../serveChange'

/** The day of the shoot, and what was learned on days before. */
export function dayRoutes({ db }: Context): Router {
  const router = Router()

  serve(router, shootApi.day, async ({ params }) => {
    const { id, shootOn, timeZone } = await productionOf(db, params.id)
    const plan = await planOf(db, id)
    const [version, sheet, off] = await Promise.all([
      dayVersion(db, id),
      daySheet(db, id),
      clocksOff(
        db,
        plan.cameras.map((one) => one.cameraId),
      ),
    ])
    return { version: version ?? '', shootOn: shootOn ?? '', timeZone, ...sheet, clocksOff: off }
  })

  serveChange(router, { db, row: 'day' }, shootApi.setDay, async ({ params, body }) => {
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
