import type { ReactNode } from 'react'
import { Button } from '../controls/Button'
import { Field } from '../controls/Field'
import { Sheet } from './Sheet'
import { Trouble } from '../Trouble'

interface FormSheetProps {
  readonly title: string
  readonly about: string
  readonly width?: string
  readonly onClose: () => void
  /** Called by Enter in a field and by the button; what cannot be kept yet says so under its field. */
  readonly onSave: () => void
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
          onSave()
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

interface NameFieldProps {
  readonly value: string
  readonly onChange: (name: string) => void
  /** Somebody has tried to keep it: a missing name is said from then on. */
  readonly tried: boolean
  readonly most?: number
}

/** The name of something, which comes first and has the focus. */
export const NameField = ({ value, onChange, tried, most = 60 }: NameFieldProps) => (
  <Field
    label="Name"
    value={value}
    maxLength={most}
    fault={tried && value.trim() === '' ? 'Give it a name.' : undefined}
    onChange={(event) => onChange(event.target.value)}
    autoFocus
  />
)
