import { Router } from 'express'
import { allPass } from '../../../core/media/check'
import { HALF_SIZE, proxyBitRate, proxyFrame } from '../../../core/proxies/recipe'
import { frameRateText } from '../../../core/units/frameRate'
import { frameSizeText } from '../../../core/units/frameSize'
import { proxiesApi, type ProxyView } from '../../../contract/proxies'
import * as cards from '../../db/queries/cards'
import { volume } from '../../db/queries/places'
import { production } from '../../db/queries/productions'
import { proxiesOf } from '../../db/queries/proxies'
import { proxyChecks } from '../../facts/proxies'
import { originalOf } from '../../media/originals'
import type { Context } from '../context'
import { orderTask } from '../orderTask'
import { notFound, ProblemError } from '../problem'
import { productionOf } from '../productionOf'
import { serve } from '../route'

export function proxyRoutes(context: Context): Router {
  const { db, host } = context
  const router = Router()

  /** Every clip of a production that can have a proxy, with the one it has. */
  async function proxiable(productionId: string) {
    const loads = await cards.loadsOf(db, [productionId])
    const clips = await cards.clipsOf(
      db,
      loads.map((load) => load.id),
    )
    const made = new Map((await proxiesOf(db, [productionId])).map((proxy) => [proxy.clipId, proxy]))
    const labels = new Map(loads.map((load) => [load.id, load.label]))
    return clips.flatMap((clip) => {
      const { probe } = clip
      const video = probe?.video
      if (!probe || !video || clip.trouble) return []
      const proxy = made.get(clip.id)
      const checks = proxy ? proxyChecks(probe, proxy) : []
      return [{ clip, probe, video, proxy, checks, label: labels.get(clip.loadId) ?? '' }]
    })
  }

  serve(router, proxiesApi.all, async ({ params }) => {
    const all = await proxiable((await productionOf(db, params.id)).id)
    return all.map(({ clip, video, proxy, checks, label }): ProxyView => {
      const frame = proxyFrame(video, HALF_SIZE.fraction)
      const bitsPerSecond = proxyBitRate(frame, video.rate.num / video.rate.den, HALF_SIZE.bitsPerPixelFrame)
      return {
        clipId: clip.id,
        clipName: clip.name,
        loadLabel: label,
        frame: frameSizeText(video),
        rate: frameRateText(video.rate),
        seconds: video.seconds,
        sizeBytes: clip.sizeBytes,
        wanted: { frame: frameSizeText(frame), bitsPerSecond },
        made: proxy
          ? {
              volumeName: proxy.volumeName,
              path: proxy.path,
              sizeBytes: proxy.sizeBytes,
              checks,
              pass: allPass(checks),
            }
          : null,
      }
    })
  })

  serve(router, proxiesApi.make, async ({ body: { clipIds, productionId, volumeId }, req }) => {
    const wanted = clipIds ?? (await missingOf(productionId ?? ''))
    // One original is looked for before anything is ordered: without any, nothing could begin.
    const [first] = wanted
    if (first !== undefined) await originalOf(db, first)
    if (!(await volume(db, host, volumeId))) throw notFound('That volume')
    const taskIds = []
    for (const clipId of new Set(wanted)) {
      const clip = await cards.clip(db, clipId)
      if (!clip) throw notFound('One of these clips')
      const { productionId: owner, loadId, name } = clip
      const order = {
        kind: 'proxy',
        title: `Proxy of ${name}`,
        productionId: owner,
        loadId,
        input: { clipId, volumeId },
      } as const
      const id = await orderTask(context, req, order, `A proxy of ${name} is being made already.`, ` ${clipId}`).catch(
        (error: unknown) => {
          // Of many, those that are under way already need no second order.
          if (error instanceof ProblemError && wanted.length > 1) return undefined
          throw error
        },
      )
      if (id !== undefined) taskIds.push(id)
    }
    return { taskIds }
  })

  async function missingOf(productionId: string): Promise<string[]> {
    if (!(await production(db, productionId))) throw notFound('That production')
    return (await proxiable(productionId)).flatMap(({ clip, checks }) => (allPass(checks) ? [] : clip.id))
  }

  return router
}
