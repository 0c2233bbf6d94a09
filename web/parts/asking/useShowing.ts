import { useEffect, useState } from 'react'

let showings = 0

const TICK_MS = 1000
/** A clock that was not wound for so long belongs to a computer that slept. */
const SLEPT_MS = 10_000

const ANEW = 'yendra-anew'

/** What somebody just changed is what an answer rests on: none that is older is shown any more. */
export const showAnew = () => window.dispatchEvent(new Event(ANEW))

/**
 * A number of its own for each time that somebody sees the page: it is opened, its tab is shown again, it comes back
 * from the history whole, or the computer has slept, or what it rests on was changed. What may not be older than that is asked by this number.
 */
export function useShowing(): number {
  const [showing, setShowing] = useState(() => ++showings)
  useEffect(() => {
    const next = () => setShowing(++showings)
    const onVisible = () => document.visibilityState === 'visible' && next()
    const onShow = (event: PageTransitionEvent) => event.persisted && next()
    let at = Date.now()
    const clock = setInterval(() => {
      if (Date.now() - at > SLEPT_MS) next()
      at = Date.now()
    }, TICK_MS)
    document.addEventListener('visibilitychange', onVisible)
    window.addEventListener('pageshow', onShow)
    window.addEventListener(ANEW, next)
    return () => {
      clearInterval(clock)
      document.removeEventListener('visibilitychange', onVisible)
      window.removeEventListener('pageshow', onShow)
      window.removeEventListener(ANEW, next)
    }
  }, [])
  return showing
}

/** Whether an answer that came at `at`, in milliseconds, is younger than `forMs`; drawn anew when it is no more. */
export function useIsFresh(at: number, forMs: number): boolean {
  const [staleAt, setStaleAt] = useState(0)
  useEffect(() => {
    const timer = setTimeout(() => setStaleAt(at), at + forMs - Date.now())
    return () => clearTimeout(timer)
  }, [at, forMs])
  return staleAt !== at
}
