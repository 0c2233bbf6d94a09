import { cardsApi } from '../../contract/cards'
import { useAsk } from '../parts/asking/useAsk'

/** What is known of one clip. */
export const useClip = (id: string) => useAsk(cardsApi.clip, { id })
