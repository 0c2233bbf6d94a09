import { Router } from 'express'
import { allPass } from '../../core/media/check'
import { checkProxy } from '../../core/proxies/check'
import { HALF_SIZE, proxyBitRate, proxyFrame } from '../../core/proxies/recipe'
import { frameRateText } from '../../core/units/frameRate'
import { frameSizeText } from '../../core/units/frameSize'
import { proxyOrder, type ProxyView } from '../../contract/proxies'
import * as cards from '../db/queries/cards'
import { proxiesOf } from '../db/queries/proxies'
import { originalOf } from '../jobs/originals'
import { startTask } from '../jobs/queue'
import type { Context } from './context'
import { bodyOf } from './problem'
import { productionOf } from './productionOf'

export function proxyRoutes({ db, boss }: Context): Router {
  const router = Router()

  router.get('/productions/:id/proxies', async (req, res) => {
    const loads = await cards.loadsOf(db, [(await productionOf(db, req)).id])
    const clips = await cards.clipsOf(
      db,
      loads.map((load) => load.id),
    )
    const made = await proxiesOf(
      db,
      clips.map((clip) => clip.id),
    )
    res.json(
      clips.flatMap((clip): ProxyView[] => {
        const video = clip.probe?.video
        if (!clip.probe || !video || clip.trouble) return []
        const frame = proxyFrame(video, HALF_SIZE.fraction)
        const proxy = made.find((one) => one.clipId === clip.id)
        const checks = proxy ? checkProxy(clip.probe, proxy.probe, HALF_SIZE.fraction) : []
        return [
          {
            clipId: clip.id,
            clipName: clip.name,
            loadLabel: loads.find((load) => load.id === clip.loadId)?.label ?? '',
            frame: frameSizeText(video),
            rate: frameRateText(video.rate),
            seconds: video.seconds,
            sizeBytes: clip.sizeBytes,
            wanted: {
              frame: frameSizeText(frame),
              bitsPerSecond: proxyBitRate(frame, video.rate.num / video.rate.den, HALF_SIZE.bitsPerPixelFrame),
            },
            made: proxy
              ? {
                  volumeName: proxy.volumeName,
                  path: proxy.path,
                  sizeBytes: proxy.sizeBytes,
                  checks,
                  pass: allPass(checks),
                }
              : null,
          },
        ]
      }),
    )
  })

  router.post('/proxies', async (req, res) => {
    const { clipIds, volumeId } = await bodyOf(proxyOrder, req)
    const originals = await Promise.all([...new Set(clipIds)].map((clipId) => originalOf(db, clipId)))
    const taskIds = []
    for (const { clip } of originals) {
      taskIds.push(
        await startTask(db, boss, {
          kind: 'proxy',
          title: `Proxy of ${clip.name}`,
          productionId: clip.productionId,
          loadId: clip.loadId,
          input: { clipId: clip.id, volumeId },
        }),
      )
    }
    res.status(202).json({ taskIds })
  })

  return router
}
