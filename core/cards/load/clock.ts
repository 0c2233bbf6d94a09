import { formatLength } from '../../units/quantity'
import { middleValue } from '../../units/middle'

/** By how much one camera’s clock is off against the others, and what speaks for it. */
export interface ClockShift {
  /** What its times are to be moved by, in milliseconds: −14 400 000 where its clock is four hours ahead. */
  readonly shiftMs: number
  /** Clips that begin within a minute of another camera’s when moved, of how many, and how many do as they stand. */
  readonly matched: number
  readonly of: number
  readonly asTheyStand: number
  /** Moved by whole or half hours, as a wrong time zone does; anything else is less sure. */
  readonly isRound: boolean
  /** Labels of the loads that it was compared with. */
  readonly against: readonly string[]
}

/** Two cameras that are started together are so within a minute. Common practice, no source. */
const TOGETHER_MS = 60_000
/** Fewer than three takes in common may be chance. */
const LEAST_MATCHED = 3
const LEAST_SHARE = 0.6
const HALF_HOUR_MS = 1_800_000
const ROUND_MS = 90_000
/** As many starts of each side are compared; more of them prove no more. */
const MOST_STARTS = 400

const evenly = (starts: readonly number[]): number[] =>
  starts.length <= MOST_STARTS
    ? [...starts]
    : Array.from({ length: MOST_STARTS }, (_, at) => starts[Math.floor((at * starts.length) / MOST_STARTS)] ?? 0)

interface Pair {
  readonly mine: number
  readonly other: number
  readonly difference: number
}

/** Starts that agree within a window of differences: each start once, by the fewer of both sides. */
const agreeing = (pairs: readonly Pair[]) =>
  Math.min(new Set(pairs.map((pair) => pair.mine)).size, new Set(pairs.map((pair) => pair.other)).size)

/**
 * The constant by which starts of one camera are shifted against those of others, if one stands out: the difference at
 * which most of its clips begin together with another’s, found as the densest window over all differences, and
 * estimated by their median, so that clips that were filmed alone do not move it. Starts in milliseconds; `undefined`
 * where they agree as they stand, or no shift is clearly better than the next.
 *
 * 13:12, 13:31 and 15:02 against 09:12, 09:31, 09:40 and 11:02 is −4 h: three of three agree, none as they stand.
 */
export function clockShift(
  mine: readonly number[],
  others: readonly number[],
): Omit<ClockShift, 'against'> | undefined {
  const [own, theirs] = [evenly([...mine].sort((a, b) => a - b)), evenly([...others].sort((a, b) => a - b))]
  if (own.length < LEAST_MATCHED || theirs.length < LEAST_MATCHED) return undefined
  const pairs = own
    .flatMap((one) => theirs.map((other): Pair => ({ mine: one, other, difference: other - one })))
    .sort((a, b) => a.difference - b.difference)
  const within = (from: number, to: number) => pairs.filter(({ difference }) => difference >= from && difference <= to)
  const asTheyStand = agreeing(within(-TOGETHER_MS, TOGETHER_MS))
  const windows = densest(pairs)
  const [best] = windows
  if (!best || best.count < LEAST_MATCHED || best.count < LEAST_SHARE * own.length) return undefined
  const shiftMs = middleValue(within(best.from, best.from + 2 * TOGETHER_MS).map((pair) => pair.difference)) ?? 0
  if (Math.abs(shiftMs) <= 2 * TOGETHER_MS || asTheyStand * 2 > best.count) return undefined
  const next = windows.find((one) => Math.abs(one.from - best.from) > 4 * TOGETHER_MS)?.count ?? 0
  const nearest = Math.round(shiftMs / HALF_HOUR_MS) * HALF_HOUR_MS
  const isRound = nearest !== 0 && Math.abs(shiftMs - nearest) <= ROUND_MS
  // A time zone is off by whole or half hours: such a shift needs less to stand out.
  if (next > best.count - (isRound ? 1 : 2)) return undefined
  return { shiftMs: isRound ? nearest : shiftMs, matched: best.count, of: own.length, asTheyStand, isRound }
}

