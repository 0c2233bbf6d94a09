import { valueOf, type Typed } from './typed'

/** An exact frame rate in frames per second, in lowest terms: `{ num: 24000, den: 1001 }`. */
export interface FrameRate {
  readonly num: number
  readonly den: number
}

/** Rates that are written with decimals but run at thousandths: 23.976 is 24000/1001. */
const NTSC_FAMILY = [15, 24, 30, 48, 60, 72, 90, 96, 120, 144, 180, 192, 240]
/** 23.97 and 23.98 are both meant for 24000/1001, which is 23.976. */
const NTSC_TOLERANCE = 0.0065

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))

/** Brings a fraction to lowest terms. Throws a RangeError when it is not a positive rate. */
export function frameRate(num: number, den = 1): FrameRate {
  if (!Number.isInteger(num) || !Number.isInteger(den) || num <= 0 || den <= 0) {
    throw new RangeError(`${num}/${den} is not a frame rate`)
  }
  const divisor = gcd(num, den)
  return { num: num / divisor, den: den / divisor }
}

/** Frames in a second: from one in a hundred seconds, as in time lapse, to what high-speed cameras take. */
const SLOWEST = 0.01
const FASTEST = 100_000
const LONGEST_TEXT = 30
const HOW = 'Write it as 25, 23.976 or 24000/1001.'
const LIMITS: Typed<never> = { fault: `Frame rates go from ${SLOWEST} to ${FASTEST} frames a second.` }

/**
 * Reads a rate as people and tools write it, or says what to write.
 *
 * `readFrameRate('25')` is 25/1; `'23.976'`, `'23,976'`, `'23.98'` and `'23.97'` are 24000/1001; `'30000/1001'` is
 * itself.
 */
export function readFrameRate(text: string): Typed<FrameRate> {
  if (text.length > LONGEST_TEXT) return { fault: HOW }
  const fraction = /^\s*(\d+)\s*\/\s*(\d+)\s*$/.exec(text)
  const decimal = /^\s*(\d+(?:[.,]\d+)?)\s*(?:fps|p|i)?\s*$/i.exec(text)
  const [num, den] = fraction
    ? [Number(fraction[1]), Number(fraction[2])]
    : [Number(decimal?.[1]?.replace(',', '.') ?? Number.NaN), 1]
  if (Number.isNaN(num) || den === 0) return { fault: HOW }
  if (num / den < SLOWEST || num / den > FASTEST) return LIMITS
  if (fraction) return Number.isSafeInteger(num) ? { value: frameRate(num, den) } : { fault: HOW }
  return { value: rateOfDecimal(num) }
}

/** A rate of so many frames a second, with decimals taken for the thousandths they stand for. */
export function rateOfDecimal(framesPerSecond: number): FrameRate {
  if (Number.isInteger(framesPerSecond)) return frameRate(framesPerSecond)
  const nominal = NTSC_FAMILY.find((whole) => Math.abs(framesPerSecond - (whole * 1000) / 1001) < NTSC_TOLERANCE)
  return nominal ? frameRate(nominal * 1000, 1001) : frameRate(Math.max(1, Math.round(framesPerSecond * 1000)), 1000)
}

/** A rate as typed; `undefined` when it is none. */
export const parseFrameRate = (text: string): FrameRate | undefined => valueOf(readFrameRate(text))

/** The form used by the API and by ffmpeg: `"24000/1001"`, `"25/1"`. */
export const frameRateText = (rate: FrameRate): string => `${rate.num}/${rate.den}`

/** The form for people: `"23.976"`, `"25"`. */
export function frameRateLabel(rate: FrameRate): string {
  const value = rate.num / rate.den
  return Number.isInteger(value) ? String(value) : String(Number(value.toFixed(3)))
}

/** Exact equality of two rates in lowest terms. */
export const sameRate = (a: FrameRate, b: FrameRate): boolean => a.num * b.den === b.num * a.den

/** Seconds that a whole number of frames lasts: 1492 frames at 25 are 59.68 s. */
export const secondsOfFrames = (frames: number, rate: FrameRate): number => (frames * rate.den) / rate.num

/** Whole frames nearest to a length in seconds. */
export const framesInSeconds = (seconds: number, rate: FrameRate): number => Math.round((seconds * rate.num) / rate.den)
