import { Link } from 'react-router'
import { number, object, string } from 'yup'
import { formatLength, parseLength, readLength } from '../../../core/units/quantity'
import type { GearView } from '../../../contract/gear'
import { Button } from '../../parts/controls/Button'
import { FormChoice, FormField } from '../../parts/form/fields'
import { numberIn, useTyped } from '../../parts/form/useTyped'
import { Sheet } from '../../parts/layers/Sheet'

interface AddCameraProps {
  readonly book: GearView
  readonly onAdd: (cameraId: string, seconds: number) => void
  readonly onClose: () => void
}

const LENGTH_FAULT = 'Write it as 20 min, 1h20 or 2:30, at most a day.'
const cameraAndMinutes = object({
  cameraId: string().required(),
  seconds: number().required().typeError(LENGTH_FAULT).min(1, LENGTH_FAULT).max(86_400, LENGTH_FAULT),
})

/** A camera of the gear book and its minutes: the rest is as it was last time. */
export function AddCamera({ book, onAdd, onClose }: AddCameraProps) {
  const cameras = book.cameras.filter((camera) => !camera.away && camera.modes.some((mode) => !mode.away))
  const { control, handleSubmit, watch } = useTyped(
    cameraAndMinutes,
    { cameraId: cameras[0]?.id ?? '', seconds: '' },
    (typed) => ({ ...typed, seconds: numberIn(typed.seconds, readLength) }),
  )
  const seconds = parseLength(watch('seconds'))
  const add = handleSubmit((chosen) => onAdd(chosen.cameraId, chosen.seconds))
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
        <form noValidate onSubmit={(event) => void add(event)}>
          <div className="grid gap-x-4 sm:grid-cols-2">
            <FormChoice
              control={control}
              name="cameraId"
              label="Camera"
              className="mb-5"
              options={cameras.map((camera) => ({ value: camera.id, label: camera.name }))}
            />
            <FormField
              control={control}
              name="seconds"
              label="Minutes of a take"
              placeholder="20 min, 1h20, 2:30"
              hint={seconds === undefined ? undefined : `that is ${formatLength(seconds)}`}
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
