import { Router } from 'express'
import { ALGORITHM_WORDS } from '../../../core/copies/lists/algorithm'
import { fileNameOf } from '../../../core/units/filePath'
import { listsApi } from '../../../contract/lists'
import { isListCheck, listChecks, listFindings, writtenList, writtenLists } from '../../db/queries/lists'
import { listsFolder } from '../../home'
import { nearLists } from '../../media/nearLists'
import { readableFile, readableFolder, someFolder } from '../../media/someFolder'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { invalid, notFound } from '../problem'
import { serve, serveStream } from '../route'

/** Checksum lists of anybody: compared with a folder, and written. */
export function listRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  serve(router, listsApi.near, ({ query: { path } }) => nearLists(db, host, path))

  serve(router, listsApi.checks, async ({ query }) => {
    const { rows, next } = await listChecks(db, query)
    return {
      rows: rows.map(({ id, folder, list, checked, endedAt }) => ({
        ...checked,
        id,
        folder,
        list,
        endedAt: endedAt.toISOString(),
      })),
      next,
    }
  })

  serve(router, listsApi.findings, async ({ params, query }) => {
    if (!(await isListCheck(db, params.id))) throw notFound('That comparison')
    const { rows, next } = await listFindings(db, params.id, query.kind, query)
    return {
      rows: rows.map(({ id, kind, pathText, line, detail }) => ({ id, kind, path: pathText, line, detail })),
      next,
    }
  })

  orderRoutes(router, context)
  serve(router, listsApi.written, async ({ query }) => {
    const { rows, next } = await writtenLists(db, query)
    return {
      rows: rows.map(({ id, folder, algorithm, lines, path, name, checkedIn, writtenAt }) => ({
        ...{ id, folder, algorithm, lines, path, name, checkedIn },
        writtenAt: writtenAt.toISOString(),
      })),
      next,
    }
  })

  serveStream(router, listsApi.file, async ({ params, res }) => {
    const row = await writtenList(db, params.id)
    if (!row || row.path !== null) throw notFound('That list')
    res.type('application/octet-stream').attachment(row.name)
    await new Promise<void>((done, fail) =>
      res.sendFile(`${row.taskId}.${row.algorithm}`, { root: listsFolder() }, (error) => {
        if (error && !res.headersSent) fail(notFound('That list'))
        else done()
      }),
    )
  })
  return router
}

/** What is ordered: a comparison, and a list. */
function orderRoutes(router: Router, context: Context): void {
  const { db, host } = context

  serve(router, listsApi.verify, async ({ body, req }) => {
    const folder = await readableFolder(body.folder)
    const list = body.list === '' ? '' : await readableFile(body.list)
    if (list === undefined) throw invalid(`There is no file at ${body.list}. Choose the list again.`, 'list')
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'verify',
        title: `Compare ${fileNameOf(folder)} with ${list === '' ? 'its manifests' : fileNameOf(list)}`,
        ...{ productionId: null, loadId: null, input: { folder, list } },
      },
      'That folder is being compared with that list already. Wait for it, or stop it first.',
    )
    return { taskId }
  })

  serve(router, listsApi.write, async ({ body, req }) => {
    const folder = await readableFolder(body.folder)
    if (body.where === 'beside' && !(await someFolder(db, host, folder))?.volume)
      throw invalid(
        'It lies on no registered volume, so nothing is written there. Take the list for download.',
        'where',
      )
    const taskId = await orderTask(
      context,
      req,
      {
        kind: 'list',
        title: `List ${fileNameOf(folder)} with ${ALGORITHM_WORDS[body.algorithm]}`,
        ...{ productionId: null, loadId: null, input: { ...body, folder } },
      },
      'That list is being written already. Wait for it, or stop it first.',
    )
    return { taskId }
  })
}
