import { Plus, Trash2 } from 'lucide-react'
import { clockOf, daySentence, dayWarnings, inOrder, minutesOf, type Call } from '../../../core/shoot/day'
import { isDay, isTimeZone } from '../../../core/units/day'
import { readLength } from '../../../core/units/quantity'
import type { Typed } from '../../../core/units/typed'
import { shootApi, type DayBody, type DayView } from '../../../contract/shoot'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { Cell } from '../../parts/controls/Cell'
import { DayField } from '../../parts/controls/DayField'
import { Field } from '../../parts/controls/Field'
import { IconButton } from '../../parts/controls/IconButton'
import { Leaving, Outdated } from '../../parts/layers/Leaving'
import { useDraft } from '../../parts/asking/useDraft'
import { useSend } from '../../parts/asking/useSend'
import { DayAxis } from './DayAxis'
import { useDay } from './queries'
import { WithBudget } from './WithBudget'

/** The day of the shoot: where, in which time, what begins when, and what to look at before. */
export default function Day({ productionId }: { productionId: string }) {
  const day = useDay(productionId)
  return (
    <Ask query={day}>
      {(view) => (
        <WithBudget productionId={productionId}>
          {(budget) => (
            <Sheet
              productionId={productionId}
              view={view}
              takeSeconds={budget.cameras.reduce((longest, one) => Math.max(longest, one.seconds), 0)}
            />
          )}
        </WithBudget>
      )}
    </Ask>
  )
}

interface SheetProps {
  readonly productionId: string
  readonly view: DayView
  /** Of the camera that films longest: the others film beside it. */
  readonly takeSeconds: number
}

const bodyOf = ({ shootOn, timeZone, place, calls }: DayBody): DayBody => ({ shootOn, timeZone, place, calls })

const isDayOrNone = (text: string) => text === '' || isDay(text)

function readClock(typed: string): Typed<string> {
  const minutes = minutesOf(typed)
  return minutes === undefined ? { fault: 'Write it as 09:30.' } : { value: clockOf(minutes) }
}

function readMinutes(typed: string): Typed<number> {
  const read = readLength(typed)
  if ('fault' in read) return read
  const value = Math.round(read.value / 60)
  return value >= 0 && value <= 1440 ? { value } : { fault: 'At most a day.' }
}

const lengthWords = (minutes: number) =>
  [
    Math.floor(minutes / 60) > 0 ? `${Math.floor(minutes / 60)} h` : '',
    minutes % 60 > 0 || minutes === 0 ? `${minutes % 60} min` : '',
  ]
    .filter(Boolean)
    .join(' ')

function Sheet({ productionId, view, takeSeconds }: SheetProps) {
  const send = useSend(shootApi.setDay)
  const { value: day, changed, seen, change, forget } = useDraft(bodyOf(view), view.version)
  const asked = { ...day, shootOn: isDay(day.shootOn) ? day.shootOn : null, takeSeconds, clocksOff: view.clocksOff }
  const zoneWrong = !isTimeZone(day.timeZone)
  const isWrong = zoneWrong || !isDayOrNone(day.shootOn) || day.calls.some((call) => call.what.trim() === '')
  const warnings = zoneWrong ? [] : dayWarnings(asked)
  const keep = () =>
    send.mutate(
      { params: { id: productionId }, body: { ...day, calls: inOrder(day.calls) }, ...seen },
      { onSuccess: forget },
    )
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        if (changed && !isWrong) keep()
      }}
    >
      <Answer
        why={
          changed
            ? 'Something is changed and not saved yet.'
            : day.place || 'Place, times and time zone are on this sheet.'
        }
        action={
          <Button look="primary" type="submit" disabled={!changed || isWrong || send.isPending}>
            Save this day
          </Button>
        }
      >
        {daySentence(asked, warnings)}
      </Answer>
      <Leaving when={changed} />
      <Outdated send={send} onLook={forget} />
      {warnings.length > 0 && (
        <ul aria-label="To look at before" className="mb-5 max-w-3xl border-l-4 border-doubt bg-sheet px-4 py-2">
          {warnings.map((one) => (
            <li key={one} className="py-0.5">
              {one}
            </li>
          ))}
        </ul>
      )}
      <DayAxis calls={day.calls} />
      <Where day={day} zoneWrong={zoneWrong} onChange={change} />
      <Calls calls={day.calls} onChange={(calls) => change({ calls })} />
    </form>
  )
}

interface WhereProps {
  readonly day: DayBody
  readonly zoneWrong: boolean
  readonly onChange: (more: Partial<DayBody>) => void
}

function Where({ day, zoneWrong, onChange }: WhereProps) {
  return (
    <div className="mt-5 grid gap-x-4 sm:grid-cols-[12rem_1fr_14rem]">
      <DayField
        label="Shoot day"
        value={day.shootOn}
        fault={isDayOrNone(day.shootOn) ? undefined : 'Give the shoot day as year-month-day.'}
        onChange={(shootOn) => onChange({ shootOn })}
      />
      <Field
        label="Place"
        value={day.place}
        maxLength={200}
        onChange={(event) => onChange({ place: event.target.value })}
      />
      <Field
        label="Time zone"
        value={day.timeZone}
        list="time-zones"
        fault={zoneWrong ? 'Choose a zone from the list, such as Europe/Lisbon.' : undefined}
        onChange={(event) => onChange({ timeZone: event.target.value })}
      />
      <datalist id="time-zones">
        {Intl.supportedValuesOf('timeZone').map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
    </div>
  )
}

interface CallsProps {
  readonly calls: readonly Call[]
  readonly onChange: (calls: Call[]) => void
}

/** What begins when; a new call begins where the last one ends. */
function Calls({ calls, onChange }: CallsProps) {
  const setCall = (at: number, more: Partial<Call>) =>
    onChange(calls.map((call, place) => (place === at ? { ...call, ...more } : call)))
  const last = inOrder(calls).at(-1)
  const next = last ? Math.min(23 * 60 + 55, (minutesOf(last.at) ?? 0) + last.minutes) : 9 * 60
  return (
    <>
      <fieldset>
        <legend className="mb-1 font-bold">Calls</legend>
        <ol className="border-t border-ink">
          {calls.map((call, at) => (
            <li key={at} className="flex flex-wrap items-start gap-3 border-b border-rule py-2">
              <Cell
                label={`Time of call ${at + 1}`}
                className="w-20"
                shown={call.at}
                read={readClock}
                onValue={(value) => setCall(at, { at: value })}
              />
              <input
                aria-label={`What begins at call ${at + 1}`}
                className={`min-h-8 min-w-48 grow rounded-box border bg-sheet px-2 py-0.5 ${call.what.trim() === '' ? 'border-stop' : 'border-rule'}`}
                value={call.what}
                maxLength={120}
                placeholder="What begins then"
                onChange={(event) => setCall(at, { what: event.target.value })}
              />
              <Cell
                label={`Length of call ${at + 1}`}
                className="w-28"
                shown={lengthWords(call.minutes)}
                read={readMinutes}
                onValue={(minutes) => setCall(at, { minutes })}
              />
              <IconButton
                icon={Trash2}
                label={`Remove call ${at + 1}`}
                onClick={() => onChange(calls.filter((_, place) => place !== at))}
              />
            </li>
          ))}
        </ol>
      </fieldset>
      <Button className="mt-3" onClick={() => onChange([...calls, { at: clockOf(next), what: '', minutes: 30 }])}>
        <Plus className="size-4" aria-hidden />
        Add a call
      </Button>
    </>
  )
}
