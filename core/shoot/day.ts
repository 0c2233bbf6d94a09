import { dayWithName } from '../units/day'
import { counted, formatLength } from '../units/quantity'

/** Somebody or something that begins at a time of the day, with the minutes that are planned for it. */
export interface Call {
  /** `HH:MM` on the clock of the place. */
  readonly at: string
  readonly what: string
  readonly minutes: number
}

/** The day of the shoot, as far as its warnings need it. */
export interface Day {
  readonly shootOn: string | null
  readonly timeZone: string
  readonly calls: readonly Call[]
  /** Length of all planned takes, in seconds. */
  readonly takeSeconds: number
  /** Cameras of the plan whose clips had a wrong date at their last load. */
  readonly clocksOff: readonly { readonly camera: string; readonly load: string }[]
}

const DAY = 24 * 60

/** Minutes since midnight; `undefined` when it is no time of a day. */
export function minutesOf(at: string): number | undefined {
  const match = /^(\d{1,2})[:.h](\d{2})$/.exec(at.trim())
  const [hours, minutes] = [Number(match?.[1]), Number(match?.[2])]
  return match && hours < 24 && minutes < 60 ? hours * 60 + minutes : undefined
}

/** `HH:MM` of minutes since midnight; past it the next day's time. */
export const clockOf = (minutes: number): string =>
  `${String(Math.floor((minutes % DAY) / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`

/** Calls in the order of the day; what cannot be read comes last. */
export const inOrder = (calls: readonly Call[]): Call[] =>
  [...calls].sort((a, b) => (minutesOf(a.at) ?? DAY) - (minutesOf(b.at) ?? DAY))

/** Minutes by which the clocks of a zone are put on or back in the course of a day; 0 on most. */
export function clockChange(day: string, timeZone: string): number {
  const offset = (at: number) => {
    const parts = new Intl.DateTimeFormat('en-GB', {
      timeZone,
      hourCycle: 'h23',
      ...{ year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit', second: '2-digit' },
    }).formatToParts(at)
    const of = (type: string) => Number(parts.find((part) => part.type === type)?.value)
    return Date.UTC(of('year'), of('month') - 1, of('day'), of('hour'), of('minute'), of('second')) - at
  }
  const noon = Date.parse(`${day}T12:00:00Z`)
  // The first and the last minute of that day on the clock of the zone.
  const first = Date.parse(`${day}T00:00:00Z`) - offset(noon)
  return Math.round((offset(first + 24 * 3_600_000) - offset(first - 3_600_000)) / 60_000)
}

/** What of a day should be looked at before it begins, the gravest first. */
export function dayWarnings({ shootOn, timeZone, calls, takeSeconds, clocksOff }: Day): string[] {
  const timed = inOrder(calls).flatMap((call) => {
    const from = minutesOf(call.at)
    return from === undefined ? [] : [{ ...call, from, to: from + call.minutes }]
  })
  const late = timed.filter((call) => call.to > DAY)
  const crowded = timed.filter((call, at) => (timed[at + 1]?.from ?? Infinity) < call.to)
  const given = timed.reduce((sum, call) => sum + call.minutes, 0) * 60
  const change = shootOn ? clockChange(shootOn, timeZone) : 0
  return [
    ...late.map(
      ({ what, at, to }) =>
        `“${what}” goes on past midnight (${at} to ${clockOf(to)}): its clips carry two dates. Keep them ` +
        'on one card, and look for them under both days.',
    ),
    ...clocksOff.map(
      ({ camera, load }) =>
        `The clock of ${camera} was off last time (“${load}”): set it before the first take, after every battery, too.`,
    ),
    ...(change === 0
      ? []
      : [
          `The clocks of ${timeZone} go ${change > 0 ? 'forward' : 'back'} by ` +
            `${formatLength(Math.abs(change) * 60)} on that day: set cameras to one time, and leave them on it.`,
        ]),
    ...crowded.map(({ what }) => `“${what}” lasts longer than until the next call.`),
    ...(given > 0 && takeSeconds > given
      ? [`The planned takes alone last ${formatLength(takeSeconds)}, and the calls give ${formatLength(given)} in all.`]
      : []),
  ]
}

/** The day in one sentence. */
export function daySentence({ shootOn, calls }: Day, warnings: readonly string[]): string {
  const [first] = inOrder(calls)
  const when = shootOn ? `The day is ${dayWithName(shootOn)}` : 'No day is set yet'
  const start = first
    ? `${when}; it begins at ${first.at}${first.what.trim() === '' ? '' : ` with “${first.what}”`}`
    : when
  return warnings.length === 0 ? `${start}.` : `${start}. ${counted(warnings.length, 'thing')} to check before.`
}
