import { useState, type ComponentProps } from 'react'
import { CHROMAS, nominalBitsPerSecond } from '../../core/shoot/mode'
import { speedSentence } from '../../core/shoot/recording'
import { frameRateLabel, frameRateText, parseFrameRate } from '../../core/units/frameRate'
import { frameSizeText, parseFrameSize } from '../../core/units/frameSize'
import { exactBitRate, exactBytes, formatBitRate, parseBitRate, parseBytes } from '../../core/units/quantity'
import { figuresOf, gearApi, type CameraView, type ModeBody, type ModeView } from '../../contract/gear'
import { Choice } from '../parts/controls/Choice'
import { Field } from '../parts/controls/Field'
import { FormSheet, NameField } from '../parts/layers/FormSheet'
import { UnitField } from '../parts/controls/UnitField'
import { useSend } from '../parts/asking/useSend'
import { FromClip } from './FromClip'

/** The form's own fields: text as typed. */
interface Typed {
  readonly name: string
  readonly kind: 'coded' | 'raw' | 'sound'
  readonly frame: string
  readonly rate: string
  readonly codec: string
  readonly depth: string
  readonly chroma: string
  readonly video: string
  readonly sample: string
  readonly header: string
  readonly sound: string
  readonly proxy: string
  readonly proxyFrame: string
  readonly measured: string
}

const EMPTY: Typed = {
  name: '',
  kind: 'coded',
  frame: '3840×2160',
  rate: '25',
  codec: 'H.264',
  depth: '8',
  chroma: '4:2:0',
  video: '100 Mb/s',
  sample: '12',
  header: '0 B',
  sound: '256 kb/s',
  proxy: '',
  proxyFrame: '',
  measured: '',
}

/** Figures as they were typed, not rounded: a change of one field must not change another. */
function typedOf(mode: ModeBody): Typed {
  const rest = {
    name: mode.name,
    sound: exactBitRate(mode.audioBitsPerSecond),
    proxy: mode.proxyBitsPerSecond > 0 ? exactBitRate(mode.proxyBitsPerSecond) : '',
    proxyFrame: mode.proxyFrame ? frameSizeText(mode.proxyFrame) : '',
    measured: mode.measuredBitsPerSecond === null ? '' : exactBitRate(mode.measuredBitsPerSecond),
  }
  const { picture } = mode
  if (!picture) return { ...EMPTY, ...rest, kind: 'sound' }
  const rate = parseFrameRate(picture.rate)
  const raw = picture.rawBitsPerSample > 0
  return {
    ...rest,
    kind: raw ? 'raw' : 'coded',
    frame: frameSizeText(picture),
    rate: rate ? frameRateLabel(rate) : picture.rate,
    codec: picture.codec,
    depth: String(picture.bitDepth),
    chroma: picture.chroma,
    video: raw ? EMPTY.video : exactBitRate(picture.bitsPerSecond),
    sample: raw ? String(picture.rawBitsPerSample) : EMPTY.sample,
    header: exactBytes(picture.rawHeaderBytes),
  }
}

const wholeIn = (text: string, least: number, most: number) => {
  const value = /^\s*\d{1,3}\s*$/.test(text) ? Number(text) : Number.NaN
  return value >= least && value <= most ? value : undefined
}

/** Reads the typed fields; the body only when every one of them can be used. */
function readTyped(typed: Typed): { body: ModeBody | undefined; wrong: ReadonlySet<keyof Typed> } {
  const wrong = new Set<keyof Typed>()
  const need = <T,>(name: keyof Typed, value: T | undefined): T | undefined => {
    if (value === undefined) wrong.add(name)
    return value
  }
  const optional = (name: 'proxy' | 'measured') =>
    typed[name].trim() === '' ? null : need(name, parseBitRate(typed[name]))
  need('name', typed.name.trim() || undefined)
  const sound = need('sound', parseBitRate(typed.sound, 'kb/s'))
  const proxy = optional('proxy')
  const measured = optional('measured')
  const proxyFrame = typed.proxyFrame.trim() === '' ? null : need('proxyFrame', parseFrameSize(typed.proxyFrame))
  const withPicture = typed.kind !== 'sound'
  const frame = withPicture ? need('frame', parseFrameSize(typed.frame)) : undefined
  const rate = withPicture ? need('rate', parseFrameRate(typed.rate)) : undefined
  const depth = withPicture ? need('depth', wholeIn(typed.depth, 1, 32)) : undefined
  const codec = withPicture ? need('codec', typed.codec.trim() || undefined) : undefined
  const chroma = CHROMAS.find((one) => one === typed.chroma) ?? '4:2:0'
  const video = typed.kind === 'coded' ? need('video', parseBitRate(typed.video)) : 0
  const sample = typed.kind === 'raw' ? need('sample', wholeIn(typed.sample, 1, 64)) : 0
  const header = typed.kind === 'raw' ? need('header', parseBytes(typed.header)) : 0
  if (wrong.size > 0) return { body: undefined, wrong }
  return {
    wrong,
    body: {
      name: typed.name.trim(),
      picture:
        frame && rate
          ? {
              ...frame,
              rate: frameRateText(rate),
              codec: codec ?? '',
              bitDepth: depth ?? 8,
              chroma,
              bitsPerSecond: video ?? 0,
              rawBitsPerSample: sample ?? 0,
              rawHeaderBytes: header ?? 0,
            }
          : null,
      audioBitsPerSecond: sound ?? 0,
      proxyBitsPerSecond: proxy ?? 0,
      proxyFrame: proxyFrame ?? null,
      measuredBitsPerSecond: measured ?? null,
    },
  }
}

