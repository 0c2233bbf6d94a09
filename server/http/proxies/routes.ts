import { Router, type Request } from 'express'
import { proxiesApi } from '../../../contract/proxies'
import * as cards from '../../db/queries/cards'
import { cardParts } from '../../db/queries/reassigned'
import { volume } from '../../db/queries/volumes'
import { production } from '../../db/queries/productions'
import { clipsToProxy, clipsWithoutProxy, proxyPage, proxySamples, sayWithoutProxy } from '../../db/queries/proxies'
import { proxyCounts, proxyView } from '../../facts/proxies'
import { tellChanged } from '../../db/queries/tasks'
import { originalOf } from '../../media/originals'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { notFound, ProblemError } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'
import { undoably } from '../undoably'

const withoutOne = (name: string, without: boolean) =>
  without ? `“${name}” is edited without a proxy.` : `A proxy of “${name}” is wanted.`
const withoutMany = (many: number, without: boolean) =>
  without ? `${many} clips are edited without proxies.` : `Proxies of ${many} clips are wanted.`

/** Station 4: proxies and their checks. */
export function proxyRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  serve(router, proxiesApi.all, async ({ params, query }) => {
    const { rows, next } = await proxyPage(db, (await productionOf(db, params.id)).id, query)
    return { rows: rows.flatMap(proxyView), next }
  })

  serve(router, proxiesApi.counts, async ({ params }) => {
    const { id } = await productionOf(db, params.id)
    return proxyCounts(await cardParts(db, [id]), await proxySamples(db, id))
  })

  serve(router, proxiesApi.estimate, async ({ params, req }) => {
    const { id: productionId } = await productionOf(db, params.id)
    const [first] = await clipsToProxy(db, productionId)
    if (first !== undefined) await originalOf(db, first)
    const order = {
      kind: 'estimate',
      title: 'Measure what the proxies will have',
      productionId,
      loadId: null,
      input: { productionId },
    } as const
    return { taskId: await orderTask(context, req, order, 'It is being measured already. Wait for it.') }
  })

  serve(router, proxiesApi.recheck, async ({ params, body: { all }, req }) => {
    const { id: productionId, title } = await productionOf(db, params.id)
    const order = {
      kind: 'recheck',
      title: `Compare the proxies of “${title}” with their originals`,
      productionId,
      loadId: null,
      input: { productionId, all },
    } as const
    return { taskId: await orderTask(context, req, order, 'They are being compared already. Wait for it.') }
  })

  serve(router, proxiesApi.make, async ({ body: { clipIds, productionId, volumeId }, req }) => {
    const wanted = clipIds ?? (await missingOf(productionId ?? ''))
    // One original is looked for before anything is ordered: without any, nothing could begin.
    const [first] = wanted
    if (first !== undefined) await originalOf(db, first)
    if (!(await volume(db, host, volumeId))) throw notFound('That volume')
    const taskIds = await orderProxies(context, req, wanted, volumeId)
    // Whoever orders one by name wants it again.
    if (clipIds) {
      await sayWithoutProxy(db, clipIds, false)
      await tellChanged(db, 'productions')
    }
    return { taskIds }
  })

  serve(router, proxiesApi.doWithout, async ({ body: { clipIds, productionId, without }, res }) => {
    const all = clipIds ?? (await (without ? missingOf : withoutOf)(productionId ?? ''))
    const [first] = all
    if (first === undefined) return
    const clip = await cards.clip(db, first)
    await undoably(
      { db, res },
      [{ table: 'without_proxy', by: 'media_file_id', ids: all }],
      all.length === 1 ? withoutOne(clip?.name ?? '', without) : withoutMany(all.length, without),
      async (tx) => {
        if ((await sayWithoutProxy(tx, all, without)) < new Set(all).size) throw notFound('One of these clips')
      },
    )
    await tellChanged(db, 'proxies', 'productions')
  })

  async function withoutOf(productionId: string): Promise<string[]> {
    if (!(await production(db, productionId))) throw notFound('That production')
    return clipsWithoutProxy(db, productionId)
  }

  async function missingOf(productionId: string): Promise<string[]> {
    if (!(await production(db, productionId))) throw notFound('That production')
    return clipsToProxy(db, productionId)
  }

  return router
}

/** Orders a proxy of each clip, and gives the tasks; of many, those that are under way already need no second order. */
async function orderProxies(
  context: Context,
  req: Request,
  clipIds: readonly string[],
  volumeId: string,
): Promise<string[]> {
  const taskIds: string[] = []
  for (const clipId of new Set(clipIds)) {
    const clip = await cards.clip(context.db, clipId)
    if (!clip) throw notFound('One of these clips')
    const { productionId, loadId, name } = clip
    const order = {
      kind: 'proxy',
      title: `Proxy of ${name}`,
      productionId,
      loadId,
      input: { clipId, volumeId },
    } as const
    const isMade = `A proxy of ${name} is being made already.`
    const id = await orderTask(context, req, order, isMade, ` ${clipId}`).catch((error: unknown) => {
      if (error instanceof ProblemError && clipIds.length > 1) return undefined
      throw error
    })
    if (id !== undefined) taskIds.push(id)
  }
  return taskIds
}
