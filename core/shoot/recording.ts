import type { FrameRate } from '../units/frameRate'
import { counted, formatByteRate } from '../units/quantity'

/** What one camera will record on a production. */
export interface RecordingPlan {
  readonly camera: string
  readonly widthPx: number
  readonly heightPx: number
  readonly rate: FrameRate
  readonly videoBitsPerSecond: number
  readonly audioBitsPerSecond: number
  readonly secondsPerTake: number
  readonly takes: number
  readonly cardBytes: number
  /** The card's guaranteed sustained write; video speed class V30 is 30 000 000 (SD Association speed classes). */
  readonly cardBytesPerSecond: number
  /** No card is planned fuller than this share, 0–1. */
  readonly fillLimit: number
}

export interface RecordingBudget {
  readonly seconds: number
  readonly sizeBytes: number
  readonly cards: number
  /** Whole takes on one card; 0 when one take is longer than a card. */
  readonly takesPerCard: number
  /** Length that fits on one card up to the fill limit. */
  readonly secondsPerCard: number
  readonly streamBytesPerSecond: number
  readonly sustained: boolean
  /** The slowest published class that sustains the stream, or `undefined` above all. */
  readonly neededClass: SpeedClass | undefined
  readonly shutter: Shutter
}

export type SpeedClass = 'V6' | 'V10' | 'V30' | 'V60' | 'V90' | 'E150' | 'E300' | 'E450' | 'E600'

export interface SpeedRating {
  readonly name: SpeedClass
  /** Sustained write at least, in bytes per second. */
  readonly bytesPerSecond: number
}

/** Source: SD Association, video speed classes. */
const VIDEO_CLASSES: readonly SpeedRating[] = [
  { name: 'V6', bytesPerSecond: 6e6 },
  { name: 'V10', bytesPerSecond: 10e6 },
  { name: 'V30', bytesPerSecond: 30e6 },
  { name: 'V60', bytesPerSecond: 60e6 },
  { name: 'V90', bytesPerSecond: 90e6 },
]

/** From memory: SD Association, express speed classes. */
const EXPRESS_CLASSES: readonly SpeedRating[] = [
  { name: 'E150', bytesPerSecond: 150e6 },
  { name: 'E300', bytesPerSecond: 300e6 },
  { name: 'E450', bytesPerSecond: 450e6 },
  { name: 'E600', bytesPerSecond: 600e6 },
]

/** Slowest first. */
export const SPEED_CLASSES: readonly SpeedRating[] = [...VIDEO_CLASSES, ...EXPRESS_CLASSES]

/** The list a class is taken from, as it is said beside it. */
export const speedListOf = (name: SpeedClass): string =>
  name.startsWith('V')
    ? `video speed classes ${VIDEO_CLASSES[0]?.name} to ${VIDEO_CLASSES.at(-1)?.name}`
    : `express speed classes ${EXPRESS_CLASSES[0]?.name} to ${EXPRESS_CLASSES.at(-1)?.name}`

/**
 * Which published class carries a stream, in words: `75 MB/s needs V90 (video speed classes V6 to V90)`.
 */
export function speedSentence(bitsPerSecond: number): string {
  const stream = formatByteRate(bitsPerSecond / 8)
  const needed = neededSpeedClass(bitsPerSecond)
  return needed
    ? `${stream} needs ${needed} (${speedListOf(needed)})`
    : `${stream} is above every published class, ${SPEED_CLASSES.at(-1)?.name} included: use media whose maker states a sustained write of that much`
}

/** Recorded bytes: `recordingBytes(100e6, 3600)` is 45 000 000 000 (45.0 GB). Rounded up to a whole byte. */
export const recordingBytes = (bitsPerSecond: number, seconds: number): number =>
  Math.ceil((bitsPerSecond * seconds) / 8)

/** Seconds that fit: `recordingSeconds(128e9, 100e6)` is 10 240 s (2 h 50 min 40 s). */
export const recordingSeconds = (bytes: number, bitsPerSecond: number): number => (bytes * 8) / bitsPerSecond

/** The slowest published class that carries a stream: 600 Mb/s is 75 MB/s and needs V90. */
export const neededSpeedClass = (bitsPerSecond: number): SpeedClass | undefined =>
  SPEED_CLASSES.find((one) => one.bytesPerSecond >= bitsPerSecond / 8)?.name

export interface Shutter {
  /** Denominator of the exact 180° shutter, 1/(2 × rate). */
  readonly exact: number
  /** Denominator of the nearest stop that cameras offer. */
  readonly stop: number
}

/** Common practice, no source: the shutter denominators that cameras offer, in thirds of a stop from 1/25 to 1/8000. */
const SHUTTER_STOPS = [
  1, 2, 4, 8, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000,
  2500, 3200, 4000, 5000, 6400, 8000,
]

/** Half-frame exposure for natural motion: 25 frames give 1/50, 24 give 1/48 and the stop 1/50. */
export function shutterFor(rate: FrameRate): Shutter {
  const exact = (2 * rate.num) / rate.den
  const distance = (stop: number) => Math.abs(Math.log(stop / exact))
  return { exact, stop: SHUTTER_STOPS.reduce((best, stop) => (distance(stop) < distance(best) ? stop : best)) }
}

/**
 * Cards for whole takes, since no take is cut to fill a card: three takes of 5 000 s on cards of 9 216 s need three. A
 * take that is longer than a card goes on on cards of its own.
 */
export function cardsFor(takes: number, takeSeconds: number, cardSeconds: number): { cards: number; perCard: number } {
  // A take that fits to the last second must not be lost to rounding.
  const perCard = Math.floor(cardSeconds / takeSeconds + 1e-9)
  const cards = perCard >= 1 ? Math.ceil(takes / perCard) : takes * Math.ceil(takeSeconds / cardSeconds - 1e-9)
  return { cards, perCard }
}

/** Bytes, cards, speed class and shutter of one camera's plan. */
export function recordingBudget(plan: RecordingPlan): RecordingBudget {
  const bitsPerSecond = plan.videoBitsPerSecond + plan.audioBitsPerSecond
  const seconds = plan.secondsPerTake * plan.takes
  const secondsPerCard = recordingSeconds(plan.cardBytes * plan.fillLimit, bitsPerSecond)
  const { cards, perCard } = cardsFor(plan.takes, plan.secondsPerTake, secondsPerCard)
  return {
    seconds,
    sizeBytes: recordingBytes(bitsPerSecond, seconds),
    cards,
    takesPerCard: perCard,
    secondsPerCard,
    streamBytesPerSecond: bitsPerSecond / 8,
    sustained: bitsPerSecond / 8 <= plan.cardBytesPerSecond,
    neededClass: neededSpeedClass(bitsPerSecond),
    shutter: shutterFor(plan.rate),
  }
}

/** What fits on one card, in words: `1 whole take`, or that a take is longer than a card. */
export const takesPerCard = ({ takesPerCard: takes }: RecordingBudget): string =>
  takes > 0 ? counted(takes, 'whole take') : 'one take is longer than that and goes on on the next card'
