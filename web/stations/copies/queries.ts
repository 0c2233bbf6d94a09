import { copiesApi, type LoadCopies } from '../../../contract/copies'
import { useAsk } from '../../parts/asking/useAsk'
import { useIsFresh, useShowing } from '../../parts/asking/useShowing'
import { usePages } from '../../parts/table/usePages'

const hasYes = (loads: readonly LoadCopies[]) => loads.some((load) => load.clear.clear)

/** A yes is asked again every ten seconds, and a scan may take twenty: what is older belongs to nobody who answers. */
const FRESH_MS = 45_000

/**
 * What is known at once, then what card and drives say. A yes comes with their answer alone, never from an earlier
 * showing of the page; it is asked again every few seconds while it is on the screen, and goes where nobody answers.
 */
export function useCopies(productionId: string) {
  const checked = usePages(
    copiesApi.all,
    { id: productionId },
    {
      showing: useShowing(),
      again: (pages) => pages.some(({ rows }) => hasYes(rows)) && 10_000,
    },
  )
  const isFresh = useIsFresh(checked.dataUpdatedAt, FRESH_MS)
  const holds = checked.data !== undefined && !checked.isError && (isFresh || !hasYes(checked.data.rows))
  const known = usePages(copiesApi.known, { id: productionId }, { enabled: !holds })
  return holds ? checked : known
}

/** What a copy to these volumes would do. */
export const usePlan = (loadId: string, volumeIds: readonly string[], from: string | null) =>
  useAsk(
    copiesApi.plan,
    { id: loadId },
    {
      query: { volumeIds: volumeIds.join(','), from: from ?? '' },
      enabled: volumeIds.length > 0,
      placeholderData: (before) => before,
    },
  )

/** What copying every card in a reader to these volumes would do. */
export const useNight = (productionId: string, volumeIds: readonly string[]) =>
  useAsk(
    copiesApi.night,
    { id: productionId },
    { query: { volumeIds: volumeIds.join(',') }, placeholderData: (before) => before },
  )
