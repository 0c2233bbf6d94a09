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

export const useSettings = () => useAsk(productionsApi.settings, {})
