import { describe, expect, it } from 'vitest'
import { playedSeconds } from './played'

const ranges = (...all: readonly (readonly [number, number])[]): TimeRanges => ({
  length: all.length,
  start: (at) => all[at]?.[0] ?? 0,
  end: (at) => all[at]?.[1] ?? 0,
})

describe('what was played', () => {
  it('counts however rarely the browser tells of it, and leaves out what was jumped over', () => {
    expect(playedSeconds(ranges([0, 1.5]))).toBe(1.5)
    expect(playedSeconds(ranges([0, 0.25], [30, 30.5]))).toBe(0.75)
    expect(playedSeconds(ranges())).toBe(0)
  })
})
