import { useLayoutEffect, useRef } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { STATIONS } from '../../core/line/stations'
import type { ProductionView } from '../../contract/productions'
import { headlineOf, nextPath } from '../trade/headline'
import { isLayerOpen } from '../parts/layers/openLayers'
import { EVERYWHERE, shortcutOf } from '../parts/shortcuts'
import { useProduction, useProductions } from '../trade/queries'

interface Keys {
  readonly productionId: string | undefined
  /** While something is open, or about to open, single letters mean nothing. */
  readonly quiet: boolean
  readonly openPalette: () => void
  readonly openHelp: () => void
}

/** Where *n* leads while the page is not there yet, and whether it was pressed once more on the way. */
interface Way {
  readonly to: string | undefined
  readonly again: boolean
}

/** Whether letters go into a field. */
export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
/** Puts the focus on the page's main button, as soon as the page has one. */
function focusMainButton(timeoutMs = 2000): void {
  const button = document.querySelector<HTMLElement>('main [data-primary]:not(:disabled)')
  if (button) button.focus()
  else if (timeoutMs > 0) setTimeout(() => focusMainButton(timeoutMs - 50), 50)
}

/** Takes the first card in that waits; where nobody can tell for which production, that is asked first. */
function takeIn(): void {
  const button = document.querySelector<HTMLButtonElement>('[data-take-in]')
  if (button?.disabled) button.parentElement?.querySelector<HTMLElement>('[role="combobox"]')?.focus()
  else button?.click()
}

/** Answers to the keys that work everywhere, but for those that take back a change (`EditNotice.tsx`). */
export function useKeys({ productionId, quiet, openPalette, openHelp }: Keys): void {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const { data: here, isFetching, refetch } = useProduction(productionId)
  const { data: productions } = useProductions(productionId === undefined)
  // On the pages of a production the keys never lead to another one, also before it is known.
  const production = productionId === undefined ? headlineOf(productions?.rows ?? []) : here
  const way = useRef<Way>({ to: undefined, again: false })
  useLayoutEffect(() => {
    const { to, again } = way.current
    way.current = { to: undefined, again: false }
    if (again && pathname === to) focusMainButton()
  }, [pathname])
  // What is heard and what is drawn change together: after the drawing a press would meet the page of before.
  useLayoutEffect(() => {
    const goTo = (target: string) => {
      // At the right station already: put the finger on the button, press it with Enter.
      if (pathname === target) focusMainButton()
      else {
        way.current = { to: target, again: way.current.to === target }
        void navigate(target, { replace: window.location.pathname === target })
      }
    }
    const goNext = async (known: ProductionView) => {
      // While it is asked again, what is shown may be older than what the person has just done.
      const fresh = here && isFetching ? (await refetch({ cancelRefetch: false })).data : known
      goTo(nextPath(fresh ?? known))
    }
    const onKey = (event: KeyboardEvent) => {
      const pressed = shortcutOf(EVERYWHERE, event)
      // The overview itself says what comes first.
      const first = pathname === '/' ? document.querySelector<HTMLAnchorElement>('main a[data-primary]') : null
      if (!pressed || ((quiet || isTyping(event.target) || isLayerOpen()) && !event.ctrlKey && !event.metaKey)) return
      if (pressed === 'find') {
        event.preventDefault()
        openPalette()
      } else if (pressed === 'keys') openHelp()
      else if (pressed === 'takeIn') takeIn()
      else if (pressed === 'overview') void navigate('/')
      else if (pressed === 'station' && (productionId ?? production))
        void navigate(`/p/${productionId ?? production?.id}/${STATIONS[Number(event.key) - 1]}`)
      else if (pressed === 'next' && first) void navigate(first.pathname)
      else if (pressed === 'next' && production) void goNext(production)
      // In an empty world the first production comes next.
      else if (pressed === 'next' && productions) goTo('/')
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [
    navigate,
    pathname,
    productionId,
    production,
    productions,
    here,
    isFetching,
    refetch,
    quiet,
    openPalette,
    openHelp,
  ])
}
