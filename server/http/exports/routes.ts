import { Router } from 'express'
import { deliveryBitRate, destinationOf, predictedBytes } from '../../../core/exports/destination'
import { windowFault } from '../../../core/exports/reframe'
import { allPass } from '../../../core/media/check'
import { frameRateText } from '../../../core/units/frameRate'
import { exportsApi, type DeliverableView, type MasterView } from '../../../contract/exports'
import * as cards from '../../db/queries/cards'
import { deliverablesOf } from '../../db/queries/exports'
import { deliveryChecks } from '../../facts/deliveries'
import { originalOf } from '../../media/originals'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { invalid } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'

export function exportRoutes(context: Context): Router {
  const { db } = context
  const router = Router()

  serve(router, exportsApi.all, async ({ params }) => {
    const { id: productionId } = await productionOf(db, params.id)
    const loads = await cards.loadsOf(db, [productionId])
    const [clips, rows] = await Promise.all([
      cards.clipsOf(
        db,
        loads.map((load) => load.id),
      ),
      deliverablesOf(db, [productionId]),
    ])
    return {
      masters: clips.flatMap(({ id, name, probe, trouble }): MasterView[] =>
        probe?.video && !trouble
          ? [
              {
                clipId: id,
                name,
                widthPx: probe.video.widthPx,
                heightPx: probe.video.heightPx,
                rate: frameRateText(probe.video.rate),
                seconds: probe.video.seconds,
                withSound: probe.audio !== undefined,
              },
            ]
          : [],
      ),
      deliverables: rows.map((row): DeliverableView => {
        const destination = destinationOf(row.destinationId)
        const master = row.master?.video
        const checks = deliveryChecks(row)
        const predicted =
          destination && master
            ? predictedBytes(
                deliveryBitRate(destination, master.rate.num / master.rate.den),
                row.master?.audio ? destination.audioBitsPerSecond : 0,
                master.seconds,
              )
            : 0
        return {
          id: row.id,
          clipName: row.clipName,
          destinationName: destination?.name ?? row.destinationId,
          window: row.cropWindow,
          volumeId: row.volumeId,
          volumeName: row.volumeName,
          path: row.path,
          sizeBytes: row.sizeBytes,
          predictedBytes: predicted,
          madeAt: row.madeAt.toISOString(),
          checks,
          pass: allPass(checks),
        }
      }),
    }
  })

  serve(router, exportsApi.render, async ({ body: order, req }) => {
    const destination = destinationOf(order.destinationId)
    if (!destination) throw invalid('This destination is not known. Choose one from the list.', 'destinationId')
    const { clip, video } = await originalOf(db, order.clipId)
    const fault = windowFault(order.window, video)
    if (fault) throw invalid(fault, 'window')
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
