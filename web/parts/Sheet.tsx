import { X } from 'lucide-react'
import { Dialog } from 'radix-ui'
import { useState, type ReactNode } from 'react'

/** Look of what lies over the page, and of what dims it. */
export const LAYER = 'fixed left-1/2 z-50 w-[calc(100vw-2rem)] -translate-x-1/2 rounded-box border border-ink bg-paper'
export const SHADE = 'fixed inset-0 z-40 bg-[rgb(10_16_19/0.55)]'

/** The focus returns to what opened a layer, or to the page when that is gone. */
export function giveFocusBack(event: Event, opener: Element | null): void {
  event.preventDefault()
  if (opener instanceof HTMLElement && opener.isConnected) opener.focus()
  else document.getElementById('page')?.focus()
}

interface OverlayProps {
  readonly onClose: () => void
  readonly children: ReactNode
  readonly className: string
}

/** A layer over the page. Closes with Escape and by a press beside it; the focus returns to what opened it. */
export function Overlay({ onClose, children, className }: OverlayProps) {
  // Taken before anything inside can have the focus.
  const [opener] = useState(() => document.activeElement)
  return (
    <Dialog.Root open onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={SHADE} />
        <Dialog.Content className={`${LAYER} ${className}`} onCloseAutoFocus={(event) => giveFocusBack(event, opener)}>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

interface SheetProps {
  readonly title: string
  readonly about: string
  readonly open: boolean
  readonly onClose: () => void
  readonly children: ReactNode
  readonly width?: string
}

/** A sheet laid over the page for one small job. */
export function Sheet({ title, about, open, onClose, children, width = 'max-w-lg' }: SheetProps) {
  if (!open) return null
  return (
    <Overlay onClose={onClose} className={`top-[4vh] max-h-[92vh] overflow-y-auto p-6 ${width}`}>
      <div className="flex items-start justify-between gap-4">
        <Dialog.Title asChild>
          <h2 className="mb-1 text-xl">{title}</h2>
        </Dialog.Title>
        <Dialog.Close
          aria-label="Close"
          className="-mt-1 -mr-2 flex size-9 shrink-0 items-center justify-center rounded-box text-quiet hover:bg-wash hover:text-ink"
        >
          <X className="size-5" aria-hidden />
        </Dialog.Close>
      </div>
      <Dialog.Description className="mb-4 text-quiet">{about}</Dialog.Description>
      {children}
    </Overlay>
  )
}
