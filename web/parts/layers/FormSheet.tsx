import type { ReactNode } from 'react'
import { Button } from '../controls/Button'
import { Sheet } from './Sheet'
import { Trouble } from '../Trouble'

interface FormSheetProps {
  readonly title: string
  readonly about: string
  readonly width?: string
  readonly onClose: () => void
  /** Called by Enter in a field and by the button; what cannot be kept yet says so under its field. */
  readonly onSave: () => Promise<void>
  /** What the button does, in words. */
  readonly save: string
  readonly busy: boolean
  readonly error: Error | null
  readonly children: ReactNode
  /** Beside the button. */
  readonly more?: ReactNode
}

/** A sheet that is a form: fields, what went wrong, and the one button that keeps it. */
export function FormSheet(props: FormSheetProps) {
  const { title, about, width, onClose, onSave, save, busy, error, children, more } = props
  return (
    <Sheet title={title} about={about} open onClose={onClose} {...(width ? { width } : {})}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void onSave()
        }}
      >
        {children}
        <Trouble error={error} />
        <div className="flex flex-wrap gap-3">
          <Button look="primary" type="submit" disabled={busy}>
            {save}
          </Button>
          {more}
        </div>
      </form>
    </Sheet>
  )
}
