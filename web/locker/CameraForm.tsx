import { useState } from 'react'
import type { MediaKind } from '../../core/shoot/gear'
import type { CameraKind } from '../../core/shoot/mode'
import { exactBytes, readBytes } from '../../core/units/quantity'
import { cameraBody, gearApi, type CameraView } from '../../contract/gear'
import { Tick } from '../parts/controls/Tick'
import { FormChoice, FormField, FormName, FormTick, FormUnit } from '../parts/form/fields'
import { numberIn, numberOr, useTyped } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'
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
const usualMedia = (kind: string): MediaKind => (kind === 'phone' ? 'internal' : kind === 'deck' ? 'tape' : 'cards')

/** A whole number of minutes, as `numberOr` reads it. */
const readMinutes = (text: string) =>
  /^\s*\d{1,4}\s*$/.test(text) ? { value: Number(text) } : { fault: 'A whole number of minutes.' }

const typedOf = (camera: CameraView | undefined) => ({
  name: camera?.name ?? '',
  kind: camera?.kind ?? 'camera',
  media: camera?.media ?? 'cards',
  internalBytes: camera && camera.internalBytes > 0 ? exactBytes(camera.internalBytes) : '128 GB',
  slots: camera?.slots ?? 1,
  spans: camera?.spans ?? true,
  batteryMinutes: camera && camera.batteryMinutes > 0 ? String(camera.batteryMinutes) : '',
})

/** A new camera, recorder, phone or deck, or a change of one. */
export function CameraForm({ camera, onClose }: { camera: CameraView | undefined; onClose: () => void }) {
  const add = useSend(gearApi.addCamera)
  const change = useSend(gearApi.changeCamera)
  const [seen] = useState(camera?.version)
  const { control, handleSubmit, setValue, watch } = useTyped(cameraBody, typedOf(camera), (typed) => ({
    ...typed,
    // What stands in a field that is not shown does not count.
    internalBytes: typed.media === 'internal' ? numberIn(typed.internalBytes, readBytes) : 0,
    batteryMinutes: numberOr(typed.batteryMinutes, readMinutes, 0),
  }))
  const [media, slots] = watch(['media', 'slots'])
  const save = handleSubmit((body) => {
    if (camera) change.mutate({ params: { id: camera.id }, body, seen }, { onSuccess: onClose })
    else add.mutate({ params: {}, body }, { onSuccess: onClose })
  })
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
      <FormName control={control} name="name" />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <FormChoice
          control={control}
          name="kind"
          label="It is a"
          className="mb-5"
          options={KINDS}
          onChosen={(kind) => setValue('media', usualMedia(kind))}
        />
        <FormChoice control={control} name="media" label="Records on" className="mb-5" options={MEDIA} />
        {media === 'internal' && <FormUnit control={control} name="internalBytes" label="Room inside" unit="bytes" />}
        <FormField
          control={control}
          name="batteryMinutes"
          label="A battery lasts, in minutes"
          hint="Leave it empty where you do not know."
        />
      </div>
      {media === 'cards' && (
        <div className="mb-5 flex flex-col gap-2">
          <Tick checked={slots === 2} onChange={(two) => setValue('slots', two ? 2 : 1)}>
            It has two slots
          </Tick>
          <FormTick control={control} name="spans">
            A take goes on on the next card when one is full
          </FormTick>
        </div>
      )}
    </FormSheet>
  )
}
