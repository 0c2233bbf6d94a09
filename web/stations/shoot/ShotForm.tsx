import { useState } from 'react'
import { useController } from 'react-hook-form'
import { number } from 'yup'
import { DESTINATIONS } from '../../../core/exports/destination'
import { MOST_PASSES } from '../../../core/shoot/shots'
import { shootApi, shotBody, type ShotView } from '../../../contract/shoot'
import { Button } from '../../parts/controls/Button'
import { Tick } from '../../parts/controls/Tick'
import { FormChoice, FormField, FormName } from '../../parts/form/fields'
import { numberIn, useTyped, type TypedForm } from '../../parts/form/useTyped'
import { FormSheet } from '../../parts/layers/FormSheet'
import { useSend } from '../../parts/asking/useSend'

interface ShotFormProps {
  readonly productionId: string
  readonly shot: ShotView | undefined
  readonly cameras: readonly { readonly id: string; readonly name: string }[]
  readonly onClose: () => void
}

const NO_CAMERA = 'none'

const PASSES_FAULT = `A whole number from 1 to ${MOST_PASSES}.`
const shotAndPasses = shotBody.shape({
  passes: number().required().typeError(PASSES_FAULT).min(1, PASSES_FAULT).max(MOST_PASSES, PASSES_FAULT),
})

const readPasses = (text: string) => (/^\s*\d{1,2}\s*$/.test(text) ? { value: Number(text) } : { fault: PASSES_FAULT })

const typedOf = (shot: ShotView | undefined) => ({
  name: shot?.name ?? '',
  cameraId: shot?.cameraId ?? NO_CAMERA,
  deliverables: [...(shot?.deliverables ?? [])],
  notes: shot?.notes ?? '',
  passes: '1',
})

/** A new shot, or the passes of one performance, or a change of a shot. */
export function ShotForm({ productionId, shot, cameras, onClose }: ShotFormProps) {
  const add = useSend(shootApi.addShots)
  const change = useSend(shootApi.changeShot)
  const remove = useSend(shootApi.removeShot)
  const [seen] = useState(shot?.version)
  const { control, handleSubmit, watch } = useTyped(shotAndPasses, typedOf(shot), (typed) => ({
    ...typed,
    cameraId: typed.cameraId === NO_CAMERA ? null : typed.cameraId,
    passes: numberIn(typed.passes, readPasses),
  }))
  const count = Number(watch('passes'))
  const save = handleSubmit(({ passes, ...body }) => {
    if (shot) return change.mutate({ params: { id: shot.id }, body, seen }, { onSuccess: onClose })
    const shots = [{ ...body, filmedAt: null }]
    add.mutate({ params: { id: productionId }, body: { shots, passes } }, { onSuccess: onClose })
  })
  return (
    <FormSheet
      title={shot ? `Change “${shot.name}”` : 'Add a shot'}
      about={
        shot
          ? 'Its tick stays as it is.'
          : 'One performance filmed several times from other places becomes as many numbered shots.'
      }
      onClose={onClose}
      onSave={save}
      save={shot ? 'Save the change' : count > 1 && count <= MOST_PASSES ? `Add ${count} shots` : 'Add the shot'}
      busy={add.isPending || change.isPending}
      error={add.error ?? change.error ?? remove.error}
      more={
        shot && (
          <Button
            look="danger"
            disabled={remove.isPending}
            onClick={() => remove.mutate({ params: { id: shot.id } }, { onSuccess: onClose })}
          >
            Remove from the list
          </Button>
        )
      }
    >
      <FormName control={control} name="name" most={120} />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <FormChoice
          control={control}
          name="cameraId"
          label="Camera"
          className="mb-5"
          options={[
            { value: NO_CAMERA, label: 'any camera' },
            ...cameras.map((camera) => ({ value: camera.id, label: camera.name })),
          ]}
        />
        {!shot && <FormField control={control} name="passes" label="Times it is filmed" />}
      </div>
      <Destinations control={control} />
      <FormField control={control} name="notes" label="Notes" maxLength={500} />
    </FormSheet>
  )
}

/** What a shot is filmed for. */
function Destinations<Body>({ control }: Pick<TypedForm<ReturnType<typeof typedOf>, Body>, 'control'>) {
  const { field } = useController({ control, name: 'deliverables' })
  const wanted = field.value
  return (
    <fieldset className="mb-4">
      <legend className="mb-1 text-sm font-semibold">For</legend>
      <div className="grid gap-y-1.5 sm:grid-cols-2">
        {DESTINATIONS.map(({ id, name }) => (
          <Tick
            key={id}
            checked={wanted.includes(id)}
            onChange={(checked) => field.onChange(checked ? [...wanted, id] : wanted.filter((one) => one !== id))}
          >
            {name}
          </Tick>
        ))}
      </div>
    </fieldset>
  )
}
