import { gearApi } from '../../contract/gear'
import { productionsApi } from '../../contract/productions'
import { rulesApi } from '../../contract/rules'
import { storageApi } from '../../contract/storage'
import { tasksApi, type TaskView } from '../../contract/tasks'
import { useAsk } from '../parts/asking/useAsk'
import { usePages } from '../parts/table/usePages'

/** Questions that several stations ask. */
export const useProductions = (enabled = true) => usePages(productionsApi.all, {}, { enabled })
export const useProduction = (id: string | undefined) =>
  useAsk(productionsApi.one, { id: id ?? '' }, { enabled: id !== undefined })
export const useStorage = (productionId: string) => useAsk(storageApi.all, { id: productionId })
export const useVolumes = () => useAsk(storageApi.volumes, {})
export const useGear = () => useAsk(gearApi.all, {})
export const useLocker = () => useAsk(gearApi.locker, {})
export const useRules = () => useAsk(rulesApi.all, {})
export const useTasks = () => useAsk(tasksApi.recent, {})

export const isOpen = (task: TaskView) => task.state === 'queued' || task.state === 'running' || task.state === 'paused'
