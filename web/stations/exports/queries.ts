import { exportsApi } from '../../../contract/exports'
import { useAsk } from '../../parts/useAsk'

export const useExports = (productionId: string) => useAsk(exportsApi.all, { id: productionId })
