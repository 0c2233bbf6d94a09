import { counted } from '../units/quantity'

/** How the proxies of a production stand; equal is one that passes every check of `checkProxy`. */
export interface ProxyTally {
  readonly wanted: number
  readonly equal: number
  readonly differ: number
  readonly unchecked: number
  /** Proxies that are being made now, or wait for their turn. */
  readonly making: number
  /** Clips that are edited without a proxy; none of the other figures counts them. */
  readonly without: number
}

/** The answer of the station: a difference comes first, since it would be edited with. */
export function proxySentence({ wanted, equal, differ, unchecked, making, without }: ProxyTally): string {
  if (wanted === 0)
    return without === 1
      ? 'The one clip is edited without a proxy.'
      : `All ${without} clips are edited without proxies.`
  if (differ > 0)
    return (
      `${counted(differ, 'proxy', 'proxies')} ` +
      `${differ === 1 ? 'differs from its original' : 'differ from their originals'}: do not edit with ` +
      `${differ === 1 ? 'it' : 'them'}.`
    )
  if (unchecked > 0)
    return (
      `${counted(unchecked, 'proxy is', 'proxies are')} to be checked: the sound was not compared when ` +
      `${unchecked === 1 ? 'it was' : 'they were'} made.`
    )
  if (equal === wanted)
    return (
      `${equal === 1 ? 'The one proxy equals its' : `All ${equal} proxies equal their`} ` +
      `original${equal === 1 ? '' : 's'} in every ` +
      `check${without > 0 ? `; ${counted(without, 'clip is', 'clips are')} edited without one` : ''}.`
    )
  const have = `${equal} of ${wanted} clips ${equal === 1 ? 'has' : 'have'} a proxy`
  const underWay = `${counted(making, 'proxy is', 'proxies are')} being made`
  if (making > 0) return equal === 0 ? `${underWay}.` : `${have}; ${underWay}.`
  return equal === 0 ? `${counted(wanted, 'clip has', 'clips have')} no proxy yet.` : `${have}.`
}
