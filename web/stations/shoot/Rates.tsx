import { useState } from 'react'
import { commonTimeline, MAINS, rateAnswer, usualRates, type Mains, type RateAnswer } from '../../../core/shoot/rates'
import type { PlanBudget } from '../../../core/shoot/plan'
import {
  frameRate,
  frameRateLabel,
  readFrameRate,
  sameRate,
  parseFrameRate,
  type FrameRate,
} from '../../../core/units/frameRate'
import type { GearView } from '../../../contract/gear'
import { Answer } from '../../parts/Answer'
import { Choice } from '../../parts/controls/Choice'
import { UnitField } from '../../parts/controls/UnitField'
import { Wide } from '../../parts/Wide'
import { WithBudget } from './WithBudget'

/** Rates of the day: whether they share a timeline, how slow each plays, and at which shutter lamps do not flicker. */
export default function Rates({ productionId }: { productionId: string }) {
  return (
    <WithBudget productionId={productionId}>
      {(budget, _, book) => <Desk key={productionId} planned={plannedRates(budget)} book={book} />}
    </WithBudget>
  )
}

interface Planned {
  readonly rate: FrameRate
  readonly cameras: readonly string[]
}

/** Each rate of the plan once, with the cameras that film at it. */
function plannedRates({ cameras }: PlanBudget): Planned[] {
  const found: { rate: FrameRate; cameras: string[] }[] = []
  for (const { camera, rows } of cameras)
    for (const { mode } of rows) {
      if (!mode.picture) continue
      const { rate } = mode.picture
      const known = found.find((one) => sameRate(one.rate, rate))
      if (!known) found.push({ rate, cameras: [camera.name] })
      else if (!known.cameras.includes(camera.name)) known.cameras.push(camera.name)
    }
  return found
}

function Desk({ planned, book }: { planned: readonly Planned[]; book: GearView }) {
  const common = commonTimeline(planned.map((one) => one.rate))
  const [mains, setMains] = useState<Mains>(book.rules.mains)
  const [timeline, setTimeline] = useState(
    frameRateLabel(common.timeline ?? planned[0]?.rate ?? usualRates(mains)[0] ?? frameRate(25)),
  )
  const [other, setOther] = useState('')
  const onTimeline = parseFrameRate(timeline)
  const tried = parseFrameRate(other)
  const rates: readonly Planned[] = [
    ...planned,
    ...(tried && !planned.some((one) => sameRate(one.rate, tried)) ? [{ rate: tried, cameras: [] }] : []),
  ]
  const answers = onTimeline ? rates.map((one) => ({ ...one, answer: rateAnswer(one.rate, onTimeline, mains) })) : []
  const flickering = answers.filter((one) => one.answer.flicker !== 'steady')
  const all = commonTimeline(rates.map((one) => one.rate))
  return (
    <>
      <Answer
        why={
          flickering.length > 0
            ? `Under lamps on ${mains} Hz: ${flickering.map((one) => frameRateLabel(one.rate)).join(' and ')} ` +
              `${flickering.length === 1 ? 'needs' : 'need'} another shutter speed than half a frame.`
            : `A shutter of half a frame does not flicker under lamps on ${mains} Hz.`
        }
      >
        {all.sentence}
      </Answer>
      <div className="mb-2 grid max-w-3xl gap-x-4 sm:grid-cols-3">
        <UnitField
          label="Timeline"
          unit="frameRate"
          typed={timeline}
          wrong={onTimeline === undefined}
          value={timeline}
          onChange={(event) => setTimeline(event.target.value)}
        />
        <Choice
          label="Mains"
          className="mb-5"
          value={String(mains)}
          onChange={(value) => setMains(MAINS.find((one) => String(one) === value) ?? 50)}
          options={MAINS.map((one) => ({ value: String(one), label: `${one} Hz` }))}
        />
        <UnitField
          label="Another rate"
          unit="frameRate"
          optional
          typed={other}
          wrong={other !== '' && 'fault' in readFrameRate(other)}
          value={other}
          placeholder="120, 59.94 …"
          onChange={(event) => setOther(event.target.value)}
        />
      </div>
      {answers.length > 0 && <RateTable answers={answers} />}
      <p className="mt-5 max-w-3xl text-sm text-quiet">
        A shutter of half a frame gives natural motion; the nearest stop of cameras is shown. Lamps on the mains flicker
        twice in each period, and an exposure of whole flickers looks alike in every frame. Film and deliver at one
        rate, or at a whole multiple of it: nothing is ever converted in silence.
      </p>
    </>
  )
}

const FLICKER: Record<RateAnswer['flicker'], string> = {
  steady: 'steady',
  rolls: 'flickers',
  'no-shutter': 'no steady shutter',
}

type Answered = Planned & { readonly answer: RateAnswer }

const RateTable = ({ answers }: { answers: readonly Answered[] }) => (
  <Wide label="Rates">
    <table className="min-w-[46rem]">
      <thead>
        <tr>
          <th className="text-right">Rate</th>
          <th>Filmed by</th>
          <th className="text-right">Slower</th>
          <th className="text-right">Shutter</th>
          <th>Under lamps</th>
          <th>What to do</th>
        </tr>
      </thead>
      <tbody>
        {answers.map((one) => (
          <RateRow key={frameRateLabel(one.rate)} {...one} />
        ))}
      </tbody>
    </table>
  </Wide>
)

function RateRow({ rate, cameras, answer }: Answered) {
  const { shutter, slowFactor: slow } = answer
  const exact = Number(shutter.exact.toFixed(1))
  return (
    <tr>
      <td className="figure text-right text-lg font-bold">{frameRateLabel(rate)}</td>
      <td>{cameras.join(', ') || <span className="text-quiet">to try</span>}</td>
      <td className="figure text-right">{answer.use === 'normal' ? '1' : `${Number(slow.toFixed(2))}`}×</td>
      <td className="figure text-right whitespace-nowrap">
        1/{shutter.stop}
        {exact !== shutter.stop && <span className="block text-quiet">exactly 1/{exact}</span>}
      </td>
      <td className={answer.flicker === 'steady' ? 'text-good' : 'text-doubt'}>{FLICKER[answer.flicker]}</td>
      <td className="min-w-72 text-sm">{answer.sentence}</td>
    </tr>
  )
}
