import { allPass } from '../../core/media/check'
import { checkProxy } from '../../core/proxies/check'
import { HALF_SIZE, proxyBitRate, proxyFrame } from '../../core/proxies/recipe'
import { frameRateText } from '../../core/units/frameRate'
import { frameSizeText } from '../../core/units/frameSize'
import type { ProxyCounts, ProxyView } from '../../contract/proxies'
import type { LoadRow } from '../db/queries/cards'
import type { proxyPage } from '../db/queries/proxies'

type ProxyRow = Awaited<ReturnType<typeof proxyPage>>['rows'][number]

/** A clip with what its proxy is to be, and the one it has with the checks against its original. */
export function proxyView(row: ProxyRow): ProxyView[] {
  const { probe, madeProbe, path } = row
  const video = probe?.video
  if (!video) return []
  const frame = proxyFrame(video, HALF_SIZE.fraction)
  const bitsPerSecond = proxyBitRate(frame, video.rate.num / video.rate.den, HALF_SIZE.bitsPerPixelFrame)
  const decoded = row.decodedFrames === null ? undefined : { frames: row.decodedFrames, errors: row.decodeErrors ?? 0 }
  const checks = madeProbe ? checkProxy(probe, madeProbe, HALF_SIZE.fraction, decoded) : []
  const made =
    path === null
      ? null
      : { volumeName: row.volumeName ?? '', path, sizeBytes: row.madeBytes ?? 0, checks, pass: allPass(checks) }
  return [
    {
      clipId: row.id,
      clipName: row.name,
      loadLabel: row.label,
      frame: frameSizeText(video),
      rate: frameRateText(video.rate),
      seconds: video.seconds,
      sizeBytes: row.sizeBytes,
      pictureMade: row.pictureMade,
      wanted: { frame: frameSizeText(frame), bitsPerSecond },
      made,
    },
  ]
}

/** Proxies of loads together, from what is counted of each. */
export function proxyCounts(loads: readonly LoadRow[]): ProxyCounts {
  const sum = (of: (load: LoadRow) => number) => loads.reduce((total, load) => total + of(load), 0)
  return {
    wanted: sum((load) => load.videos),
    equal: sum((load) => load.proxiesEqual),
    differ: sum((load) => load.proxiesDiffer),
    openBytes: sum((load) => load.proxyBytesOpen),
  }
}
