import type { ReactNode } from 'react'
import { Button } from '../controls/Button'
import { Trouble } from '../Trouble'

/** As much of a question as is needed to show its answer. */
interface Question<T> {
  readonly data: T | undefined
  readonly isError: boolean
  readonly error: Error | null
  readonly refetch: () => unknown
}

/** Shows what a question returned, a quiet line while it is asked, and the trouble with a way out when it failed. */
export function Ask<T>({ query, children }: { query: Question<T>; children: (answer: T) => ReactNode }) {
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
