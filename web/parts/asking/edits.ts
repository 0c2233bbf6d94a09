import { useSyncExternalStore } from 'react'
import { isTakenBack, type Edit } from '../../../core/units/edit'

/** What this window changed and can take back or do again, the newest last, and what was changed just now. */
export interface Edits {
  readonly back: readonly Edit[]
  readonly again: readonly Edit[]
  readonly latest: Edit | undefined
}

const MOST = 100
const PLACE = 'yendra-edits'
const NONE: Edits = { back: [], again: [], latest: undefined }

/** What another load of this window left; nothing of it is news. */
function remembered(): Edits {
  try {
    const { back = [], again = [] } = JSON.parse(sessionStorage.getItem(PLACE) ?? '{}') as Partial<Edits>
    return { back, again, latest: undefined }
  } catch {
    return NONE
  }
}

let edits: Edits | undefined
const listeners = new Set<() => void>()
const now = (): Edits => (edits ??= remembered())

function become(next: Edits): void {
  edits = next
  try {
    sessionStorage.setItem(PLACE, JSON.stringify({ back: next.back, again: next.again }))
  } catch {
    // Where nothing can be stored it holds until the page is loaded again.
  }
  listeners.forEach((listener) => listener())
}

/**
 * Notes a change that this window made; what is new makes everything that was taken back before a thing of the past.
 */
export function noteEdit(edit: Edit): void {
  const { back, again } = now()
  if (isTakenBack(edit)) become({ back, again: [...again, edit].slice(-MOST), latest: edit })
  else become({ back: [...back, edit].slice(-MOST), again: edit.turn === 0 ? [] : again, latest: edit })
}

/** A change that was turned, or cannot be turned any more, is offered no more. */
export function dropEdit(id: string): void {
  const { back, again, latest } = now()
  const others = (all: readonly Edit[]) => all.filter((edit) => edit.id !== id)
  become({ back: others(back), again: others(again), latest: latest?.id === id ? undefined : latest })
}

/** What was changed just now has been read. */
export const hideLatest = (): void => become({ ...now(), latest: undefined })

export const useEdits = (): Edits =>
  useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, now)

let underWay = 0
let waiting: (() => void)[] = []

/** A change is on its way, or about to be sent: the answer is called once it has come to its end. */
export function editBegins(): () => void {
  underWay += 1
  let isOver = false
  return () => {
    if (isOver) return
    isOver = true
    underWay -= 1
    if (underWay > 0) return
    for (const go of waiting) go()
    waiting = []
  }
}

/**
 * Waits for the changes that are on their way: whoever takes back what was done just now means those, not the ones
 * before.
 */
export const editsSettled = (): Promise<void> =>
  underWay === 0 ? Promise.resolve() : new Promise((go) => void waiting.push(go))

/** The change that would be taken back, or done again, now. */
export const lastEdit = (which: 'back' | 'again'): Edit | undefined => now()[which].at(-1)
