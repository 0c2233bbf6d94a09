import { checkProxy, type DecodedProxy } from '../../core/proxies/check'
import { HALF_SIZE } from '../../core/proxies/recipe'
import type { Probe } from '../../core/media/probe'
import type { proxiesOf } from '../db/queries/proxies'

type ProxyRow = Awaited<ReturnType<typeof proxiesOf>>[number]

/** The checks of a proxy against its original. */
export const proxyChecks = (original: Probe, proxy: Pick<ProxyRow, 'probe' | 'decodedFrames' | 'decodeErrors'>) => {
  const decoded: DecodedProxy | undefined =
    proxy.decodedFrames === null ? undefined : { frames: proxy.decodedFrames, errors: proxy.decodeErrors ?? 0 }
  return checkProxy(original, proxy.probe, HALF_SIZE.fraction, decoded)
}
