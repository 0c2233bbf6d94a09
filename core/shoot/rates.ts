import { frameRate, frameRateLabel, sameRate, type FrameRate } from '../units/frameRate'
import { ordinal } from '../units/quantity'
import { shutterFor, type Shutter } from './recording'

/** Frequency of the mains where it is filmed; lamps on it flicker twice as often. */
export const MAINS = [50, 60] as const
export type Mains = (typeof MAINS)[number]

const ratio = (a: FrameRate, b: FrameRate): number => (a.num * b.den) / (a.den * b.num)

/** Rates are told apart by the thousandth: 29.97 is no 30. */
const isWhole = (value: number) => Math.abs(value - Math.round(value)) < 1e-9

/** Slow-motion factor, recorded ÷ timeline: 120 on a timeline of 25 is 4.8. */
export const slowFactor = (recorded: FrameRate, timeline: FrameRate): number => ratio(recorded, timeline)

/**
 * Exposures in which lamps on the mains look alike from frame to frame: whole multiples of half a period, 1/100 s at
 * 50 Hz. The slowest shutter first; none is longer than a frame. Common practice, no source.
 */
export function steadyShutters(rate: FrameRate, mains: Mains): readonly number[] {
  const flicker = 2 * mains
  const frame = rate.num / rate.den
  const found: number[] = []
  for (let pulses = Math.floor(flicker / frame); pulses >= 1; pulses -= 1) found.push(flicker / pulses)
  return found
}

/** Lamps flicker in the picture unless each exposure lasts whole pulses, or frames come at whole pulses of the lamp. */
export type Flicker = 'steady' | 'rolls' | 'no-shutter'

export interface RateAnswer {
  readonly rate: FrameRate
  readonly slowFactor: number
  readonly shutter: Shutter
  readonly flicker: Flicker
  /** Denominators of shutters that are steady under the lamps; none where frames are shorter than a pulse. */
  readonly steady: readonly number[]
  readonly use: 'normal' | 'slow' | 'converted'
  readonly sentence: string
}

/** A thousandth off is a slow roll of minutes that nobody sees: 1/50 under lamps of 60 Hz is far more. */
const CLOSE = 0.002

/** Whether a time of 1/`denominator` seconds holds whole pulses of the lamps. */
const holdsPulses = (denominator: number, mains: Mains): boolean => {
  const pulses = (2 * mains) / denominator
  return pulses >= 1 - CLOSE && Math.abs(pulses - Math.round(pulses)) < CLOSE * pulses
}

/** The two steady shutters that come nearest to half a frame. */
const nearest = (steady: readonly number[], exact: number) =>
  [...steady].sort((a, b) => Math.abs(Math.log(a / exact)) - Math.abs(Math.log(b / exact))).slice(0, 2)

const stopWords = (denominators: readonly number[]) =>
  denominators.map((one) => `1/${Number(one.toFixed(1))}`).join(' or ')

/**
 * What a recorded rate is good for on a timeline, at which shutter, and whether the lamps of the region flicker in it.
 */
export function rateAnswer(rate: FrameRate, timeline: FrameRate, mains: Mains): RateAnswer {
  const slow = slowFactor(rate, timeline)
  const shutter = shutterFor(rate)
  const steady = steadyShutters(rate, mains)
  // Frames that come at whole pulses see the lamps alike, however short the exposure.
  const alike = holdsPulses(shutter.stop, mains) || holdsPulses(rate.num / rate.den, mains)
  const flicker = alike ? 'steady' : steady.length > 0 ? 'rolls' : 'no-shutter'
  const use = sameRate(rate, timeline) ? 'normal' : slow > 1 ? 'slow' : 'converted'
  const label = frameRateLabel(rate)
  const onTimeline = frameRateLabel(timeline)
  const uses = {
    normal: `${label} plays as it is.`,
    slow: isWhole(slow)
      ? `${label} plays ${Number(slow.toFixed(2))} times slower on ${onTimeline}, or at its own speed ` +
        `with every ${ordinal(Math.round(slow))} frame.`
      : `${label} plays ${Number(slow.toFixed(2))} times slower on ${onTimeline}; at its own speed ` +
        'frames would be dropped unevenly.',
    converted:
      `${label} has fewer frames than ${onTimeline}: at its own speed frames are shown twice. Film at ` +
      `${onTimeline} instead.`,
  }
  const lamps = {
    steady: `1/${shutter.stop} is steady under lamps on ${mains} Hz.`,
    rolls:
      `1/${shutter.stop} flickers under lamps on ${mains} Hz: set ` +
      `${stopWords(nearest(steady, shutter.exact))}, or light without them.`,
    'no-shutter':
      `A frame is shorter than a pulse of lamps on ${mains} Hz: no shutter is steady, use daylight or ` +
      'lamps made for it.',
  }
  return { rate, slowFactor: slow, shutter, flicker, steady, use, sentence: `${uses[use]} ${lamps[flicker]}` }
}

/** Rates for normal work by region. Common practice, no source. */
export const usualRates = (mains: Mains): readonly FrameRate[] =>
  mains === 50
    ? [frameRate(25), frameRate(50), frameRate(100)]
    : [frameRate(24_000, 1001), frameRate(30_000, 1001), frameRate(60_000, 1001), frameRate(120_000, 1001)]

const listed = (rates: readonly FrameRate[]) => new Intl.ListFormat('en-GB').format(rates.map(frameRateLabel))

export interface CommonTimeline {
  /** The timeline on which most of them play as they are; `undefined` when one would have to be converted on any. */
  readonly timeline: FrameRate | undefined
  readonly sentence: string
}

/**
 * One timeline for rates of one day: the slowest of them, when each other is a whole multiple of it. 25 and 50 share
 * 25; 25 and 30 share none, nor do 24 and 24000/1001.
 */
export function commonTimeline(rates: readonly FrameRate[]): CommonTimeline {
  const distinct = rates.filter((rate, at) => rates.findIndex((other) => sameRate(other, rate)) === at)
  const slowest = [...distinct].sort((a, b) => ratio(a, b) - 1)[0]
  if (!slowest) return { timeline: undefined, sentence: 'No rate is planned yet.' }
  const label = frameRateLabel(slowest)
  if (distinct.length === 1) return { timeline: slowest, sentence: `Everything is filmed at ${label}: one timeline.` }
  const odd = distinct.filter((rate) => !isWhole(ratio(rate, slowest)))
  const all = listed(distinct)
  if (odd.length === 0) return { timeline: slowest, sentence: `${all} share a timeline of ${label}.` }
  return {
    timeline: undefined,
    sentence:
      `${all} share no timeline: ${listed(odd)} would have to be converted ` +
      `to ${label}. Film all at one rate, or the faster ones at whole multiples of it.`,
  }
}