/** Windows of two minutes over the sorted differences, the fullest first; of equally full ones the first. */
function densest(pairs: readonly Pair[]): { from: number; count: number }[] {
  const found: { from: number; count: number }[] = []
  const [mine, other] = [new Tally(), new Tally()]
  let end = 0
  for (const first of pairs) {
    for (let next = pairs[end]; next && next.difference <= first.difference + 2 * TOGETHER_MS; next = pairs[end]) {
      mine.add(next.mine)
      other.add(next.other)
      end += 1
    }
    const count = Math.min(mine.distinct, other.distinct)
    if (count >= LEAST_MATCHED - 1) found.push({ from: first.difference, count })
    mine.drop(first.mine)
    other.drop(first.other)
  }
  return found.sort((a, b) => b.count - a.count)
}

/** How many different values lie in a window that moves along. */
class Tally {
  readonly #times = new Map<number, number>()

  get distinct(): number {
    return this.#times.size
  }

  add(value: number): void {
    this.#times.set(value, (this.#times.get(value) ?? 0) + 1)
  }

  drop(value: number): void {
    const left = (this.#times.get(value) ?? 0) - 1
    if (left > 0) this.#times.set(value, left)
    else this.#times.delete(value)
  }
}

/** A load with the starts of its clips, and the camera that filmed it where that is known. */
export interface LoadStarts {
  readonly id: string
  readonly label: string
  readonly cameraId: string | null
  readonly starts: readonly number[]
}

/**
 * The shift of each load of a production against all that other cameras filmed. Where two cameras disagree and no third
 * tells who is right, the one that was scanned later is the one that is asked about. Loads as they were scanned.
 */
export function clockShifts(loads: readonly LoadStarts[]): Map<string, ClockShift> {
  const cameraOf = (load: LoadStarts) => load.cameraId ?? load.id
  const found = new Map<string, ClockShift>()
  for (const load of loads) {
    const others = loads.filter((other) => cameraOf(other) !== cameraOf(load))
    const shift = clockShift(
      load.starts,
      others.flatMap((other) => other.starts),
    )
    if (!shift) continue
    // Only those that it agrees with once it is moved speak for it.
    const against = others.filter((other) => agreesWith(load.starts, other.starts, shift.shiftMs))
    const cameras = new Set(against.map(cameraOf))
    if (cameras.size < 2 && against.every((other) => loads.indexOf(other) > loads.indexOf(load))) continue
    found.set(load.id, { ...shift, against: against.map((other) => other.label) })
  }
  return found
}

const agreesWith = (mine: readonly number[], others: readonly number[], shiftMs: number) =>
  mine.some((start) => others.some((other) => Math.abs(other - start - shiftMs) <= 2 * TOGETHER_MS))

/** `4 h earlier`: what a shift does to the times that are shown. */
export const shiftWords = (shiftMs: number): string =>
  `${formatLength(Math.abs(Math.round(shiftMs / 1000)))} ${shiftMs < 0 ? 'earlier' : 'later'}`

/** What is to be said of a load whose clock is off, with what speaks for it and how sure it is. */
export function clockSentence(
  label: string,
  { shiftMs, matched, of, asTheyStand, isRound, against }: ClockShift,
): string {
  const names = new Intl.ListFormat('en-GB').format(against)
  const stand = asTheyStand === 0 ? 'none does' : `${asTheyStand} ${asTheyStand === 1 ? 'does' : 'do'}`
  const either = against.length === 1 ? ' It may be the other one that is wrong.' : ''
  return (
    `The clock of “${label}” is ` +
    `${isRound ? '' : 'perhaps '}${formatLength(Math.abs(Math.round(shiftMs / 1000)))} ` +
    `${shiftMs < 0 ? 'ahead of' : 'behind'} that of ${names}: moved ${shiftWords(shiftMs)}, ` +
    `${matched} of ${of} clips begin within a minute of one of theirs; as recorded, ` +
    `${stand}.${either}`
  )
}
