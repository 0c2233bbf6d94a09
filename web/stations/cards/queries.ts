import { cardsApi } from '../../../contract/cards'
import { useAsk } from '../../parts/useAsk'

export const useReaders = () => useAsk(cardsApi.readers, {})
export const useLoads = (productionId: string) => useAsk(cardsApi.loads, { id: productionId })
