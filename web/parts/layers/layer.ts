/** Look of what lies over the page, and of what dims it. */
export const LAYER = 'fixed left-1/2 z-50 w-[calc(100vw-2rem)] -translate-x-1/2 rounded-box border border-ink bg-paper'
export const SHADE = 'fixed inset-0 z-40 bg-[rgb(10_16_19/0.55)]'

/** The focus returns to what opened a layer, or to the page when that is gone. */
export function giveFocusBack(event: Event, opener: Element | null): void {
  event.preventDefault()
  if (opener instanceof HTMLElement && opener.isConnected) opener.focus()
  else document.getElementById('page')?.focus()
}
