import { useQuery, type UseQueryOptions } from '@tanstack/react-query'
import { addressOf, type Endpoint, type Params } from '../../../contract/endpoint'
import { call, type ApiProblem } from './api'

type More<Query, Answer> = { query?: Partial<Query> } & Partial<UseQueryOptions<Answer, ApiProblem>>

/** A question of the API. The first part of its key is the topic that server-sent events name. */
export const askOf = <Path extends string, Query, Answer>(
  endpoint: Endpoint<Path, undefined, Query, Answer>,
  params: Params<Path>,
  { query, ...more }: More<Query, Answer> = {},
) => ({
  queryKey: [endpoint.topics[0], addressOf(endpoint, params, query)],
  queryFn: () => call(endpoint, query ? { params, query } : { params }),
  ...more,
})

/** Asks it, and again when its topic is named. */
export function useAsk<Path extends string, Query, Answer>(
  endpoint: Endpoint<Path, undefined, Query, Answer>,
  params: Params<Path>,
  more: More<Query, Answer> = {},
) {
  return useQuery<Answer, ApiProblem>(askOf(endpoint, params, more))
}
