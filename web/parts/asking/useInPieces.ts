import { startTransition, useEffect, useState } from 'react'

/**
 * The first of many things that take long to draw, then some more after each drawing, so that no key and no press waits
 * for all of them.
 */
export function useInPieces<T>(all: readonly T[], piece: number): readonly T[] {
  const [shown, setShown] = useState(piece)
  const isWhole = shown >= all.length
  useEffect(() => {
    if (isWhole) return
    const timer = setTimeout(() => startTransition(() => setShown(shown + piece)))
    return () => clearTimeout(timer)
  }, [isWhole, shown, piece])
  return isWhole ? all : all.slice(0, shown)
}
