import { useState } from 'react'
import { Link } from 'react-router'
import { formatLength, parseLength } from '../../../core/units/quantity'
import type { GearView } from '../../../contract/gear'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { Field } from '../../parts/controls/Field'
import { Sheet } from '../../parts/layers/Sheet'

interface AddCameraProps {
  readonly book: GearView
  readonly onAdd: (cameraId: string, seconds: number) => void
  readonly onClose: () => void
}

/** A camera of the gear book and its minutes: the rest is as it was last time. */
export function AddCamera({ book, onAdd, onClose }: AddCameraProps) {
  const cameras = book.cameras.filter((camera) => !camera.away && camera.modes.some((mode) => !mode.away))
  const [cameraId, setCameraId] = useState(cameras[0]?.id ?? '')
  const [typed, setTyped] = useState('')
  const [tried, setTried] = useState(false)
  const seconds = parseLength(typed)
  const usable = seconds !== undefined && seconds >= 1 && seconds <= 86_400
  return (
    <Sheet
      title="Add a camera"
      about="Cards of the gear book that fit are put into it at once; change whatever you like afterwards."
      open
      onClose={onClose}
    >
      {cameras.length === 0 ? (
        <p>
          The gear book is empty.{' '}
          <Link to="/locker/gear" className="text-accent underline underline-offset-4">
            Write your first camera into it
          </Link>
          , with one mode that it records in.
        </p>
      ) : (
        <form
          noValidate
          onSubmit={(event) => {
            event.preventDefault()
            setTried(true)
            if (usable) onAdd(cameraId, seconds)
          }}
        >
          <div className="grid gap-x-4 sm:grid-cols-2">
            <Choice
              label="Camera"
              className="mb-5"
              value={cameraId}
              onChange={setCameraId}
              options={cameras.map((camera) => ({ value: camera.id, label: camera.name }))}
            />
            <Field
              label="Minutes of a take"
              placeholder="20 min, 1h20, 2:30"
              value={typed}
              hint={seconds === undefined ? undefined : `that is ${formatLength(seconds)}`}
              fault={
                usable || (typed === '' && !tried) ? undefined : 'Write it as 20 min, 1h20 or 2:30, at most a day.'
              }
              onChange={(event) => setTyped(event.target.value)}
              autoFocus
            />
          </div>
          <Button look="primary" type="submit">
            Add to the plan
          </Button>
        </form>
      )}
    </Sheet>
  )
}
