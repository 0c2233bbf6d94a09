import { cardsApi } from '../../../contract/cards'
import { exportsApi } from '../../../contract/exports'
import { useAsk } from '../../parts/asking/useAsk'
import { usePages } from '../../parts/table/usePages'

/** The first clip with a picture: what is framed until somebody chooses. */
export const useFirstMaster = (productionId: string) =>
  useAsk(cardsApi.clips, { id: productionId }, { query: { show: 'film', limit: 1 } })
export const useDeliverables = (productionId: string) => usePages(exportsApi.deliverables, { id: productionId })
