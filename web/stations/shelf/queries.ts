import { exportsApi } from '../../../contract/exports'
import { shelfApi } from '../../../contract/shelf'
import { usePages } from '../../parts/table/usePages'

/** Bags of a production, the newest first or the oldest. */
export const useBags = (productionId: string, sorting: { readonly sort: 'written'; readonly down: boolean }) =>
  usePages(shelfApi.bags, { id: productionId }, { query: sorting })
/** What can be put on the shelf, the newest first. */
export const useFilms = (productionId: string) => usePages(exportsApi.deliverables, { id: productionId })
