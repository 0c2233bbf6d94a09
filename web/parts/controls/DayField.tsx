import { CalendarDays } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useState, type Ref } from 'react'
import { DayPicker } from 'react-day-picker'
import { isDay, nameOfDay } from '../../../core/units/day'
import { Field } from './Field'
import { IconButton } from './IconButton'

interface DayFieldProps {
  readonly label: string
  /** As `2026-11-22`, empty, or what was typed so far. */
  readonly value: string
  readonly onChange: (day: string) => void
  readonly onBlur?: () => void
  readonly name?: string
  readonly fault?: string | undefined
  readonly ref?: Ref<HTMLInputElement>
}

/** A day of the calendar, typed or chosen; the day of the week stands beside it. */
export const DayField = ({ label, value, onChange, ...rest }: DayFieldProps) => (
  <Field
    {...rest}
    label={label}
    value={value}
    placeholder="2026-11-22"
    maxLength={10}
    autoComplete="off"
    hint={<span className="sr-only">{nameOfDay(value)}</span>}
    inside={
      <>
        <span aria-hidden>{nameOfDay(value)?.slice(0, 3)}</span>
        <Calendar label={label} value={value} onChange={onChange} />
      </>
    }
    onChange={(event) => onChange(event.target.value)}
  />
)

/** The picker counts in the time of this computer: a day there and a day here have the same date. */
const dateOf = (day: string): Date | undefined => (isDay(day) ? new Date(`${day}T12:00`) : undefined)
const dayOf = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-')

const CELL = 'size-9 rounded-box text-center figure'

function Calendar({ label, value, onChange }: Pick<DayFieldProps, 'label' | 'value' | 'onChange'>) {
  const [open, setOpen] = useState(false)
  const chosen = dateOf(value)
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <IconButton icon={CalendarDays} label={`Choose: ${label}`} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={8}
          aria-label={label}
          className="z-60 rounded-box border border-ink bg-sheet p-2 text-ink"
        >
          <DayPicker
            mode="single"
            required
            autoFocus
            ISOWeek
            fixedWeeks
            selected={chosen}
            {...(chosen && { defaultMonth: chosen })}
            onSelect={(date) => {
              onChange(dayOf(date))
              setOpen(false)
            }}
            classNames={{
              months: 'relative',
              nav: 'absolute inset-x-0 top-0 flex justify-between',
              button_previous: CELL,
              button_next: CELL,
              chevron: 'mx-auto size-4 fill-current',
              month_caption: 'flex h-9 items-center justify-center font-semibold',
              weekday: 'border-0 p-0 text-center text-sm font-normal text-quiet',
              day: 'border-0 p-0',
              day_button: `${CELL} hover:bg-wash`,
              today: 'font-bold underline underline-offset-4',
              selected: 'rounded-box bg-accent text-accent-ink',
              outside: 'text-quiet/60',
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
