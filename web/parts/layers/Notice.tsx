import { X } from 'lucide-react'
import { Toast } from 'radix-ui'
import type { ReactNode } from 'react'
import { Button } from '../controls/Button'

interface NoticeProps {
  /** Good news goes by itself after so long, but not while somebody rests on it; trouble stays until it was seen. */
  readonly staysMs: number
  readonly onDismiss: () => void
  readonly children: ReactNode
}

/** What has just happened elsewhere, said once and reached with F8. */
export function Notice({ staysMs, onDismiss, children }: NoticeProps) {
  return (
    <Toast.Provider label="News" swipeDirection="down">
      <Toast.Root
        open
        type={staysMs === Infinity ? 'foreground' : 'background'}
        duration={staysMs}
        onOpenChange={(open) => !open && onDismiss()}
        className="flex items-start justify-between gap-4"
      >
        <Toast.Description asChild>
          <div>{children}</div>
        </Toast.Description>
        <Toast.Close asChild>
          <Button look="quiet" className="!px-1.5" aria-label="Dismiss">
            <X className="size-4" aria-hidden />
          </Button>
        </Toast.Close>
      </Toast.Root>
      <Toast.Viewport label="News, {hotkey}" className="list-none" />
    </Toast.Provider>
  )
}
