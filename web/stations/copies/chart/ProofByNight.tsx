import { useState } from 'react'
import { formatBytes, readBytes } from '../../../../core/units/quantity'
import { cycleApi, cycleHours, type CycleView } from '../../../../contract/cycle'
import { useAsk } from '../../../parts/asking/useAsk'
import { useSend } from '../../../parts/asking/useSend'
import { Button } from '../../../parts/controls/Button'
import { FormField, FormTick, FormUnit } from '../../../parts/form/fields'
import { numberIn, useTyped } from '../../../parts/form/useTyped'
import { FormSheet } from '../../../parts/layers/FormSheet'

/** Where the reading by night stands, in a sentence, and its hours. */
export function ProofByNight() {
  const { data } = useAsk(cycleApi.one, {})
  const [open, setOpen] = useState(false)
  if (!data || data.sentence === '') return null
  return (
    <p className="mb-4 flex flex-wrap items-baseline gap-x-3 text-quiet" aria-label="Proof by night">
      <span>{data.sentence}</span>
      <Button look="quiet" className="!px-0" onClick={() => setOpen(true)}>
        When and how much …
      </Button>
      {open && <HoursSheet view={data} onClose={() => setOpen(false)} />}
    </p>
  )
}

const two = (number: number) => String(number).padStart(2, '0')
const clockText = (minute: number) => `${two(Math.floor(minute / 60))}:${two(minute % 60)}`

/** `23:30` or `6`, in minutes after midnight; `NaN` for anything else. */
function minuteIn(text: string): number {
  const [, hours = '', minutes = '0'] = /^\s*(\d{1,2})(?:[:.](\d{2}))?\s*$/.exec(text) ?? []
  const at = Number(hours || 'x') * 60 + Number(minutes)
  return Number(hours) < 24 && Number(minutes) < 60 ? at : Number.NaN
}

function HoursSheet({ view: { hours }, onClose }: { view: CycleView; onClose: () => void }) {
  const send = useSend(cycleApi.set)
  const { control, handleSubmit } = useTyped(
    cycleHours,
    {
      ...{ on: hours.on, atStart: hours.atStart },
      ...{ fromMinute: clockText(hours.fromMinute), toMinute: clockText(hours.toMinute) },
      mostBytes: formatBytes(hours.mostBytes),
    },
    (typed) => ({
      ...typed,
      fromMinute: minuteIn(typed.fromMinute),
      toMinute: minuteIn(typed.toMinute),
      mostBytes: numberIn(typed.mostBytes, readBytes),
    }),
  )
  return (
    <FormSheet
      title="Proof by night"
      about="A proof ages. Within the cycle of each volume every copy is read again past the cache and compared, the most endangered first; it waits while anything else uses the drive, and stops when the drive is pulled out. The cycle stands at each volume, in the locker."
      onClose={onClose}
      onSave={handleSubmit((body) => send.mutate({ params: {}, body }, { onSuccess: onClose }))}
      save="Save the hours"
      busy={send.isPending}
      error={send.error}
    >
      <div className="mb-4">
        <FormTick control={control} name="on">
          Read copies again by night
        </FormTick>
      </div>
      <div className="grid gap-x-4 gap-y-3 sm:grid-cols-2">
        <FormField control={control} name="fromMinute" label="From" maxLength={5} hint="As 01:00, by this computer." />
        <FormField control={control} name="toMinute" label="To" maxLength={5} hint="Earlier is the next morning." />
        <FormUnit control={control} name="mostBytes" label="At most in one night" unit="bytes" />
      </div>
      <div className="mb-5">
        <FormTick control={control} name="atStart">
          Read a sample of the newest load in the first ten idle minutes after a drive was connected
        </FormTick>
      </div>
    </FormSheet>
  )
}
