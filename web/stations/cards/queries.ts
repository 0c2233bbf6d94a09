import { cardsApi } from '../../../contract/cards'
import { reviewApi } from '../../../contract/review'
import { useAsk } from '../../parts/asking/useAsk'
import { usePages } from '../../parts/table/usePages'

export const useReaders = () => useAsk(cardsApi.readers, {})
export const useLoads = (productionId: string) => usePages(cardsApi.loads, { id: productionId })
export const useSelects = (productionId: string) => useAsk(reviewApi.selects, { id: productionId })
