import type { ComponentProps } from 'react'
import { useController, useForm, useWatch } from 'react-hook-form'
import {
  recordingBudget,
  SPEED_CLASSES,
  speedSentence,
  takesPerCard,
  type RecordingPlan,
} from '../../../core/shoot/recording'
import { frameRateLabel, frameRateText, parseFrameRate } from '../../../core/units/frameRate'
import { frameSizeText, parseFrameSize } from '../../../core/units/frameSize'
import {
  counted,
  exactBitRate,
  exactBytes,
  formatBytes,
  formatByteRate,
  formatLength,
  parseBitRate,
  parseBytes,
  parseLength,
} from '../../../core/units/quantity'
import { shootApi, type CameraPlanView } from '../../../contract/shoot'
import { Button } from '../../parts/Button'
import { Choice, type Option } from '../../parts/Choice'
import { Field } from '../../parts/Field'
import { UnitField } from '../../parts/UnitField'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/useSend'

/** The form's own fields: text as typed. */
interface Typed {
  camera: string
  frame: string
  rate: string
  video: string
  audio: string
  take: string
  takes: string
  card: string
  speed: string
  fill: string
}

const DEFAULTS: Typed = {
  camera: '',
  frame: '3840×2160',
  rate: '25',
  video: '100 Mb/s',
  audio: '256 kb/s',
  take: '10 min',
  takes: '6',
  card: '128 GB',
  speed: '30000000',
  fill: '90',
}

/** Figures as they were typed, not rounded: a change of one field must not change another. */
const typedOf = (plan: CameraPlanView): Typed => ({
  camera: plan.camera,
  frame: frameSizeText(plan),
  rate: frameRateLabel(parseFrameRate(plan.rate) ?? { num: 25, den: 1 }),
  video: exactBitRate(plan.videoBitsPerSecond),
  audio: exactBitRate(plan.audioBitsPerSecond),
  take: formatLength(plan.secondsPerTake),
  takes: String(plan.takes),
  card: exactBytes(plan.cardBytes),
  speed: String(plan.cardBytesPerSecond),
  fill: String(Math.round(plan.fillLimit * 100)),
})

const FAULTS: Partial<Record<keyof Typed, string>> = {
  camera: 'Name the camera.',
  takes: 'A whole number from 1.',
  fill: 'A share from 10 to 100 %.',
}

/** Reads the typed fields; `undefined` stands where one cannot be read. */
function readTyped(typed: Typed): { plan: RecordingPlan | undefined; wrong: Set<keyof Typed> } {
  const frame = parseFrameSize(typed.frame)
  const rate = parseFrameRate(typed.rate)
  const video = parseBitRate(typed.video)
  const audio = parseBitRate(typed.audio, 'kb/s')
  const take = parseLength(typed.take)
  const takes = /^\s*\d+\s*$/.test(typed.takes) ? Number(typed.takes) : 0
  const card = parseBytes(typed.card)
  const fill = Number(typed.fill)
  const wrong = new Set<keyof Typed>()
  if (!typed.camera.trim()) wrong.add('camera')
  if (!frame) wrong.add('frame')
  if (!rate) wrong.add('rate')
  if (!video) wrong.add('video')
  if (audio === undefined) wrong.add('audio')
  if (!take || take < 1) wrong.add('take')
  if (takes < 1 || takes > 10_000) wrong.add('takes')
  if (!card || card < 1e6) wrong.add('card')
  if (!(fill >= 10 && fill <= 100)) wrong.add('fill')
  if (
    !frame ||
    !rate ||
    !video ||
    audio === undefined ||
    !take ||
    !card ||
    [...wrong].some((name) => name !== 'camera')
  )
    return { plan: undefined, wrong }
  return {
    wrong,
    plan: {
      camera: typed.camera.trim(),
      ...frame,
      rate,
      videoBitsPerSecond: video,
      audioBitsPerSecond: audio,
      secondsPerTake: Math.round(take),
      takes,
      cardBytes: card,
      cardBytesPerSecond: Number(typed.speed),
      fillLimit: fill / 100,
    },
  }
}

