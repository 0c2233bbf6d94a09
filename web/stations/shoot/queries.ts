import { shootApi } from '../../../contract/shoot'
import { useAsk } from '../../parts/asking/useAsk'

export const usePlan = (productionId: string) => useAsk(shootApi.plan, { id: productionId })
export const useShots = (productionId: string) => useAsk(shootApi.shots, { id: productionId })
export const useDay = (productionId: string) => useAsk(shootApi.day, { id: productionId })
export const useMeasured = (productionId: string) => useAsk(shootApi.measured, { id: productionId })
