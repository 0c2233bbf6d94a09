import { proxiesApi } from '../../../contract/proxies'
import { useAsk } from '../../parts/useAsk'

export const useProxies = (productionId: string) => useAsk(proxiesApi.all, { id: productionId })
