import { useEffect } from 'react'

/** Names the page in the tab, in the history and for screen readers: the most particular first. */
export function usePageTitle(...parts: readonly (string | undefined)[]): void {
  const title = [...parts, 'Yendra'].filter(Boolean).join(' – ')
  useEffect(() => {
    document.title = title
  }, [title])
}
