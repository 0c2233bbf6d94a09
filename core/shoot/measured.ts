import { median } from '../units/middle'
import { counted } from '../units/quantity'

/** Source: Iglewicz and Hoaglin, as given in the NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.5.17. */
const OUTLYING = 3.5
const NORMAL = 0.6745

/**
 * Which values lie so far from the median that they are looked at before they are believed: modified z-scores above
 * 3.5. Fewer than three tell nothing, and values that agree to a thousandth of the median are never outliers.
 */
export function outlying(values: readonly number[]): readonly boolean[] {
  const middle = median(values)
  if (middle === undefined || values.length < 3) return values.map(() => false)
  const spread = median(values.map((value) => Math.abs(value - middle))) ?? 0
  // Where most are equal the spread is nothing, and a hair's breadth would count as far away.
  const least = Math.max(spread, Math.abs(middle) / 1000)
  return values.map((value) => (NORMAL * Math.abs(value - middle)) / least > OUTLYING)
}

/** Common practice, no source: what is guessed until something was measured. */
export const FIRST_GUESS = { expansion: 2, offloadBytesPerSecond: 47e6 } as const

/** What was learned of something: the median of what is believed, or the first guess while there is nothing. */
export interface Learned<Value> {
  readonly value: number
  readonly guessed: boolean
  readonly of: readonly (Value & { readonly outlier: boolean })[]
}

/** `learn` of 10, 11 and 40 is 10.5, and 40 is an outlier. */
export function learn<Value>(measured: readonly Value[], read: (one: Value) => number, guess: number): Learned<Value> {
  const out = outlying(measured.map(read))
  const of = measured.map((one, at) => ({ ...one, outlier: out[at] === true }))
  const value = median(of.filter((one) => !one.outlier).map(read))
  return { value: value ?? guess, guessed: value === undefined, of }
}

/** What clips of one mode on one load came to. */
export interface Recorded {
  readonly label: string
  readonly sizeBytes: number
  readonly seconds: number
}

/** Bits per second of what was recorded. */
export const recordedBitsPerSecond = ({ sizeBytes, seconds }: Recorded): number => (sizeBytes * 8) / seconds

/** Less than this share apart counts as the same: figures are shown with one decimal of a percent. */
const SAME_SHARE = 0.005

/** A mode of the plan: what the gear book reckons with, and what clips came to, in bits per second. */
export interface ModeMeasured {
  readonly camera: string
  readonly mode: string
  readonly inUse: number
  readonly learned: { readonly value: number; readonly guessed: boolean }
}

/** Whether what was learned of a mode is not what the gear book reckons with. */
export const differsFromPlan = ({ learned, inUse }: Pick<ModeMeasured, 'learned' | 'inUse'>): boolean =>
  !learned.guessed && Math.abs(learned.value / inUse - 1) >= SAME_SHARE

/** What was learned of all modes of a plan, in one sentence. */
export function measuredSentence(modes: readonly ModeMeasured[]): string {
  const known = modes.filter((mode) => !mode.learned.guessed)
  const other = known.filter(differsFromPlan)
  const [first] = other
  if (known.length === 0) return 'Nothing of this plan was measured yet.'
  if (!first) return 'The gear book uses the measured figures.'
  const more =
    other.length > 1
      ? `, and ${counted(other.length - 1, 'other mode')} ${other.length === 2 ? 'differs' : 'differ'}`
      : ''
  return (
    `${first.mode} of ${first.camera} takes ${differenceWords(first.learned.value, first.inUse)} ` +
    `than it is planned with${more}.`
  )
}

/** How far a measured figure is from the nominal one, in words: `9.0 % more`. */
export function differenceWords(measured: number, nominal: number): string {
  const share = measured / nominal - 1
  if (Math.abs(share) < SAME_SHARE) return 'as stated'
  return `${Math.abs(share * 100).toFixed(1)} % ${share > 0 ? 'more' : 'less'}`
}

/** Raw as it lies on cards and as it lies on the drive after export: 512 GB that became 1 TB are a factor of 1.95. */
export const expandedBytes = (cardBytes: number, factor: number): number => Math.ceil(cardBytes * factor)

/** How long cards take to empty, in seconds: 512 GB at 47.4 MB/s are 3 h. */
export const offloadSeconds = (sizeBytes: number, bytesPerSecond: number): number => sizeBytes / bytesPerSecond
