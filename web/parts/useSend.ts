import { useMutation, useQueryClient } from '@tanstack/react-query'
import { sendJson, type ApiProblem } from './api'

interface Sent {
  readonly method?: 'POST' | 'PUT' | 'DELETE'
  readonly path: string
  readonly body?: object
}

/** One press is one key: an order that has to be sent twice, since the answer was lost, is carried out once. */
const keys = new WeakMap<Sent, string>()
const keyOf = (sent: Sent): string => {
  const key = keys.get(sent) ?? crypto.randomUUID()
  keys.set(sent, key)
  return key
}

/** Sends one change; every question is asked again afterwards, so that the page shows what became of it. */
export function useSend<T = unknown>() {
  const client = useQueryClient()
  return useMutation<T, ApiProblem, Sent>({
    mutationFn: (sent) => sendJson<T>(sent.method ?? 'POST', sent.path, sent.body, keyOf(sent)),
    retry: (times, error) => error.problem.type === '/problems/unreachable' && times < 2,
    onSettled: () => client.invalidateQueries(),
  })
}
