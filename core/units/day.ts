/** Whether a text is a day of the calendar: `2026-02-28` is one, `2026-02-30` is none. */
export function isDay(text: string): boolean {
  const parts = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text)
  if (!parts) return false
  const at = new Date(Date.UTC(Number(parts[1]), Number(parts[2]) - 1, Number(parts[3])))
  // Years before 100 are moved to the twentieth century by `Date.UTC`, and are no days of this house.
  return at.toISOString().slice(0, 10) === text
}

const DAY_NAMES = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const

/** The day of the week of a day of the calendar; `undefined` of other texts. */
export const nameOfDay = (day: string): string | undefined =>
  isDay(day) ? DAY_NAMES[new Date(`${day}T00:00Z`).getUTCDay()] : undefined

/** A day of the calendar as people read it: `Sun 2026-11-22`; other texts as they are. */
export const dayWithName = (day: string): string => [nameOfDay(day)?.slice(0, 3), day].filter(Boolean).join(' ')

/** Whether a zone is known by this IANA name. */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    return true
  } catch {
    return false
  }
}

const FORMATS = {
  day: { year: 'numeric', month: '2-digit', day: '2-digit' },
  clock: { hour: '2-digit', minute: '2-digit' },
  zone: { timeZoneName: 'short' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>
const made = new Map<string, Intl.DateTimeFormat>()

/** Making one takes longer than using it a hundred times. Unknown zones count as UTC. */
function formatOf(what: keyof typeof FORMATS, timeZone: string): Intl.DateTimeFormat {
  const key = `${what} ${timeZone}`
  const known = made.get(key)
  if (known) return known
  const zone = isTimeZone(timeZone) ? timeZone : 'UTC'
  const format = new Intl.DateTimeFormat(what === 'day' ? 'en-CA' : 'en-GB', { timeZone: zone, ...FORMATS[what] })
  made.set(key, format)
  return format
}

/**
 * The calendar day in a zone (its IANA name) at a time in milliseconds: `dayIn('Pacific/Auckland', 0)` is `1970-01-01`.
 * Unknown zones count as UTC.
 */
export const dayIn = (timeZone: string, at: number): string => formatOf('day', timeZone).format(at)

/** How a zone is called at a time: `GMT`, `CEST`, `GMT+13`. */
export const zoneName = (timeZone: string, at: number): string =>
  formatOf('zone', timeZone)
    .formatToParts(at)
    .find((part) => part.type === 'timeZoneName')?.value ?? 'UTC'

/** The time of day in a zone, and whose it is: `09:12 GMT`. */
export const clockIn = (timeZone: string, at: number): string =>
  `${formatOf('clock', timeZone).format(at)} ${zoneName(timeZone, at)}`

/**
 * Day and time of day in a zone, as tables show them: `2026-11-14 09:12 GMT`; with the time as it is where a date is
 * none.
 */
export function timeIn(timeZone: string, at: string | number): string {
  const when = new Date(at).getTime()
  return Number.isNaN(when) ? String(at) : `${dayIn(timeZone, when)} ${clockIn(timeZone, when)}`
}

/** The zone of whoever asks: that of the browser in a page, that of the computer in a server. */
export const zoneHere = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone
