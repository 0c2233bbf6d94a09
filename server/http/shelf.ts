import { Router } from 'express'
import { bagOrder, type BagView } from '../../contract/shelf'
import { deliverable } from '../db/queries/exports'
import { bagsOf } from '../db/queries/shelf'
import { volume } from '../db/queries/storage'
import { startTask } from '../jobs/queue'
import type { Context } from './context'
import { bodyOf, notFound } from './problem'
import { productionOf } from './productionOf'

export function shelfRoutes({ db, boss }: Context): Router {
  const router = Router()

  router.get('/productions/:id/bags', async (req, res) => {
    const rows = await bagsOf(db, [(await productionOf(db, req)).id])
    res.json(
      rows.map((row): BagView => ({
        id: row.id,
        title: row.path.slice(row.path.lastIndexOf('/') + 1),
        volumeName: row.volumeName,
        site: row.site,
        path: row.path,
        fileCount: row.fileCount,
        sizeBytes: row.sizeBytes,
        writtenAt: row.writtenAt.toISOString(),
        verifiedAt: row.verifiedAt?.toISOString() ?? null,
      })),
    )
  })

  router.post('/bags', async (req, res) => {
    const order = await bodyOf(bagOrder, req)
    const made = await deliverable(db, order.deliverableId)
    const target = await volume(db, order.volumeId)
    if (!made) throw notFound('That deliverable')
    if (!target) throw notFound('That volume')
    const id = await startTask(db, boss, {
      kind: 'bag',
      title: `Shelve ${made.path.slice(made.path.lastIndexOf('/') + 1)} on ${target.name}`,
      productionId: made.productionId,
      loadId: null,
      input: order,
    })
    res.status(202).json({ taskId: id })
  })

  return router
}
