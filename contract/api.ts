import type { Schema } from 'yup'
import { benchApi } from './bench'
import { chartApi } from './chart'
import { cardsApi } from './cards'
import { rulesApi } from './rules'
import { copiesApi } from './copies'
import { editsApi } from './edits'
import type { Endpoint } from './endpoint'
import { exportsApi } from './exports'
import { foldersApi } from './folders'
import { gearApi } from './gear'
import { listsApi } from './lists'
import { noticedApi } from './noticed'
import { reviewApi } from './review'
import { rigsApi } from './rigs'
import { productionsApi } from './productions'
import { proxiesApi } from './proxies'
import { searchApi } from './search'
import { shelfApi } from './shelf'
import { shootApi } from './shoot'
import { sortedApi } from './sorted'
import { storageApi } from './storage'
import { unattendedApi } from './unattended'
import { stateApi } from './state'
import { tasksApi } from './tasks'

/** An endpoint of whatever kind, as those who go through all of them see it. */
export type AnyEndpoint = Pick<Endpoint, 'method' | 'path' | 'status' | 'topics'> & {
  readonly body?: Schema
  readonly query?: Schema
}

const STATIONS: readonly Readonly<Record<string, AnyEndpoint>>[] = [
  productionsApi,
  gearApi,
  reviewApi,
  shootApi,
  cardsApi,
  noticedApi,
  rigsApi,
  sortedApi,
  copiesApi,
  rulesApi,
  chartApi,
  listsApi,
  proxiesApi,
  storageApi,
  foldersApi,
  exportsApi,
  shelfApi,
  unattendedApi,
  editsApi,
  tasksApi,
  stateApi,
  searchApi,
  benchApi,
]

/** The whole API but the stream of events, in the order of the stations. */
export const ENDPOINTS: readonly AnyEndpoint[] = STATIONS.flatMap((station) => Object.values(station))

/** Server-sent events: which topics changed, and how tasks go. */
export const EVENTS_PATH = '/events'
