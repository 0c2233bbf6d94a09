/** Whether a text is a day of the calendar: `2026-02-28` is one, `2026-02-30` is none. */
export function isDay(text: string): boolean {
  const parts = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text)
  if (!parts) return false
  const at = new Date(Date.UTC(Number(parts[1]), Number(parts[2]) - 1, Number(parts[3])))
  return Number(parts[1]) >= 1 && at.toISOString().slice(0, 10) === text
}

/** Whether a zone is known by this IANA name. */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    return true
  } catch {
    return false
  }
}

/** The calendar day in a zone (its IANA name) at a time in milliseconds: `dayIn('Pacific/Auckland', 0)` is `1970-01-01`. Unknown zones count as UTC. */
export function dayIn(timeZone: string, at: number): string {
  const format = (zone: string) =>
    new Intl.DateTimeFormat('en-CA', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(at)
  try {
    return format(timeZone)
  } catch {
    return format('UTC')
  }
}

/** Day and time of day in a zone, as tables show them: `2026-11-14 09:12`; with the time as it is where a date is none. */
export function timeIn(timeZone: string, at: string): string {
  const when = new Date(at)
  if (Number.isNaN(when.getTime())) return at
  const zone = isTimeZone(timeZone) ? timeZone : 'UTC'
  const time = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(when)
  return `${dayIn(zone, when.getTime())} ${time}`
}