/** The speed classes, and the speed of a plan that is none of them. */
function speedOptions(plan: CameraPlanView | undefined): Option[] {
  const classes = SPEED_CLASSES.map((one) => ({
    value: String(one.bytesPerSecond),
    label: `${one.name}: ${one.bytesPerSecond / 1e6} MB/s`,
  }))
  const own = plan && !SPEED_CLASSES.some((one) => one.bytesPerSecond === plan.cardBytesPerSecond)
  return own
    ? [...classes, { value: String(plan.cardBytesPerSecond), label: formatByteRate(plan.cardBytesPerSecond) }]
    : classes
}

/** One camera's plan, with its result under the fingers. */
export function PlanForm({
  productionId,
  plan: before,
  onDone,
}: {
  productionId: string
  plan: CameraPlanView | undefined
  onDone: () => void
}) {
  const {
    register,
    handleSubmit,
    control,
    formState: { submitCount },
  } = useForm<Typed>({ defaultValues: before ? typedOf(before) : DEFAULTS })
  const typed = useWatch({ control }) as Typed
  const speed = useController({ control, name: 'speed' })
  const add = useSend(shootApi.addPlan)
  const change = useSend(shootApi.changePlan)
  const { plan, wrong } = readTyped(typed)
  const fault = (name: keyof Typed) =>
    wrong.has(name) && (submitCount > 0 || name !== 'camera') ? FAULTS[name] : undefined
  const save = handleSubmit(() => {
    if (!plan || wrong.size > 0) return
    const body = { ...plan, rate: frameRateText(plan.rate) }
    if (before) change.mutate({ params: { id: before.id }, body }, { onSuccess: onDone })
    else add.mutate({ params: { id: productionId }, body }, { onSuccess: onDone })
  })
  const field = (name: keyof Typed, label: string) => <Field label={label} fault={fault(name)} {...register(name)} />
  const quantity = (name: keyof Typed, label: string, unit: ComponentProps<typeof UnitField>['unit']) => (
    <UnitField label={label} unit={unit} typed={typed[name]} wrong={wrong.has(name)} {...register(name)} />
  )
  return (
    <form onSubmit={(event) => void save(event)} noValidate>
      <div className="grid gap-x-4 sm:grid-cols-3">
        {field('camera', 'Camera')}
        {quantity('frame', 'Frame size', 'frameSize')}
        {quantity('rate', 'Frame rate', 'frameRate')}
        {quantity('video', 'Video bit rate', 'bitRate')}
        {quantity('audio', 'Sound bit rate', 'soundRate')}
        {quantity('take', 'Length of a take', 'length')}
        {field('takes', 'Takes')}
        {quantity('card', 'Card size', 'bytes')}
        {field('fill', 'Fill limit in %')}
        <Choice
          label="Card speed class"
          className="mb-5"
          value={speed.field.value}
          onChange={speed.field.onChange}
          options={speedOptions(before)}
        />
      </div>
      <Preview plan={plan} />
      <Trouble error={add.error ?? change.error} />
      <div className="mt-4 flex gap-3">
        <Button look="primary" type="submit" disabled={add.isPending || change.isPending}>
          {before ? 'Keep the change' : 'Add to the plan'}
        </Button>
        <Button onClick={onDone}>Leave</Button>
      </div>
    </form>
  )
}

function Preview({ plan }: { plan: RecordingPlan | undefined }) {
  if (!plan)
    return <p className="border-t border-rule pt-3 text-quiet">The result appears when every field can be read.</p>
  const budget = recordingBudget(plan)
  return (
    <p className="border-t border-rule pt-3" aria-live="polite" data-testid="plan-preview">
      <strong className="text-lg">
        {formatBytes(budget.sizeBytes)} on {counted(budget.cards, 'card')}
      </strong>
      , {formatLength(budget.secondsPerCard)} fit on one: {takesPerCard(budget)}.{' '}
      {budget.sustained ? (
        <span className="text-good">The card keeps up with {formatByteRate(budget.streamBytesPerSecond)}.</span>
      ) : (
        <span className="text-stop">The card is too slow: {speedSentence(budget.streamBytesPerSecond * 8)}.</span>
      )}{' '}
      Shutter 1/{budget.shutter.stop}
      {budget.shutter.exact !== budget.shutter.stop && ` (exactly 1/${Number(budget.shutter.exact.toFixed(1))})`}.
    </p>
  )
}