interface ModeFormProps {
  readonly camera: CameraView
  readonly mode: ModeView | undefined
  readonly onClose: () => void
}

/** One way in which a camera records, typed or taken from a real clip. */
export function ModeForm({ camera, mode, onClose }: ModeFormProps) {
  const add = useSend(gearApi.addMode)
  const change = useSend(gearApi.changeMode)
  const [typed, setTyped] = useState<Typed>(
    mode ? typedOf(mode) : { ...EMPTY, kind: camera.kind === 'recorder' ? 'sound' : 'coded' },
  )
  const [tried, setTried] = useState(false)
  const [seen] = useState(mode?.version)
  const { body, wrong } = readTyped(typed)
  const set = (more: Partial<Typed>) => setTyped((before) => ({ ...before, ...more }))
  const on = (name: keyof Typed) => (event: { target: { value: string } }) => set({ [name]: event.target.value })
  const save = () => {
    setTried(true)
    if (!body) return
    if (mode) change.mutate({ params: { id: mode.id }, body, seen }, { onSuccess: onClose })
    else add.mutate({ params: { id: camera.id }, body }, { onSuccess: onClose })
  }
  const fields: ModeFieldsProps = { typed, wrong, on, set }
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
      <FromClip onMode={(found) => set({ ...typedOf(found), name: typed.name || found.name })} />
      <div className="grid gap-x-4 sm:grid-cols-3">
        <NameField value={typed.name} onChange={(name) => set({ name })} tried={tried} />
        <Choice
          label="Records"
          className="mb-5"
          value={typed.kind}
          onChange={(value) => set({ kind: value === 'raw' || value === 'sound' ? value : 'coded' })}
          options={[
            { value: 'coded', label: 'Coded picture' },
            { value: 'raw', label: 'Raw frames' },
            { value: 'sound', label: 'Sound alone' },
          ]}
        />
        {typed.kind !== 'sound' && <PictureFields {...fields} />}
        <Quantity name="sound" label="Sound bit rate" unit="soundRate" {...fields} />
        {typed.kind !== 'sound' && (
          <>
            <Quantity name="proxy" label="Camera proxy" unit="bitRate" optional placeholder="none" {...fields} />
            <Quantity
              name="proxyFrame"
              label="Its frame"
              unit="frameSize"
              optional
              placeholder="not known"
              {...fields}
            />
          </>
        )}
        <Quantity name="measured" label="Measured in all" unit="bitRate" optional placeholder="not yet" {...fields} />
      </div>
      {body && <Result body={body} />}
    </FormSheet>
  )
}

interface ModeFieldsProps {
  readonly typed: Typed
  readonly wrong: ReadonlySet<keyof Typed>
  readonly on: (name: keyof Typed) => (event: { target: { value: string } }) => void
  readonly set: (more: Partial<Typed>) => void
}

interface QuantityProps extends ModeFieldsProps, Pick<ComponentProps<typeof UnitField>, 'label' | 'unit' | 'optional'> {
  readonly name: keyof Typed
  readonly placeholder?: string
}

/** One figure of the mode, typed with its unit. */
const Quantity = ({ name, typed, wrong, on, label, unit, optional, placeholder }: QuantityProps) => (
  <UnitField
    {...{ label, unit, optional, placeholder }}
    typed={typed[name]}
    wrong={wrong.has(name)}
    value={typed[name]}
    onChange={on(name)}
  />
)

function PictureFields(fields: ModeFieldsProps) {
  const { typed, wrong, on, set } = fields
  return (
    <>
      <Quantity name="frame" label="Frame size" unit="frameSize" {...fields} />
      <Quantity name="rate" label="Frame rate" unit="frameRate" {...fields} />
      <Field
        label="Codec"
        value={typed.codec}
        maxLength={40}
        fault={wrong.has('codec') ? 'By its published name.' : undefined}
        onChange={on('codec')}
      />
      <Field
        label="Bit depth"
        value={typed.depth}
        fault={wrong.has('depth') ? 'From 1 to 32.' : undefined}
        onChange={on('depth')}
      />
      <Choice
        label="Colour"
        className="mb-5"
        value={typed.chroma}
        onChange={(chroma) => set({ chroma })}
        options={CHROMAS.map((one) => ({ value: one, label: one }))}
      />
      {typed.kind === 'coded' ? (
        <Quantity name="video" label="Video bit rate" unit="bitRate" {...fields} />
      ) : (
        <>
          <Field
            label="Bits per sample on the card"
            value={typed.sample}
            hint="12 bit in words of 16 take 16."
            fault={wrong.has('sample') ? 'From 1 to 64.' : undefined}
            onChange={on('sample')}
          />
          <Quantity name="header" label="Header of a frame" unit="bytes" {...fields} />
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
