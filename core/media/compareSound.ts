import { counted, formatLength } from '../units/quantity'
import { fileCheck, type FileCheck } from './check'

/**
 * Samples a second in which decoded sound is compared: what lies below 4 kHz tells when it sounds, and coders keep it
 * best.
 */
export const COMPARED_HZ = 8000

/** How far the sound may lie from the original's. */
export const SOUND_LAG_SECONDS = 0.002
const MOST_LAG = COMPARED_HZ * SOUND_LAG_SECONDS

/**
 * Noise, the hardest sound to code, keeps 0.9 and more at 64 kb/s a channel; the same noise a few milliseconds off, or
 * in pieces that lie wrong, stays below 0.55. Measured here with the coder in use.
 */
const LEAST_CORRELATION = 0.7
/** Full scale of a sample of 16 bits. */
const FULL_SCALE = 32_768
/** −60 dB: below it a second counts as silent, and is not compared but for its level. Common practice, no source. */
const SILENT = 0.001 * FULL_SCALE
/** −48 dB: what is silent may get the noise of a coder, and no more. */
const STILL_SILENT = 0.004 * FULL_SCALE
/** How much louder or softer a second may be: 3 dB. */
const MOST_GAIN = Math.SQRT2
const TENTH = COMPARED_HZ / 10
/** A shorter rest of a second says nothing. */
const LEAST_SAMPLES = COMPARED_HZ / 4

/** Two tracks of decoded sound, second by second on the clock of the picture. */
export interface SoundCompared {
  /** How long was compared. */
  readonly seconds: number
  /** How many seconds are not the original's within 2 ms, or sound where it is silent. */
  readonly unlike: number
  /** The first of them; `null` where there is none. */
  readonly firstUnlike: number | null
  /** Packets of the made file that do not follow the one before, where the original has no gap either. */
  readonly steps: number
}

/** Whether a made file sounds as the original does, in words for a table of checks. */
export function soundCheck(name: string, { seconds, unlike, firstUnlike, steps }: SoundCompared): FileCheck {
  const faults = [
    ...(unlike > 0 ? [`${counted(unlike, 'second')} unlike, the first at ${formatLength(firstUnlike ?? 0)}`] : []),
    ...(steps > 0 ? [`${counted(steps, 'packet')} out of step`] : []),
  ]
  const found = faults.length > 0 ? faults.join('; ') : `${formatLength(Math.round(seconds))} alike`
  return fileCheck(name, faults.length === 0, `each second within ${SOUND_LAG_SECONDS * 1000} ms`, found)
}

/** Compares a second at a time, channel by channel; samples of 16 bits, interleaved. */
export class SoundComparison {
  #seconds = 0
  #unlike = 0
  #firstUnlike: number | null = null

  constructor(readonly channels: number) {}

