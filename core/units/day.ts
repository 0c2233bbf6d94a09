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
