import { AlertDialog } from 'radix-ui'
import { useState, type ReactNode } from 'react'
import { Button } from '../controls/Button'
import { LAYER, SHADE, giveFocusBack } from './layer'
import { Trouble } from '../Trouble'

interface ConfirmProps {
  readonly title: string
  readonly about: string
  /** Exactly what will be gone, and where it still exists. */
  readonly children: ReactNode
  /** What the press does, in words. */
  readonly action: string
  readonly onAction: () => void
  readonly busy: boolean
  readonly error: Error | null
  readonly onClose: () => void
}

/** Asks before something that cannot be taken back. The way out has the focus, and a press beside it does nothing. */
export function Confirm({ title, about, children, action, onAction, busy, error, onClose }: ConfirmProps) {
  // Taken before anything inside can have the focus.
  const [opener] = useState(() => document.activeElement)
  return (
    <AlertDialog.Root open onOpenChange={(next) => !next && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className={SHADE} />
        <AlertDialog.Content
          className={`${LAYER} top-[4vh] max-h-[92vh] max-w-lg overflow-y-auto p-6`}
          onCloseAutoFocus={(event) => giveFocusBack(event, opener)}
        >
          <AlertDialog.Title asChild>
            <h2 className="mb-1 text-xl">{title}</h2>
          </AlertDialog.Title>
          <AlertDialog.Description className="mb-4 text-quiet">{about}</AlertDialog.Description>
          {children}
          <Trouble error={error} />
          <div className="flex flex-wrap gap-3">
            <Button look="danger" disabled={busy} onClick={onAction}>
              {action}
            </Button>
            <AlertDialog.Cancel asChild>
              <Button>Not yet</Button>
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  )
}
