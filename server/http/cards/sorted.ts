import { Router } from 'express'
import { sortedApi } from '../../../contract/sorted'
import { lastChanges, putByHand, putSortedView, sortedView } from '../../db/queries/sorted'
import { tellChanged } from '../../db/queries/tasks'
import { volume as volumeRow } from '../../db/queries/volumes'
import { sortedPage, sortedPlace } from '../../facts/sortedPage'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict, invalid } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { undoably } from '../undoably'
import { counted } from '../../../core/units/quantity'

/** The sorted view of a production. */
export function sortedRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  serve(router, sortedApi.one, async ({ params }) => sortedPage(db, host, (await productionOf(db, params.id)).id))

  serve(router, sortedApi.set, async ({ params, body: { volumeId, ...settings } }) => {
    const { id } = await productionOf(db, params.id)
    if (!(await volumeRow(db, host, volumeId))) throw invalid('That volume is not known.', 'volumeId')
    const before = await sortedView(db, id)
    if (before.settings.editBegun && before.volumeId !== null && before.volumeId !== volumeId)
      throw conflict('The edit has begun on the volume where the view lies: it stays there.')
    await putSortedView(db, id, { volumeId, settings })
    await tellChanged(db, 'review', 'productions')
  })

  serve(router, sortedApi.putByHand, async ({ params, body: { clipIds, folder }, res }) => {
    const { id } = await productionOf(db, params.id)
    const { settings } = await sortedView(db, id)
    if (folder !== null && !settings.template.some((one) => one.path === folder))
      throw invalid('That is no folder of the template.', 'folder')
    const what = counted(clipIds.length, 'clip')
    const title = folder === null ? `${what} left to the rules.` : `${what} for ${folder}.`
    const touched = [{ table: 'review', by: 'media_file_id', ids: clipIds }] as const
    await undoably({ db, res }, touched, title, (tx) => putByHand(tx, id, clipIds, folder))
    await tellChanged(db, 'review')
  })

  const order = async (productionId: string, undo: boolean, req: Parameters<typeof orderTask>[1]) => {
    const owner = await productionOf(db, productionId)
    const { row, settings } = await sortedPlace(db, host, owner.id)
    if (!row) throw conflict('No volume is connected. Connect the edit volume first.')
    if (undo && settings.editBegun) throw conflict('The edit has begun: what lies in the view stays where it is.')
    if (undo && !(await lastChanges(db, owner.id))) throw conflict('There is nothing to take back.')
    // What was shown is what is done: the way that this volume can.
    await putSortedView(db, owner.id, { volumeId: row.id, settings })
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'sort',
        title: undo ? `Take the last sorting of “${owner.title}” back` : `Sort “${owner.title}” on ${row.name}`,
        productionId: owner.id,
        loadId: null,
        input: { productionId: owner.id, undo },
      },
      'The sorted view is being changed already. Wait for it.',
    )
    return { taskId }
  }

  serve(router, sortedApi.sort, ({ params, req }) => order(params.id, false, req))
  serve(router, sortedApi.undo, ({ params, req }) => order(params.id, true, req))

  return router
}
