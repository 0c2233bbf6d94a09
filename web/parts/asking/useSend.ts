import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { Endpoint } from '../../../contract/endpoint'
import { askAgain } from './askAgain'
import { call, type ApiProblem, type Sent } from './api'

const keys = new WeakMap<object, string>()
const keyOf = (sent: object): string => {
  const key = keys.get(sent) ?? crypto.randomUUID()
  keys.set(sent, key)
  return key
}

/**
 * Sends orders to one endpoint; what it changes is asked again afterwards, so that the page shows what became of it.
 * `atOnce` runs as soon as the order is carried out; what `mutate` is given waits for those answers too.
 */
export function useSend<Path extends string, Body, Query, Answer>(
  endpoint: Endpoint<Path, Body, Query, Answer>,
  atOnce?: () => void,
) {
  const client = useQueryClient()
  return useMutation<Answer, ApiProblem, Sent<Path, Body, Query>>({
    mutationFn: (sent) => call(endpoint, { ...sent, key: keyOf(sent) }),
    retry: (times, error) => error.problem.type === '/problems/unreachable' && times < 2,
    onSuccess: atOnce,
    onSettled: () => Promise.all(endpoint.topics.map((topic) => askAgain(client, { queryKey: [topic] }))),
  })
}
