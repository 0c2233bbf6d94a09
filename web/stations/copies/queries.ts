import { copiesApi } from '../../../contract/copies'
import { productionsApi } from '../../../contract/productions'
import { useAsk } from '../../parts/useAsk'
import { usePages } from '../../parts/usePages'

/** A yes is asked again every few seconds while it is on the screen, whether or not anybody tells of a change. */
export const useCopies = (productionId: string) =>
  usePages(
    copiesApi.all,
    { id: productionId },
    { again: (pages) => pages.some(({ rows }) => rows.some((load) => load.clear.clear)) && 10_000 },
  )

/** What a copy to these volumes would do. */
export const usePlan = (loadId: string, volumeIds: readonly string[]) =>
  useAsk(
    copiesApi.plan,
    { id: loadId },
    {
      query: { volumeIds: volumeIds.join(',') },
      enabled: volumeIds.length > 0,
      placeholderData: (before) => before,
    },
  )

export const useSettings = () => useAsk(productionsApi.settings, {})
