import { useQuery } from '@tanstack/react-query'
import type { BenchView } from '../../contract/bench'
import type { LoadView, ReaderView } from '../../contract/cards'
import type { LoadCopies, Settings } from '../../contract/copies'
import type { ExportsView } from '../../contract/exports'
import type { ProductionView } from '../../contract/productions'
import type { ProxyView } from '../../contract/proxies'
import type { BagView } from '../../contract/shelf'
import type { CameraPlanView } from '../../contract/shoot'
import type { StorageView } from '../../contract/storage'
import type { TaskView } from '../../contract/tasks'
import type { Topic } from '../../contract/topics'
import { getJson } from './api'

/** Every question the pages ask. The first part of a key is the topic that server-sent events name. */
const useAsk = <T>(topic: Topic, path: string, ...more: string[]) =>
  useQuery({ queryKey: [topic, path, ...more], queryFn: () => getJson<T>(path) })

export const useProductions = () => useAsk<ProductionView[]>('productions', '/productions')
export const usePlans = (productionId: string) =>
  useAsk<CameraPlanView[]>('productions', `/productions/${productionId}/plans`)
export const useSettings = () => useAsk<Settings>('copies', '/settings')
export const useReaders = () => useAsk<ReaderView[]>('cards', '/readers')
export const useLoads = (productionId: string) => useAsk<LoadView[]>('cards', `/productions/${productionId}/loads`)
/** A yes is asked again every few seconds while it is on the screen, whether or not anybody tells of a change. */
export const useCopies = (productionId: string) => {
  const path = `/productions/${productionId}/copies`
  return useQuery({
    queryKey: ['copies', path],
    queryFn: () => getJson<LoadCopies[]>(path),
    refetchInterval: ({ state }) => (state.data?.some((load) => load.clear.clear) ? 10_000 : false),
  })
}
export const useProxies = (productionId: string) =>
  useAsk<ProxyView[]>('proxies', `/productions/${productionId}/proxies`)
export const useStorage = (productionId: string) =>
  useAsk<StorageView>('storage', `/storage?production=${productionId}`)
export const useExports = (productionId: string) =>
  useAsk<ExportsView>('exports', `/productions/${productionId}/exports`)
export const useBags = (productionId: string) => useAsk<BagView[]>('shelf', `/productions/${productionId}/bags`)
export const useBench = () => useAsk<BenchView>('bench', '/bench')
export const useTasks = () => useAsk<TaskView[]>('tasks', '/tasks')

export const isOpen = (task: TaskView) => task.state === 'queued' || task.state === 'running' || task.state === 'paused'
