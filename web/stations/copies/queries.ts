import { useQuery } from '@tanstack/react-query'
import { copiesApi } from '../../../contract/copies'
import { useAsk } from '../../parts/asking/useAsk'
import { usePages } from '../../parts/table/usePages'

/** A yes is asked again every few seconds while it is on the screen, whether or not anybody tells of a change. */
export const useCopies = (productionId: string) =>
  usePages(
    copiesApi.all,
    { id: productionId },
    { again: (pages) => pages.some(({ rows }) => rows.some((load) => load.clear.clear)) && 10_000 },
  )

/** Every load of a production with its copies, the oldest first. */
export const useAllCopies = (productionId: string) => {
  const { all } = usePages(copiesApi.all, { id: productionId })
  return useQuery({
    queryKey: ['copies', productionId, 'all'],
    queryFn: async () => [...(await all())].reverse(),
  })
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

export const useSettings = () => useAsk(copiesApi.settings, {})
