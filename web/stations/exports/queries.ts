import { FIRST_FILM } from '../../../contract/firstQuestions'
import { cardsApi } from '../../../contract/cards'
import { exportsApi } from '../../../contract/exports'
import { useAsk } from '../../parts/asking/useAsk'
import { usePages } from '../../parts/table/usePages'

/** The first clip with a picture: what is framed until somebody chooses. */
export const useFirstMaster = (productionId: string) =>
  useAsk(cardsApi.clips, { id: productionId }, { query: FIRST_FILM })
export const useDeliverables = (productionId: string) => usePages(exportsApi.deliverables, { id: productionId })
