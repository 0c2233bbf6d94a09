import { Router, type Request } from 'express'
import { freeTitle } from '../../../core/units/fileTitle'
import { offerOf } from '../../../core/cards/load/appeared'
import { cardsApi, type ScanOrder } from '../../../contract/cards'
import { noticedApi, type AppearedView } from '../../../contract/noticed'
import { appeared, appearedOne, leaveAlone } from '../../db/queries/appeared'
import { production } from '../../db/queries/productions'
import { reader as readerRow, readers } from '../../db/queries/readers'
import { readNoticed, writeNoticed } from '../../db/queries/settings'
import { tellChanged } from '../../db/queries/tasks'
import { volumes } from '../../db/queries/volumes'
import { readersView } from '../../facts/readers'
import { namableFolder } from '../../media/register'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { conflict, notFound } from '../problem'
import { serve } from '../route'
import { registerReader } from './registerReader'

/** Station 2: readers and what lies in them. */
export function readerRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  serve(router, cardsApi.readers, () => readersView(db, host))

  serve(router, cardsApi.addReader, ({ body }) => registerReader(context, body))

  serve(router, cardsApi.look, async ({ params, body, req }) => {
    const reader = await readerRow(db, params.id)
    if (!reader) throw notFound('That reader')
    if (!(await production(db, body.productionId))) throw notFound('That production')
    if (body.stay !== null && body.stay !== reader.stayId)
      throw conflict(
        `Another card lies in ${reader.name} by now, or none. Look at what is asked of it, and press again.`,
      )
    return orderScan(context, reader, body, req)
  })

  return router
}

/** What appears by itself, and the folders in which cards are noticed. */
export function noticedRoutes(context: Context): Router {
  const { db, host, looks } = context
  const router = Router()

  serve(router, noticedApi.all, async (): Promise<AppearedView[]> => {
    const known = (await volumes(db, host)).map((row) => ({ ...row, connected: row.connected === true }))
    return (await appeared(db, host))
      .filter((row) => !row.leftAlone)
      .map((row) => ({
        id: row.id,
        name: row.name,
        path: row.path,
        appearedAt: row.appearedAt.toISOString(),
        offer: offerOf({
          ...row,
          marker: row.marker === null ? undefined : { volume: known.find((one) => one.id === row.marker) },
        }),
      }))
  })

  async function asReader(appearedId: string) {
    const row = await appearedOne(db, host, appearedId)
    if (!row) throw notFound('What appeared there')
    const names = new Set((await readers(db)).filter((one) => one.host === host).map((one) => one.name))
    const name = freeTitle(row.name.slice(0, 60) || 'card', (one) => !names.has(one))
    return { id: (await registerReader(context, { name, path: row.path, sure: true })).id, name }
  }

  serve(router, noticedApi.look, async ({ params, body, req }) => {
    if (!(await production(db, body.productionId))) throw notFound('That production')
    return orderScan(context, await asReader(params.id), body, req)
  })

  serve(router, noticedApi.read, async ({ params }) => ({ id: (await asReader(params.id)).id }))

  serve(router, noticedApi.leave, async ({ params }) => {
    if (!(await leaveAlone(db, host, params.id))) throw notFound('What appeared there')
    await tellChanged(db, 'cards')
  })

  serve(router, noticedApi.folders, () => readNoticed(db))

  serve(router, noticedApi.setFolders, async ({ body: { folders } }) => {
    const real = await Promise.all(folders.map(namableFolder))
    await writeNoticed(db, { folders: [...new Set(real)] })
    await looks.ask()
    await tellChanged(db, 'gear', 'cards')
  })

  return router
}

/** Orders a scan of the card in a reader. */
async function orderScan(
  context: Context,
  reader: { readonly id: string; readonly name: string },
  { productionId, label, copy }: ScanOrder,
  req: Request,
): Promise<{ taskId: string }> {
  const taskId = await orderTask(
    context,
    req,
    {
      kind: 'scan',
      title: copy ? `Take in the card in ${reader.name}` : `Scan the card in ${reader.name}`,
      productionId,
      loadId: null,
      input: { readerId: reader.id, productionId, label, copy },
    },
    // Two scans at once would take one card for two.
    `The card in ${reader.name} is being scanned already. Wait for it.`,
  )
  return { taskId }
}
