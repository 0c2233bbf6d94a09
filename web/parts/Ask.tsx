import type { UseQueryResult } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Button } from './Button'
import { Trouble } from './Trouble'

/** Shows what a question returned, a quiet line while it is asked, and the trouble with a way out when it failed. */
export function Ask<T>({ query, children }: { query: UseQueryResult<T>; children: (answer: T) => ReactNode }) {
  if (query.data !== undefined) return children(query.data)
  if (query.isError) {
    return (
      <>
        <Trouble error={query.error} />
        <Button onClick={() => void query.refetch()}>Ask again</Button>
      </>
    )
  }
  return (
    <p className="text-quiet" aria-live="polite">
      One moment …
    </p>
  )
}
