import type { StayMark } from '../../core/cards/load/stay'
import { mountedFrom, numberedMedium } from '../engine/medium/device'
import type { ReaderContent } from './mediumOf'

/**
 * By what a stay in a reader is told from the next one, all but the name of its file system, which costs more to ask.
 */
export async function stayPlace(
  { simulated }: { readonly simulated: boolean },
  { medium }: ReaderContent,
): Promise<Omit<StayMark, 'volumeUid'>> {
  const [place, source] = await Promise.all([medium.place(), simulated ? '' : mountedFrom(medium.root).catch(() => '')])
  return { place, source }
}

/** Whether another medium in the same place would be noticed. */
export const tellsSwaps = (
  { simulated }: { readonly simulated: boolean },
  { medium }: ReaderContent,
): Promise<boolean> => (simulated ? Promise.resolve(true) : numberedMedium(medium.root).catch(() => false))
