import { Router } from 'express'
import { destinationOf } from '../../../core/exports/destination'
import { deliveryPlan } from '../../../core/exports/plan'
import { shownFrame, windowFault } from '../../../core/exports/reframe'
import { exportsApi, type DeliverableView } from '../../../contract/exports'
import { deliverablePage, type DeliverableRow } from '../../db/queries/exports'
import { deliveryChecks, deliveryPlanOf, passes } from '../../facts/deliveries'
import { originalOf } from '../../media/originals'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict, invalid } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'

/** Station 6: deliverables and their checks. */
export function exportRoutes(context: Context): Router {
  const { db } = context
  const router = Router()

  serve(router, exportsApi.deliverables, async ({ params, query }) => {
    const { rows, next } = await deliverablePage(db, (await productionOf(db, params.id)).id, query)
    return { rows: rows.map(deliverableView), next }
  })

  serve(router, exportsApi.render, async ({ body: order, req }) => {
    const destination = destinationOf(order.destinationId)
    if (!destination) throw invalid('This destination is not known. Choose one from the list.', 'destinationId')
    const { clip, video, probe } = await originalOf(db, order.clipId)
    const fault = windowFault(order.window, shownFrame(video))
    if (fault) throw invalid(fault, 'window')
    if (order.soundTrack !== null && !probe.sounds.some((track) => track.index === order.soundTrack))
      throw invalid('This master has no such sound track. Choose one from the list.', 'soundTrack')
    const refused = deliveryPlan(probe, destination, order.window, order)?.fault
    if (refused) throw conflict(refused)
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'render',
        title: `${destination.name} from ${clip.name}`,
        productionId: clip.productionId,
        loadId: clip.loadId,
        input: order,
      },
      `${destination.name} is being rendered from just this window already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  return router
}

function deliverableView(row: DeliverableRow): DeliverableView {
  return {
    id: row.id,
    clipName: row.clipName,
    destinationName: destinationOf(row.destinationId)?.name ?? row.destinationId,
    window: row.cropWindow,
    volumeId: row.volumeId,
    volumeName: row.volumeName,
    path: row.path,
    sizeBytes: row.sizeBytes,
    predictedBytes: deliveryPlanOf(row)?.sizeBytes ?? 0,
    madeAt: row.madeAt.toISOString(),
    checks: deliveryChecks(row),
    pass: passes(row),
  }
}
