import { Router } from 'express'
import { shelfApi, type BagView } from '../../../contract/shelf'
import { deliverable } from '../../db/queries/exports'
import { bagCounts, bagPage } from '../../db/queries/shelf'
import { volume } from '../../db/queries/volumes'
import { passes } from '../../facts/deliveries'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { invalid, notFound } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { fileNameOf } from '../../../core/units/filePath'

/** Station 7: bags. */
export function shelfRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  serve(router, shelfApi.bags, async ({ params, query }) => {
    const { id } = await productionOf(db, params.id)
    const [{ rows, next }, [counts]] = await Promise.all([bagPage(db, id, query), bagCounts(db, [id])])
    return {
      written: counts?.written ?? 0,
      volumeNames: counts?.volumes ?? [],
      next,
      rows: rows.map((row): BagView => ({
        id: row.id,
        title: fileNameOf(row.path),
        volumeName: row.volumeName,
        site: row.site,
        path: row.path,
        fileCount: row.fileCount,
        sizeBytes: row.sizeBytes,
        writtenAt: row.writtenAt.toISOString(),
        verifiedAt: row.verifiedAt?.toISOString() ?? null,
      })),
    }
  })

  serve(router, shelfApi.shelve, async ({ body: order, req }) => {
    const made = await deliverable(db, order.deliverableId)
    const target = await volume(db, host, order.volumeId)
    if (!made) throw notFound('That deliverable')
    if (!target) throw notFound('That volume')
    if (!passes(made) && !order.why)
      throw invalid('This film fails a check. Render it again, or say why it goes on the shelf all the same.', 'why')
    const title = fileNameOf(made.path)
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'bag',
        title: `Shelve ${title} on ${target.name}`,
        productionId: made.productionId,
        loadId: null,
        input: order,
      },
      `${title} is being put on the shelf on ${target.name} already. Wait for it, or stop it first.`,
    )
    return { taskId }
  })

  return router
}
