import { startTransition, useOptimistic, useRef } from 'react'

/**
 * What was just chosen, shown within the press; what the server then says takes its place, also when it refused.
 * The next press begins with what is shown and is kept after the one before, so that none of two quick ones is lost.
 */
export function useAtOnce<Value>(kept: Value, keep: (next: Value) => Promise<unknown>) {
  const [shown, show] = useOptimistic(kept)
  const before = useRef<Promise<unknown>>(Promise.resolve())
  const choose = (next: Value) =>
    startTransition(async () => {
      show(next)
      before.current = before.current.then(() => keep(next)).catch(() => undefined)
      await before.current
    })
  return [shown, choose] as const
}
