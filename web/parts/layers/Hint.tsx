import { Tooltip } from 'radix-ui'
import type { ReactNode } from 'react'

/** A few words about a control, for whoever rests on it with the pointer or comes to it with the keyboard. */
export function Hint({ words, children }: { words: string; children: ReactNode }) {
  return (
    <Tooltip.Provider delayDuration={400}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={6}
            collisionPadding={8}
            className="z-60 max-w-72 rounded-box border border-ink bg-sheet px-2.5 py-1.5 text-sm text-ink"
          >
            {words}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  )
}
