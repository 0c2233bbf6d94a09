import { QueryClient } from '@tanstack/react-query'
import { ApiProblem } from '../parts/asking/api'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // What the server refused will not change by asking again.
      retry: (count, error) => !(error instanceof ApiProblem && error.problem.status < 500) && count < 2,
    },
  },
})
