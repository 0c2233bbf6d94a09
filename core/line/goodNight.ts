import { counted } from '../units/quantity'

/** One piece of work that is under way or waits for its turn. */
export interface NightWork {
  /** What it is about: `Curlew A`. */
  readonly label: string
  readonly kind: 'copy' | 'other'
  /** From now until it is done, in seconds, with everything before it; `undefined` where that is not known. */
  readonly endsInSeconds: number | undefined
  readonly paused: boolean
}

const listed = (names: readonly string[]) => new Intl.ListFormat('en-GB').format(names)

/**
 * What a person wants to know before they go to bed: when everything that is under way will be done, and whether
 * anything waits for them. `clock` gives the time of day after so many seconds. `Curlew A and Plover B will be proved
 * at 01:40; nothing waits for you.`
 */
export function goodNight(
  works: readonly NightWork[],
  waits: readonly string[],
  clock: (seconds: number) => string,
): string | undefined {
  const running = works.filter((work) => !work.paused)
  const paused = works.filter((work) => work.paused)
  if (works.length === 0) return undefined
  const ends = running.map((work) => work.endsInSeconds)
  const last = ends.every((end) => end !== undefined) ? Math.max(...ends, 0) : undefined
  const copies = running.filter((work) => work.kind === 'copy')
  const others = running.length - copies.length
  const when = last === undefined ? '' : ` at ${clock(last)}`
  const parts = [
    copies.length > 0 ? `${listed([...new Set(copies.map((work) => `“${work.label}”`))])} will be proved${when}` : '',
    others > 0
      ? copies.length > 0
        ? `${counted(others, 'other task')} will be done by then`
        : `${counted(others, 'task')} will be done${when}`
      : '',
  ].filter(Boolean)
  const work = running.length === 0 ? 'Nothing goes on' : listed(parts)
  const unknown = running.length > 0 && last === undefined ? '; how long it takes is known in a moment' : ''
  const held = paused.map((one) => `“${one.label}” is paused`)
  const open = [...held, ...waits]
  const waiting =
    open.length === 0
      ? 'nothing waits for you'
      : `${counted(open.length, 'thing')} ${open.length === 1 ? 'waits' : 'wait'} for you: ${listed(open)}`
  return `${work}${unknown}; ${waiting}.`
}
