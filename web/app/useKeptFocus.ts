import { useEffect } from 'react'

/** So long a page is left alone with what it changes. */
const PAUSE_MS = 100
/** So often an order that was pressed is waited for before the page gets the focus. */
const MOST_TURNS = 15

const isDisabled = (element: HTMLElement) => element.matches(':disabled, [aria-disabled="true"]')

/**
 * A press may take away the very thing that was pressed, or disable it while the order is under way; the browser then
 * lets the focus drop to nothing, and the keyboard begins at the top again. It goes back to what had it, else to the
 * page.
 */
export function useKeptFocus(): void {
  useEffect(() => {
    let last: HTMLElement | undefined
    let lost = false
    let timer: ReturnType<typeof setTimeout> | undefined
    const remember = ({ target }: FocusEvent) => {
      if (target instanceof HTMLElement) [last, lost] = [target, false]
    }
    const look = () => {
      if (!last) return
      // What is disabled loses the focus only when the page is drawn next, and may be enabled again by then.
      if (last.isConnected && isDisabled(last)) lost = true
      wait(0)
    }
    const wait = (turns: number) => {
      timer ??= setTimeout(() => {
        timer = undefined
        giveBack(turns)
      }, PAUSE_MS)
    }
    const giveBack = (turns: number) => {
      if (!last || (document.activeElement !== document.body && document.activeElement !== null)) return
      if (last.isConnected && !isDisabled(last)) {
        if (lost) last.focus({ preventScroll: true })
      } else if (last.isConnected && turns < MOST_TURNS) wait(turns + 1)
      else {
        last = undefined
        document.getElementById('page')?.focus({ preventScroll: true })
      }
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
      clearTimeout(timer)
      changes.disconnect()
      document.removeEventListener('focusin', remember)
      document.removeEventListener('pointerup', leave)
    }
  }, [])
}
