import { useEffect } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { STATIONS } from '../../core/line/stations'
import { useProductions } from '../parts/queries'

interface Keys {
  readonly productionId: string | undefined
  readonly openPalette: () => void
  readonly openHelp: () => void
}

const isTyping = (target: EventTarget | null) => target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
const primaryButton = () => document.querySelector<HTMLButtonElement>('main [data-primary]:not(:disabled)')

/** The keys that work everywhere: 0 and 1–7, n, ?, / and Ctrl K. */
export function useKeys({ productionId, openPalette, openHelp }: Keys): void {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const { data: productions } = useProductions()
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault()
        openPalette()
        return
      }
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target) || document.querySelector('[role="dialog"]')) return
      const production = productions?.find((one) => one.id === productionId) ?? productions?.[0]
      if (event.key === '/') {
        event.preventDefault()
        openPalette()
      } else if (event.key === '?') openHelp()
      else if (event.key === '0') void navigate('/')
      else if (/^[1-7]$/.test(event.key) && production) void navigate(`/p/${production.id}/${STATIONS[Number(event.key) - 1]}`)
      else if (event.key === 'n' && production) {
        const target = `/p/${production.id}/${production.next.station}`
        // At the right station already: put the finger on the button, press it with Enter.
        if (pathname === target) primaryButton()?.focus()
        else void navigate(target)
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [navigate, pathname, productionId, productions, openPalette, openHelp])
}
