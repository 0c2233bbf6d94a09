import { X } from 'lucide-react'
import { Dialog } from 'radix-ui'
import { useState, type ReactNode } from 'react'
import { Button } from '../controls/Button'
import { giveFocusBack, LAYER, SHADE } from './layer'
import { UNKEPT } from './Leaving'

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

/**
 * A sheet laid over the page for one small job. Where something was typed into a form of it, it asks before it closes.
 */
export const Sheet = ({ open, ...props }: SheetProps) => (open ? <OpenSheet {...props} /> : null)

function OpenSheet({ title, about, onClose, children, width = 'max-w-lg' }: Omit<SheetProps, 'open'>) {
  const [touched, setTouched] = useState(false)
  const [asking, setAsking] = useState(false)
  const touch = ({ target }: { target: EventTarget }) => {
    if (target instanceof Element && target.closest('form')) setTouched(true)
  }
  return (
    <Overlay
      onClose={() => (touched ? setAsking(!asking) : onClose())}
      className={`top-[4vh] max-h-[92vh] overflow-y-auto p-6 ${width}`}
    >
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
      {asking && <Unkept onLeave={onClose} onStay={() => setAsking(false)} />}
      <div onChange={touch}>{children}</div>
    </Overlay>
  )
}

/** Asks within the sheet, so that what was typed stays in sight. The way back has the focus. */
const Unkept = ({ onLeave, onStay }: { onLeave: () => void; onStay: () => void }) => (
  <div
    role="alertdialog"
    aria-label={UNKEPT.title}
    className="sticky -top-6 z-10 -mx-6 mb-5 border-y border-ink bg-sheet px-6 py-4"
  >
    <p className="font-bold">{UNKEPT.title}</p>
    <p className="mb-3 text-quiet">{UNKEPT.about}</p>
    <div className="flex flex-wrap gap-3">
      <Button look="danger" onClick={onLeave}>
        {UNKEPT.leave}
      </Button>
      <Button autoFocus onClick={onStay}>
        Not yet
      </Button>
    </div>
  </div>
)
