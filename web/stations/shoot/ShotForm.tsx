import { useState } from 'react'
import { DESTINATIONS } from '../../../core/exports/destination'
import { MOST_PASSES } from '../../../core/shoot/shots'
import { shootApi, type ShotView } from '../../../contract/shoot'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { Field } from '../../parts/controls/Field'
import { FormSheet, NameField } from '../../parts/layers/FormSheet'
import { Tick } from '../../parts/controls/Tick'
import { useSend } from '../../parts/asking/useSend'

interface ShotFormProps {
  readonly productionId: string
  readonly shot: ShotView | undefined
  readonly cameras: readonly { readonly id: string; readonly name: string }[]
  readonly onClose: () => void
}

const NO_CAMERA = 'none'

/** A new shot, or the passes of one performance, or a change of a shot. */
export function ShotForm({ productionId, shot, cameras, onClose }: ShotFormProps) {
  const add = useSend(shootApi.addShots)
  const change = useSend(shootApi.changeShot)
  const remove = useSend(shootApi.removeShot)
  const [seen] = useState(shot?.version)
  const [name, setName] = useState(shot?.name ?? '')
  const [cameraId, setCameraId] = useState(shot?.cameraId ?? NO_CAMERA)
  const [deliverables, setDeliverables] = useState(shot?.deliverables ?? [])
  const [notes, setNotes] = useState(shot?.notes ?? '')
  const [passes, setPasses] = useState('1')
  const [tried, setTried] = useState(false)
  const count = /^\d{1,2}$/.test(passes.trim()) ? Number(passes) : 0
  const countWrong = count < 1 || count > MOST_PASSES
  const error = add.error ?? change.error ?? remove.error
  const save = () => {
    setTried(true)
    if (name.trim() === '' || countWrong) return
    const body = { name, cameraId: cameraId === NO_CAMERA ? null : cameraId, deliverables: [...deliverables], notes }
    if (shot) change.mutate({ params: { id: shot.id }, body, seen }, { onSuccess: onClose })
    else
      add.mutate(
        { params: { id: productionId }, body: { shots: [{ ...body, filmedAt: null }], passes: count } },
        { onSuccess: onClose },
      )
  }
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
      save={shot ? 'Save the change' : count > 1 && !countWrong ? `Add ${count} shots` : 'Add the shot'}
      busy={add.isPending || change.isPending}
      error={error}
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
      <NameField value={name} onChange={setName} tried={tried} most={120} />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <Choice
          label="Camera"
          className="mb-5"
          value={cameraId}
          onChange={setCameraId}
          options={[
            { value: NO_CAMERA, label: 'any camera' },
            ...cameras.map((camera) => ({ value: camera.id, label: camera.name })),
          ]}
        />
        {!shot && (
          <Field
            label="Times it is filmed"
            value={passes}
            fault={countWrong ? `A whole number from 1 to ${MOST_PASSES}.` : undefined}
            onChange={(event) => setPasses(event.target.value)}
          />
        )}
      </div>
      <fieldset className="mb-4">
        <legend className="mb-1 text-sm font-semibold">For</legend>
        <div className="grid gap-y-1.5 sm:grid-cols-2">
          {DESTINATIONS.map((to) => (
            <Tick
              key={to.id}
              checked={deliverables.includes(to.id)}
              onChange={(checked) =>
                setDeliverables(checked ? [...deliverables, to.id] : deliverables.filter((one) => one !== to.id))
              }
            >
              {to.name}
            </Tick>
          ))}
        </div>
      </fieldset>
      <Field label="Notes" value={notes} maxLength={500} onChange={(event) => setNotes(event.target.value)} />
    </FormSheet>
  )
}
