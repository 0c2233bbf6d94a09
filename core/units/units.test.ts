import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  frameRate,
  frameRateLabel,
  framesInSeconds,
  frameRateText,
  parseFrameRate,
  readFrameRate,
  sameRate,
  secondsOfFrames,
} from './frameRate'
import {
  exactBitRate,
  exactBytes,
  formatBinaryBytes,
  formatBitRate,
  formatBytes,
  formatLength,
  parseBitRate,
  parseBytes,
  parseLength,
  readBitRate,
  readBytes,
  readLength,
  ordinal,
} from './quantity'

describe('exact frame rates', () => {
  it('reads the ways a rate is written', () => {
    // Common practice, no source: 23.976 and 23.98 are short for 24000/1001.
    expect(parseFrameRate('23.976')).toEqual({ num: 24000, den: 1001 })
    expect(parseFrameRate('23.98')).toEqual({ num: 24000, den: 1001 })
    expect(parseFrameRate('23.97')).toEqual({ num: 24000, den: 1001 })
    expect(parseFrameRate('23,976')).toEqual({ num: 24000, den: 1001 })
    expect(parseFrameRate('29.97')).toEqual({ num: 30000, den: 1001 })
    expect(parseFrameRate('119.88')).toEqual({ num: 120000, den: 1001 })
    expect(parseFrameRate('59.94')).toEqual({ num: 60000, den: 1001 })
    expect(parseFrameRate('30000/1001')).toEqual({ num: 30000, den: 1001 })
    expect(parseFrameRate('50/2')).toEqual({ num: 25, den: 1 })
    expect(parseFrameRate('12.5 fps')).toEqual({ num: 25, den: 2 })
    for (const wrong of ['', 'fast', '0', '-25', '25/0', '1e3']) expect(parseFrameRate(wrong)).toBeUndefined()
    expect(frameRateLabel(frameRate(24000, 1001))).toBe('23.976')
    for (const far of ['0.0001', '10000000000000000000', '1/100000', '99999999999/1'])
      expect(readFrameRate(far)).toEqual({ fault: 'Frame rates go from 0.01 to 100000 frames a second.' })
  })

  it('shows that a clip called 59 seconds with 1492 frames is longer', () => {
    // Common practice, no source: 1492 frames are 59.68 s at 25 and 62.23 s at 24000/1001.
    expect(secondsOfFrames(1492, frameRate(25))).toBeCloseTo(59.68, 10)
    expect(secondsOfFrames(1492, frameRate(24000, 1001))).toBeCloseTo(62.23, 2)
  })

  it('never loses a frame between frames, seconds and text', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 5_000_000 }),
        fc.constantFrom(24, 25, 30, 50, 60, 100),
        fc.constantFrom(1000, 1001),
        (frames, whole, den) => {
          const rate = frameRate(whole * 1000, den)
          expect(framesInSeconds(secondsOfFrames(frames, rate), rate)).toBe(frames)
          expect(sameRate(parseFrameRate(frameRateText(rate)) ?? frameRate(1), rate)).toBe(true)
        },
      ),
    )
  })
})

describe('quantities as typed', () => {
  it('keeps powers of ten and powers of two apart', () => {
    // Source: IEC 80000-13 prefixes (k = 10^3, Ki = 2^10).
    expect(parseBytes('128 GB')).toBe(128e9)
    expect(parseBytes('1 GiB')).toBe(2 ** 30)
    expect(formatBytes(45e9)).toBe('45.0 GB')
    expect(formatBinaryBytes(45e9)).toBe('41.9 GiB')
    expect(formatBytes(999_950)).toBe('1.00 MB')
  })

  it('asks where a thousand or a decimal may be meant', () => {
    for (const [typed, ask] of [
      ['1,000 GB', '1,000'],
      ['1.000 GB', '1.000'],
    ] as const)
      expect(readBytes(typed)).toEqual({ fault: `Does ${ask} mean 1000 or 1? Write it so.` })
    expect(readBitRate('12.345 Mb/s')).toEqual({ fault: 'Does 12.345 mean 12345 or 12.345? Write it so.' })
    expect(readLength('1,500 min')).toHaveProperty('fault')
    expect(parseBytes('1 000 GB')).toBe(1e12)
    expect(parseBytes('1,000,000 kB')).toBe(1e9)
    expect(parseBytes('1.000,5 GB')).toBe(1_000_500_000_000)
    expect(parseBytes('1,5 TB')).toBe(1.5e12)
    expect(parseBytes('0.500 GB')).toBe(5e8)
    for (const wrong of ['1,00,000 GB', '1,000.5,0 GB', '1. GB', '9999999 PB'])
      expect(parseBytes(wrong)).toBeUndefined()
  })

  it('writes what it reads again without loss', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e15 }), (amount) => {
        expect(parseBytes(exactBytes(amount))).toBe(amount)
        expect(parseBitRate(exactBitRate(amount))).toBe(amount)
      }),
    )
    expect([exactBitRate(1_234_000), exactBitRate(100e6), exactBytes(128e9)]).toEqual([
      '1234 kb/s',
      '100 Mb/s',
      '128 GB',
    ])
  })

  it('keeps bits and bytes apart', () => {
    expect(parseBitRate('256', 'kb/s')).toBe(256_000)
    expect(parseBitRate('256 Mb/s', 'kb/s')).toBe(256e6)
    expect(parseBitRate('45mbit')).toBe(45e6)
    expect(parseBitRate('100 Mb/s')).toBe(100e6)
    expect(parseBitRate('75 MB/s')).toBe(600e6)
    expect(parseBitRate('100')).toBe(100e6)
    expect(formatBitRate(8e6)).toBe('8.00 Mb/s')
    for (const wrong of ['', 'fast', '-1', '1 b b']) expect(parseBitRate(wrong)).toBeUndefined()
  })

  it('reads lengths the ways they are typed', () => {
    expect(parseLength('1h20')).toBe(4800)
    expect(parseLength('90 min')).toBe(5400)
    expect(parseLength('2:30')).toBe(150)
    expect(parseLength('1:02:03')).toBe(3723)
    expect(parseLength('20')).toBe(1200)
    expect(parseLength('45s')).toBe(45)
    for (const wrong of ['', ' ', 'soon', 'h']) expect(parseLength(wrong)).toBeUndefined()
    expect(formatLength(10_240)).toBe('2 h 50 min 40 s')
  })
})

describe('places in a row', () => {
  it('end as they are spoken', () => {
    expect([1, 2, 3, 4, 11, 12, 13, 21, 22, 23, 101, 111, 112, 121].map(ordinal)).toEqual(
      '1st second third 4th 11th 12th 13th 21st 22nd 23rd 101st 111th 112th 121st'.split(' '),
    )
  })
})
