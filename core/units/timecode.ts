import type { FrameRate } from './frameRate'

/**
 * How a timecode counts. `nominal` frames make one counted second (30 for 30000/1001); with drop-frame, numbers are
 * left out so that counted and real time agree. Source: SMPTE ST 12-1 (to 30 frames), ST 12-3 (48 to 60 and above).
 */
export interface TimecodeCount {
  readonly nominal: number
  readonly dropFrame: boolean
}

/** A time address and how it counts. */
export interface Timecode extends TimecodeCount {
  /** Frames since 00:00:00:00, from 0 to one day less one frame. */
  readonly frame: number
}

/** How clips of a rate count: 30000/1001 counts 30. `undefined` for rates that are no timecode's, such as 26.163. */
export function timecodeCount(rate: FrameRate, dropFrame: boolean): TimecodeCount | undefined {
  const nominal = Math.round(rate.num / rate.den)
  const exact = rate.num === nominal * rate.den || rate.num * 1001 === nominal * 1000 * rate.den
  if (!exact || nominal < 1) return undefined
  // Numbers are dropped only where counting runs ahead of real time: multiples of 30000/1001.
  if (dropFrame && nominal % 30 !== 0) return undefined
  return { nominal, dropFrame }
}

/** Numbers left out at the start of each minute but every tenth: 2 at 29.97, 4 at 59.94. */
const droppedPerMinute = ({ nominal, dropFrame }: TimecodeCount) => (dropFrame ? nominal / 15 : 0)

/** Frames of one day as they are counted: 2 592 000 at 30, 2 589 408 at 30 drop-frame. */
export const framesPerDay = (count: TimecodeCount): number => 24 * 6 * framesPerTenMinutes(count)

const framesPerTenMinutes = (count: TimecodeCount) => 600 * count.nominal - 9 * droppedPerMinute(count)

/**
 * Reads `HH:MM:SS:FF`; a `;` or `.` before the frames means drop-frame. `undefined` when it is no time address or one
 * that drop-frame leaves out, such as 00:01:00;00.
 */
export function parseTimecode(text: string, nominal: number): Timecode | undefined {
  const match = /^\s*(\d{1,2}):(\d{2}):(\d{2})([:;.])(\d{2,3})\s*$/.exec(text)
  if (!match) return undefined
  const [hours, minutes, seconds, frames] = [match[1], match[2], match[3], match[5]].map(Number)
  if (hours === undefined || minutes === undefined || seconds === undefined || frames === undefined) return undefined
  if (hours > 23 || minutes > 59 || seconds > 59 || frames >= nominal) return undefined
  const count = { nominal, dropFrame: match[4] !== ':' }
  if (count.dropFrame && nominal % 30 !== 0) return undefined
  const dropped = droppedPerMinute(count)
  if (seconds === 0 && frames < dropped && minutes % 10 !== 0) return undefined
  const minute = hours * 60 + minutes
  const frame = (minute * 60 + seconds) * nominal + frames - dropped * (minute - Math.floor(minute / 10))
  return { ...count, frame }
}

/** `01:00:00;02` of a time address; drop-frame is written with a semicolon. */
export function timecodeText({ frame, ...count }: Timecode): string {
  const dropped = droppedPerMinute(count)
  const tens = Math.floor(frame / framesPerTenMinutes(count))
  const within = frame % framesPerTenMinutes(count)
  const firstMinute = 60 * count.nominal
  const minutes = within < firstMinute ? 0 : 1 + Math.floor((within - firstMinute) / (firstMinute - dropped))
  const number = frame + dropped * (tens * 9 + minutes)
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0')
  const seconds = number / count.nominal
  const frames = String(number % count.nominal).padStart(count.nominal > 100 ? 3 : 2, '0')
  return `${two(seconds / 3600)}:${two((seconds / 60) % 60)}:${two(seconds % 60)}${count.dropFrame ? ';' : ':'}${frames}`
}

/** The address so many frames later, or earlier; after the last frame of a day comes 00:00:00:00. */
export function timecodeAfter(start: Timecode, frames: number): Timecode {
  const day = framesPerDay(start)
  return { ...start, frame: (((start.frame + frames) % day) + day) % day }
}

/** Frames from one address to a later one, over midnight if it lies before: 23:59:59:24 to 00:00:01:00 at 25 are 26. */
export const framesBetween = (start: Timecode, end: Timecode): number =>
  (end.frame - start.frame + framesPerDay(start)) % framesPerDay(start)

/** What a clip of so many frames covers: its first and its last address, and whether midnight lies between. */
export function timecodeRange(start: Timecode, frames: number): { last: Timecode; overMidnight: boolean } {
  const last = timecodeAfter(start, Math.max(0, frames - 1))
  return { last, overMidnight: start.frame + Math.max(0, frames - 1) >= framesPerDay(start) }
}
