import { cardsApi } from '../../../contract/cards'
import { reviewApi } from '../../../contract/review'
import { useAsk } from '../../parts/useAsk'
import { usePages } from '../../parts/usePages'

export const useReaders = () => useAsk(cardsApi.readers, {})
export const useLoads = (productionId: string) => usePages(cardsApi.loads, { id: productionId })
export const useSelects = (productionId: string) => useAsk(reviewApi.selects, { id: productionId })
