import { useMutation, useQueryClient } from '@tanstack/react-query'
import { sendJson, type ApiProblem } from './api'

interface Sent {
  readonly method?: 'POST' | 'PUT' | 'DELETE'
  readonly path: string
  readonly body?: object
}

/** Sends one change; every question is asked again afterwards, so that the page shows what became of it. */
export function useSend<T = unknown>() {
  const client = useQueryClient()
  return useMutation<T, ApiProblem, Sent>({
    mutationFn: ({ method = 'POST', path, body }) => sendJson<T>(method, path, body),
    onSettled: () => client.invalidateQueries(),
  })
}
