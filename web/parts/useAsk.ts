import { useQuery, type UseQueryOptions } from '@tanstack/react-query'
import { addressOf, type Endpoint, type Params } from '../../contract/endpoint'
import { call, type ApiProblem } from './api'

/** Asks a question of the API. The first part of its key is the topic that server-sent events name. */
export function useAsk<Path extends string, Query, Answer>(
  endpoint: Endpoint<Path, undefined, Query, Answer>,
  params: Params<Path>,
  { query, ...more }: { query?: Partial<Query> } & Partial<UseQueryOptions<Answer, ApiProblem>> = {},
) {
  return useQuery<Answer, ApiProblem>({
    queryKey: [endpoint.topics[0], addressOf(endpoint, params, query)],
    queryFn: () => call(endpoint, query ? { params, query } : { params }),
    ...more,
  })
}
