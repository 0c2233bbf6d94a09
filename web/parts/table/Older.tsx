import { Button } from '../controls/Button'
import type { MorePages } from './usePages'

/** Asks for the next page of a list, where there is one. */
export function Older({ pages, children }: { pages: MorePages; children: string }) {
  if (!pages.hasNextPage) return null
  return (
    <Button className="mt-4" disabled={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
      {children}
    </Button>
  )
}
