import type { FrameRate } from '../units/frameRate'
import { formatByteRate } from '../units/quantity'

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
    : `${stream} is above every published class, ${SPEED_CLASSES.at(-1)?.name} included: use media ` +
        'whose maker states a sustained write of that much'
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
 * The class that a card of that speed bears: 90 MB/s is `V90`, 75 MB/s `V60`; its speed where it is below all of them.
 */
export const speedClassOf = (bytesPerSecond: number): string =>
  SPEED_CLASSES.findLast((one) => one.bytesPerSecond <= bytesPerSecond)?.name ?? formatByteRate(bytesPerSecond)
