import { proxiesApi, type ProxiesAsked } from '../../../contract/proxies'
import { useAsk } from '../../parts/asking/useAsk'
import { usePages } from '../../parts/table/usePages'

export const useProxyCounts = (productionId: string) => useAsk(proxiesApi.counts, { id: productionId })
export const useProxies = (productionId: string, query: Partial<ProxiesAsked>) =>
  usePages(proxiesApi.all, { id: productionId }, { query })
