import { benchApi } from '../../contract/bench'
import { useAsk } from '../parts/asking/useAsk'

/** Whether there are simulated devices: they belong to the demo, and where there is none nothing leads to them. */
export const useHasBench = (): boolean => (useAsk(benchApi.all, {}).data?.devices.length ?? 0) > 0
