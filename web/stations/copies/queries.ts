import { copiesApi } from '../../../contract/copies'
import { productionsApi } from '../../../contract/productions'
import { useAsk } from '../../parts/useAsk'

/** A yes is asked again every few seconds while it is on the screen, whether or not anybody tells of a change. */
export const useCopies = (productionId: string) =>
  useAsk(
    copiesApi.all,
    { id: productionId },
    { refetchInterval: ({ state }) => (state.data?.some((load) => load.clear.clear) ? 10_000 : false) },
  )

export const useSettings = () => useAsk(productionsApi.settings, {})
