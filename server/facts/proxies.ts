import type { FileCheck } from '../../core/media/check'
import type { SoundCompared } from '../../core/media/compareSound'
import type { MediaFacts } from '../../core/media/facts'
import { remarksOf } from '../../core/media/remarks'
import { checkProxy, proxyState, type ProxyState } from '../../core/proxies/check'
import { measuredShare } from '../../core/proxies/estimate'
import { HALF_SIZE, mostProxyBytes, proxyChanges, proxyFrame } from '../../core/proxies/recipe'
import { frameRateText } from '../../core/units/frameRate'
import { frameSizeText } from '../../core/units/frameSize'
import type { ProxyCounts, ProxyView } from '../../contract/proxies'
import type { CardPart } from '../db/queries/reassigned'
import type { proxyPage } from '../db/queries/proxies'

type ProxyRow = Awaited<ReturnType<typeof proxyPage>>['rows'][number]

/** What is kept of a proxy that was decoded and compared. */
export interface KeptProxy {
  readonly madeProbe: MediaFacts | null
  readonly decodedFrames: number | null
  readonly decodeErrors: number | null
  readonly timesCompared: number | null
  readonly worstSeconds: number | null
  readonly sounds: readonly SoundCompared[] | null
}

/** The checks of a proxy against its original, and what they come to; none where there is no proxy. */
export function proxyChecks(original: MediaFacts, kept: KeptProxy): { checks: FileCheck[]; state: ProxyState } {
  if (!kept.madeProbe) return { checks: [], state: 'unchecked' }
  const times =
    kept.timesCompared === null ? undefined : { frames: kept.timesCompared, worstSeconds: kept.worstSeconds ?? 0 }
  const decoded =
    kept.decodedFrames === null
      ? undefined
      : { frames: kept.decodedFrames, errors: kept.decodeErrors ?? 0, times, sounds: kept.sounds ?? undefined }
  const checks = checkProxy(original, kept.madeProbe, HALF_SIZE.fraction, decoded)
  return { checks, state: proxyState(original, checks, decoded) }
}

/** A clip with what its proxy is to be, and the one it has with the checks against its original. */
export function proxyView(row: ProxyRow): ProxyView[] {
  const { probe, path } = row
  const video = probe?.video
  if (!video) return []
  const { checks, state } = proxyChecks(probe, row)
  const made =
    path === null ? null : { volumeName: row.volumeName ?? '', path, sizeBytes: row.madeBytes ?? 0, checks, state }
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
      without: !row.proxyWanted,
      remarks: remarksOf(probe).map((remark) => remark.short),
      wanted: {
        frame: frameSizeText(proxyFrame(video, HALF_SIZE.fraction)),
        mostBytes: mostProxyBytes(probe),
        changes: proxyChanges(probe),
      },
      made,
    },
  ]
}

/** Proxies of a production’s parts of cards together, from what is counted of each. */
export function proxyCounts(
  parts: readonly CardPart[],
  samples: readonly { bytes: number; mostBytes: number }[] = [],
): ProxyCounts {
  const sum = (of: (part: CardPart) => number) => parts.reduce((total, part) => total + of(part), 0)
  const openBytes = sum((part) => part.proxyBytesOpen)
  const measured = measuredShare(samples)
  return {
    wanted: sum((part) => part.videos),
    equal: sum((part) => part.proxiesEqual),
    differ: sum((part) => part.proxiesDiffer),
    unchecked: sum((part) => part.proxiesUnchecked),
    without: sum((part) => part.proxiesWithout),
    openBytes,
    expected: measured ? { bytes: Math.round(openBytes * measured.share), clips: measured.clips } : null,
  }
}
