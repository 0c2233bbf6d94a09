import type { ClipRange } from '../../../../core/cards/review/review'
import { timecodeCount, timecodeText } from '../../../../core/units/timecode'
import { secondsOfFrames, type FrameRate } from '../../../../core/units/frameRate'

/** The range that a frame lies in. */
export const rangeAt = (ranges: readonly ClipRange[], frame: number): ClipRange | undefined =>
  ranges.find(({ from, to }) => from <= frame && frame < to)

/** Ranges once one begins here: the one under the frame is shortened; `undefined` when there is none to shorten. */
export const begunAt = (ranges: readonly ClipRange[], frame: number): readonly ClipRange[] | undefined => {
  const under = rangeAt(ranges, frame)
  return under && ranges.map((range) => (range === under ? { ...range, from: frame } : range))
}

/**
 * Ranges once one ends with the frame shown: the one that was begun, else the one under the frame, else one from the
 * start of the clip. An end before the beginning is the beginning.
 */
export function endedAt(
  ranges: readonly ClipRange[],
  frame: number,
  begun: number | undefined,
  { length, step }: { readonly length: number; readonly step: number },
): readonly ClipRange[] {
  const behind = (last: number) => Math.min(last + step, length)
  const under = begun === undefined ? rangeAt(ranges, frame) : undefined
  if (under) return ranges.map((range) => (range === under ? { ...range, to: behind(frame) } : range))
  const from = begun ?? 0
  return [...ranges, { from: Math.min(from, frame), to: behind(Math.max(from, frame)) }].sort((a, b) => a.from - b.from)
}

/** A frame as hours, minutes, seconds and frames from the start of the clip; of sound with thousandths. */
export function clock(frame: number, ticks: FrameRate): string {
  const count = ticks.num === 1000 && ticks.den === 1 ? undefined : timecodeCount(ticks, false)
  if (count) return timecodeText({ ...count, frame })
  const seconds = secondsOfFrames(frame, ticks)
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0')
  return `${two(seconds / 3600)}:${two((seconds / 60) % 60)}:${(seconds % 60).toFixed(3).padStart(6, '0')}`
}
