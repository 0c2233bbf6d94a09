import { shootApi } from '../../../contract/shoot'
import { useAsk } from '../../parts/useAsk'

export const usePlans = (productionId: string) => useAsk(shootApi.plans, { id: productionId })
