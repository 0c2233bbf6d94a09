import { exportsApi } from '../../../contract/exports'
import { shelfApi } from '../../../contract/shelf'
import { useAsk } from '../../parts/useAsk'

export const useBags = (productionId: string) => useAsk(shelfApi.bags, { id: productionId })
/** What can be put on the shelf. */
export const useDeliverables = (productionId: string) => useAsk(exportsApi.all, { id: productionId })
