import { useStateNow } from './StateLine'

/** Whether there are simulated devices: they belong to the demo, and where there is none nothing leads to them. */
export const useHasBench = (): boolean => useStateNow().data?.hasBench === true
