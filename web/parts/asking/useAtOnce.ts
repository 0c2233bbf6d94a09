import { useRef, useState } from 'react'

/**
 * What was just chosen, shown within the press; what the server then says takes its place, also when it refused.
 * The next press begins with what is shown and is kept after the one before, so that none of two quick ones is lost.
 */
export function useAtOnce<Value>(kept: Value, keep: (next: Value) => Promise<unknown>) {
  // No transition of React: the way to another page would wait for the server's answer too.
  const [chosen, setChosen] = useState<{ readonly value: Value }>()
  const before = useRef<Promise<unknown>>(Promise.resolve())
  const choose = (value: Value) => {
    const mine = { value }
    setChosen(mine)
    before.current = before.current
      .then(() => keep(value))
      .catch(() => undefined)
      .finally(() => setChosen((latest) => (latest === mine ? undefined : latest)))
  }
  return [chosen ? chosen.value : kept, choose] as const
}