  /** The next second of both; a shorter one ends them. */
  add(original: Int16Array, made: Int16Array): void {
    const samples = Math.floor(Math.min(original.length, made.length) / this.channels)
    if (samples >= LEAST_SAMPLES) {
      const isUnlike = Array.from({ length: this.channels }, (_, at) => at).some(
        (at) => !soundsAlike(this.#channel(original, at, samples), this.#channel(made, at, samples)),
      )
      if (isUnlike) {
        this.#unlike += 1
        this.#firstUnlike ??= this.#seconds
      }
    }
    this.#seconds += samples / COMPARED_HZ
  }

  result(steps: number): SoundCompared {
    return { seconds: this.#seconds, unlike: this.#unlike, firstUnlike: this.#firstUnlike, steps }
  }

  #channel(interleaved: Int16Array, at: number, samples: number): Float64Array {
    return Float64Array.from({ length: samples }, (_, sample) => interleaved[sample * this.channels + at] ?? 0)
  }
}

/** Whether one channel of a second sounds as the other does, at the same time and as loud. */
function soundsAlike(original: Float64Array, made: Float64Array): boolean {
  if (!isLoudAsThere(original, made)) return false
  const [wanted, found] = [loudness(original), loudness(made)]
  if (wanted < SILENT) return found < STILL_SILENT
  if (found > wanted * MOST_GAIN || found * MOST_GAIN < wanted) return false
  // Steps from sample to sample: low notes change too slowly to tell a few milliseconds.
  const [a, b] = [stepsOf(original), stepsOf(made)]
  // Most lie just where they belong, so that the other places need no look.
  for (let lag = 0; lag <= MOST_LAG; lag += 1)
    if (correlation(a, b, lag) >= LEAST_CORRELATION || correlation(a, b, -lag) >= LEAST_CORRELATION) return true
  return false
}

/**
 * Whether each tenth of a second is about as loud as the original around it: a tone lies right at many places, but
 * begins and ends at one. A coder may smear a sound over the tenth before it and after it, and no further.
 */
function isLoudAsThere(original: Float64Array, made: Float64Array): boolean {
  const [wanted, found] = [tenthsOf(original), tenthsOf(made)]
  return found.every((loud, at) => {
    const around = wanted.slice(Math.max(0, at - 1), at + 2)
    const [most, least] = [Math.max(...around), Math.min(...around)]
    const isTooLoud = loud > STILL_SILENT && loud > 2 * most
    const isTooSoft = least > STILL_SILENT && loud < least / 2
    return !isTooLoud && !isTooSoft
  })
}

const tenthsOf = (samples: Float64Array): number[] =>
  Array.from({ length: Math.floor(samples.length / TENTH) }, (_, at) =>
    loudness(samples.subarray(at * TENTH, (at + 1) * TENTH)),
  )

const loudness = (samples: Float64Array) =>
  Math.sqrt(samples.reduce((sum, value) => sum + value * value, 0) / samples.length)

const stepsOf = (samples: Float64Array): Float64Array =>
  samples.map((value, at) => value - 0.95 * (samples[at - 1] ?? 0))

function correlation(a: Float64Array, b: Float64Array, lag: number): number {
  let [both, ofA, ofB] = [0, 0, 0]
  for (let at = MOST_LAG; at < a.length - MOST_LAG; at += 1) {
    const [x, y] = [a[at] ?? 0, b[at + lag] ?? 0]
    both += x * y
    ofA += x * x
    ofB += y * y
  }
  return ofA === 0 || ofB === 0 ? 0 : both / Math.sqrt(ofA * ofB)
}

/** A packet of sound: when it begins and how long it lasts, in seconds. */
export interface SoundPacket {
  readonly at: number
  readonly seconds: number
}

/**
 * Packets of a codec whose packets all hold as many samples, such as AAC. A container that lists one as longer than
 * most hides a gap, one that lists it as shorter an overlap.
 */
export function evenPackets(packets: readonly SoundPacket[]): SoundPacket[] {
  const seconds = packets.map((packet) => packet.seconds).sort((a, b) => a - b)[packets.length >> 1] ?? 0
  return packets.map(({ at }) => ({ at, seconds }))
}

/**
 * Where packets do not follow each other within 2 ms: when each gap begins and how long it is, less than zero where two
 * overlap.
 */
export const gapsOf = (packets: readonly SoundPacket[]): SoundPacket[] =>
  packets.flatMap(({ at }, turn) => {
    const before = packets[turn - 1]
    const end = before && before.at + before.seconds
    return end !== undefined && Math.abs(at - end) > SOUND_LAG_SECONDS ? [{ at: end, seconds: at - end }] : []
  })

/** Gaps of a made file that the original does not have; a coder shifts the edge of one by a packet of its own. */
export const strangeGaps = (original: readonly SoundPacket[], made: readonly SoundPacket[]): number =>
  made.filter(
    (gap) =>
      !original.some(
        ({ at, seconds }) =>
          Math.abs(at - gap.at) <= PACKET_SECONDS && Math.abs(seconds - gap.seconds) <= PACKET_SECONDS,
      ),
  ).length

/** A frame of AAC at 32 kHz and above lasts 32 ms at most. Source: ISO/IEC 14496-3, 1 024 samples. */
const PACKET_SECONDS = 0.032
