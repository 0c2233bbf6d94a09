import { useSyncExternalStore } from 'react'

let walking = false
const listeners = new Set<() => void>()

function set(now: boolean): void {
  walking = now
  for (const listener of listeners) listener()
}

/** The walk begins where somebody asks for it, and never by itself. */
export const startWalk = () => set(true)
export const leaveWalk = () => set(false)

export const useIsWalking = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => walking,
  )
