import { useEffect } from 'react'

const isDisabled = (element: HTMLElement) => element.matches(':disabled, [aria-disabled="true"]')

/**
 * A press may take away the very thing that was pressed, or disable it while the order is under way; the browser then lets
 * the focus drop to nothing, and the keyboard begins at the top again. It goes back to what had it, else to the page.
 */
export function useKeptFocus(): void {
  useEffect(() => {
    let last: HTMLElement | undefined
    let lost = false
    const remember = ({ target }: FocusEvent) => {
      if (target instanceof HTMLElement) [last, lost] = [target, false]
    }
    const look = () => {
      if (!last || (document.activeElement !== document.body && document.activeElement !== null)) return
      if (!last.isConnected) {
        last = undefined
        document.getElementById('page')?.focus({ preventScroll: true })
      } else if (isDisabled(last)) lost = true
      else if (lost) last.focus({ preventScroll: true })
    }
    // Whoever presses beside everything wants the focus nowhere.
    const leave = () => {
      if (last?.isConnected && !isDisabled(last) && document.activeElement === document.body) last = undefined
    }
    const changes = new MutationObserver(look)
    changes.observe(document.body, { subtree: true, childList: true, attributeFilter: ['disabled', 'aria-disabled'] })
    document.addEventListener('focusin', remember)
    document.addEventListener('pointerup', leave)
    return () => {
      changes.disconnect()
      document.removeEventListener('focusin', remember)
      document.removeEventListener('pointerup', leave)
    }
  }, [])
}
