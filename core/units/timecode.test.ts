import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameRate } from './frameRate'
import {
  framesBetween,
  framesPerDay,
  parseTimecode,
  timecodeAfter,
  timecodeCount,
  timecodeRange,
  timecodeText,
} from './timecode'

const frameOf = (text: string, nominal: number) => parseTimecode(text, nominal)?.frame

describe('timecode', () => {
  it('counts drop-frame as published', () => {
    // Source: SMPTE ST 12-1, 5.2.2: numbers 00 and 01 are left out at each minute but every tenth.
    expect(frameOf('00:00:59;29', 30)).toBe(1799)
    expect(frameOf('00:01:00;02', 30)).toBe(1800)
    expect(frameOf('00:10:00;00', 30)).toBe(17_982)
    expect(frameOf('01:00:00;00', 30)).toBe(107_892)
    for (const left of ['00:01:00;00', '00:01:00;01', '23:59:00;01']) expect(parseTimecode(left, 30)).toBeUndefined()
    // Source: SMPTE ST 12-3: four numbers at 60000/1001.
    expect(frameOf('00:01:00;04', 60)).toBe(3600)
    expect(parseTimecode('00:01:00;03', 60)).toBeUndefined()
  })

  it('has a day of as many frames as the standard says', () => {
    // Source: SMPTE ST 12-1: a drop-frame day is 2 589 408 frames; 24 h at 30000/1001 are 2 589 410.
    expect(framesPerDay({ nominal: 30, dropFrame: true })).toBe(2_589_408)
    expect(framesPerDay({ nominal: 30, dropFrame: false })).toBe(2_592_000)
    expect(framesPerDay({ nominal: 25, dropFrame: false })).toBe(2_160_000)
  })

  it('refuses what is no time address', () => {
    for (const wrong of ['', '10:00', '24:00:00:00', '10:60:00:00', '10:00:00:25', 'a:b:c:d'])
      expect(parseTimecode(wrong, 25)).toBeUndefined()
    expect(parseTimecode('10:00:00;00', 25)).toBeUndefined()
    expect(timecodeCount(frameRate(26_163, 1000), false)).toBeUndefined()
    expect(timecodeCount(frameRate(25), true)).toBeUndefined()
    expect(timecodeCount(frameRate(24000, 1001), false)).toEqual({ nominal: 24, dropFrame: false })
  })

  it('goes over midnight', () => {
    const start = parseTimecode('23:59:59:24', 25)
    const end = parseTimecode('00:00:01:00', 25)
    if (!start || !end) throw new Error('unreadable')
    expect(framesBetween(start, end)).toBe(26)
    expect(timecodeText(timecodeAfter(start, 1))).toBe('00:00:00:00')
    expect(timecodeText(timecodeAfter(end, -26))).toBe('23:59:59:24')
    expect(timecodeRange(start, 2)).toMatchObject({ overMidnight: true, last: { frame: 0 } })
    expect(timecodeRange(start, 1).overMidnight).toBe(false)
  })

  it('writes what it read, at every frame of a day', () => {
    const counts = [
      [24, false],
      [25, false],
      [30, false],
      [30, true],
      [60, true],
      [120, true],
    ] as const
    fc.assert(
      fc.property(
        fc.constantFrom(...counts),
        fc.double({ min: 0, max: 1, maxExcluded: true, noNaN: true }),
        (of, at) => {
          const [nominal, dropFrame] = of
          const frame = Math.floor(at * framesPerDay({ nominal, dropFrame }))
          const text = timecodeText({ nominal, dropFrame, frame })
          expect(parseTimecode(text, nominal)).toEqual({ nominal, dropFrame, frame })
        },
      ),
    )
  })
})
