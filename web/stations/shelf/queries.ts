import { exportsApi } from '../../../contract/exports'
import { shelfApi } from '../../../contract/shelf'
import { usePages } from '../../parts/usePages'

export const useBags = (productionId: string) => usePages(shelfApi.bags, { id: productionId })
/** What can be put on the shelf, the newest first. */
export const useFilms = (productionId: string) => usePages(exportsApi.deliverables, { id: productionId })
