import { useState } from 'react'
import type { MediaKind } from '../../core/shoot/gear'
import type { CameraKind } from '../../core/shoot/mode'
import { exactBytes, parseBytes } from '../../core/units/quantity'
import { gearApi, type CameraView } from '../../contract/gear'
import { Choice } from '../parts/controls/Choice'
import { Field } from '../parts/controls/Field'
import { FormSheet, NameField } from '../parts/layers/FormSheet'
import { Tick } from '../parts/controls/Tick'
import { UnitField } from '../parts/controls/UnitField'
import { useSend } from '../parts/asking/useSend'

const KINDS: readonly { value: CameraKind; label: string }[] = [
  { value: 'camera', label: 'Camera' },
  { value: 'recorder', label: 'Sound recorder' },
  { value: 'phone', label: 'Phone' },
  { value: 'deck', label: 'Tape deck' },
]

const MEDIA: readonly { value: MediaKind; label: string }[] = [
  { value: 'cards', label: 'Cards' },
  { value: 'internal', label: 'A medium inside' },
  { value: 'tape', label: 'Tape' },
]

/** What is usual for a kind, until somebody says otherwise. */
const usualMedia = (kind: CameraKind): MediaKind => (kind === 'phone' ? 'internal' : kind === 'deck' ? 'tape' : 'cards')

/** A new camera, recorder, phone or deck, or a change of one. */
export function CameraForm({ camera, onClose }: { camera: CameraView | undefined; onClose: () => void }) {
  const add = useSend(gearApi.addCamera)
  const change = useSend(gearApi.changeCamera)
  const [seen] = useState(camera?.version)
  const [name, setName] = useState(camera?.name ?? '')
  const [kind, setKind] = useState<CameraKind>(camera?.kind ?? 'camera')
  const [media, setMedia] = useState<MediaKind>(camera?.media ?? 'cards')
  const [inside, setInside] = useState(camera && camera.internalBytes > 0 ? exactBytes(camera.internalBytes) : '128 GB')
  const [slots, setSlots] = useState<1 | 2>(camera?.slots ?? 1)
  const [spans, setSpans] = useState(camera?.spans ?? true)
  const [battery, setBattery] = useState(camera && camera.batteryMinutes > 0 ? String(camera.batteryMinutes) : '')
  const [tried, setTried] = useState(false)
  const internalBytes = media === 'internal' ? parseBytes(inside) : 0
  const batteryMinutes = battery.trim() === '' ? 0 : /^\d{1,4}$/.test(battery.trim()) ? Number(battery) : undefined
  const save = () => {
    setTried(true)
    if (name.trim() === '' || internalBytes === undefined || batteryMinutes === undefined) return
    const body = { name, kind, media, internalBytes, slots, spans, batteryMinutes }
    if (camera) change.mutate({ params: { id: camera.id }, body, seen }, { onSuccess: onClose })
    else add.mutate({ params: {}, body }, { onSuccess: onClose })
  }
  return (
    <FormSheet
      title={camera ? `Change ${camera.name}` : 'Add a camera'}
      about="Its recording modes are added afterwards, typed or measured from a clip."
      onClose={onClose}
      onSave={save}
      save={camera ? 'Save the change' : 'Add it'}
      busy={add.isPending || change.isPending}
      error={add.error ?? change.error}
    >
      <NameField value={name} onChange={setName} tried={tried} />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <Choice
          label="It is a"
          className="mb-5"
          value={kind}
          onChange={(value) => {
            const next = KINDS.find((one) => one.value === value)?.value ?? 'camera'
            setKind(next)
            setMedia(usualMedia(next))
          }}
          options={KINDS}
        />
        <Choice
          label="Records on"
          className="mb-5"
          value={media}
          onChange={(value) => setMedia(MEDIA.find((one) => one.value === value)?.value ?? 'cards')}
          options={MEDIA}
        />
        {media === 'internal' && (
          <UnitField
            label="Room inside"
            unit="bytes"
            typed={inside}
            wrong={false}
            value={inside}
            onChange={(event) => setInside(event.target.value)}
          />
        )}
        <Field
          label="A battery lasts, in minutes"
          value={battery}
          hint="Leave it empty where you do not know."
          fault={batteryMinutes === undefined ? 'A whole number of minutes.' : undefined}
          onChange={(event) => setBattery(event.target.value)}
        />
      </div>
      {media === 'cards' && (
        <div className="mb-5 flex flex-col gap-2">
          <Tick checked={slots === 2} onChange={(two) => setSlots(two ? 2 : 1)}>
            It has two slots
          </Tick>
          <Tick checked={spans} onChange={setSpans}>
            A take goes on on the next card when one is full
          </Tick>
        </div>
      )}
    </FormSheet>
  )
}
