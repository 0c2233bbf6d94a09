import { useState } from 'react'
import { CHROMAS, nominalBitsPerSecond } from '../../core/shoot/mode'
import { speedSentence } from '../../core/shoot/recording'
import { formatBitRate } from '../../core/units/quantity'
import { figuresOf, gearApi, type CameraView, type ModeBody, type ModeView } from '../../contract/gear'
import { FormChoice, FormField, FormName, FormUnit } from '../parts/form/fields'
import { useTyped, type TypedForm } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'
import { useSend } from '../parts/asking/useSend'
import { FromClip } from './FromClip'
import { EMPTY_MODE, modeTyped, typedMode, typedOf, type TypedMode } from './modeTyped'

interface ModeFormProps {
  readonly camera: CameraView
  readonly mode: ModeView | undefined
  readonly onClose: () => void
}

const opened = (camera: CameraView, mode: ModeView | undefined): TypedMode =>
  mode ? typedOf(mode) : { ...EMPTY_MODE, kind: camera.kind === 'recorder' ? 'sound' : 'coded' }

/** One way in which a camera records, typed or taken from a real clip. */
export function ModeForm({ camera, mode, onClose }: ModeFormProps) {
  const add = useSend(gearApi.addMode)
  const change = useSend(gearApi.changeMode)
  const [seen] = useState(mode?.version)
  const { control, handleSubmit, watch, getValues, reset } = useTyped(typedMode, opened(camera, mode))
  const kind = watch('kind')
  const body = modeTyped(watch())
  const take = (found: ModeBody) =>
    reset({ ...typedOf(found), name: getValues('name') || found.name }, { keepDefaultValues: true })
  const save = handleSubmit((typed) => {
    const body = modeTyped(typed)
    if (!body) return
    if (mode) change.mutate({ params: { id: mode.id }, body, seen }, { onSuccess: onClose })
    else add.mutate({ params: { id: camera.id }, body }, { onSuccess: onClose })
  })
  return (
    <FormSheet
      title={mode ? `Change ${mode.name}` : `A mode of ${camera.name}`}
      about="Write units as you like: 100 Mb/s, 3840×2160, 23.976. Or take them from a clip that was filmed so."
      width="max-w-2xl"
      onClose={onClose}
      onSave={save}
      save={mode ? 'Save the change' : 'Add the mode'}
      busy={add.isPending || change.isPending}
      error={add.error ?? change.error}
    >
      <FromClip onMode={take} />
      <div className="grid gap-x-4 sm:grid-cols-3">
        <FormName control={control} name="name" />
        <FormChoice
          control={control}
          name="kind"
          label="Records"
          className="mb-5"
          options={[
            { value: 'coded', label: 'Coded picture' },
            { value: 'raw', label: 'Raw frames' },
            { value: 'sound', label: 'Sound alone' },
          ]}
        />
        {kind !== 'sound' && <PictureFields control={control} kind={kind} />}
        <FormUnit control={control} name="sound" label="Sound bit rate" unit="soundRate" />
        {kind !== 'sound' && (
          <>
            <FormUnit control={control} name="proxy" label="Camera proxy" unit="bitRate" optional placeholder="none" />
            <FormUnit
              control={control}
              name="proxyFrame"
              label="Its frame"
              unit="frameSize"
              optional
              placeholder="not known"
            />
          </>
        )}
        <FormUnit
          control={control}
          name="measured"
          label="Measured in all"
          unit="bitRate"
          optional
          placeholder="not yet"
        />
      </div>
      {body && <Result body={body} />}
    </FormSheet>
  )
}

interface PictureFieldsProps<Body> extends Pick<TypedForm<TypedMode, Body>, 'control'> {
  readonly kind: TypedMode['kind']
}

function PictureFields<Body>({ control, kind }: PictureFieldsProps<Body>) {
  return (
    <>
      <FormUnit control={control} name="frame" label="Frame size" unit="frameSize" />
      <FormUnit control={control} name="rate" label="Frame rate" unit="frameRate" />
      <FormField control={control} name="codec" label="Codec" maxLength={40} />
      <FormField control={control} name="depth" label="Bit depth" />
      <FormChoice
        control={control}
        name="chroma"
        label="Colour"
        className="mb-5"
        options={CHROMAS.map((one) => ({ value: one, label: one }))}
      />
      {kind === 'coded' ? (
        <FormUnit control={control} name="video" label="Video bit rate" unit="bitRate" />
      ) : (
        <>
          <FormField
            control={control}
            name="sample"
            label="Bits per sample on the card"
            hint="12 bit in words of 16 take 16."
          />
          <FormUnit control={control} name="header" label="Header of a frame" unit="bytes" />
        </>
      )}
    </>
  )
}

function Result({ body }: { body: ModeBody }) {
  const nominal = nominalBitsPerSecond(figuresOf(body))
  return (
    <p className="border-t border-rule pt-3" aria-live="polite">
      <strong>{formatBitRate(nominal)} in all.</strong> {speedSentence(body.measuredBitsPerSecond ?? nominal)}.
    </p>
  )
}
