import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deliveryBitRate, DESTINATIONS, destinationOf, predictedBytes } from './destination'
import { macroblocks, neededLevel } from './level'
import { largestWindow, losslessZoom, reframe, windowFault } from './reframe'

const uhd = { widthPx: 3840, heightPx: 2160 }
const hd = { widthPx: 1920, heightPx: 1080 }
const tall = { widthPx: 1080, heightPx: 1920 }

describe('reframing', () => {
  it('finds the largest window of another aspect', () => {
    // Common practice, no source; the arithmetic is the check.
    expect(largestWindow(uhd, tall)).toEqual({ widthPx: 1215, heightPx: 2160 })
    expect(largestWindow(hd, tall)).toEqual({ widthPx: 607.5, heightPx: 1080 })
    expect(largestWindow(uhd, { widthPx: 1080, heightPx: 1350 })).toEqual({ widthPx: 1728, heightPx: 2160 })
    expect(largestWindow(uhd, { widthPx: 1080, heightPx: 1080 })).toEqual({ widthPx: 2160, heightPx: 2160 })
    expect(losslessZoom(uhd, hd)).toBe(2)
  })

  it('says when pixels are invented', () => {
    expect(reframe(uhd, tall, 1, { x: 1920, y: 1080 })).toMatchObject({ invented: false })
    expect(reframe(uhd, tall, 1, { x: 1920, y: 1080 }).scale).toBeCloseTo(0.889, 2)
    const fromHd = reframe(hd, tall, 1, { x: 960, y: 540 })
    expect(fromHd.invented).toBe(true)
    expect(fromHd.scale).toBeCloseTo(1.778, 2)
  })

  it('always lands on even pixels inside the picture with a true aspect', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...DESTINATIONS),
        fc.constantFrom(uhd, hd, { widthPx: 2704, heightPx: 1520 }, tall),
        fc.double({ min: 1, max: 3, noNaN: true }),
        fc.integer({ min: -500, max: 4500 }),
        fc.integer({ min: -500, max: 4500 }),
        (to, source, zoom, x, y) => {
          const { window } = reframe(source, to, zoom, { x, y })
          expect(windowFault(window, source)).toBeUndefined()
          expect(Math.abs(window.widthPx / window.heightPx / (to.widthPx / to.heightPx) - 1)).toBeLessThan(0.002)
        },
      ),
    )
  })

  it('refuses windows that cannot be cut', () => {
    expect(windowFault({ x: 1, y: 0, widthPx: 100, heightPx: 100 }, uhd)).toContain('even')
    expect(windowFault({ x: 3800, y: 0, widthPx: 100, heightPx: 100 }, uhd)).toContain('beyond')
    expect(windowFault({ x: -2, y: 0, widthPx: 100, heightPx: 100 }, uhd)).toContain('outside')
  })
})

describe('levels and sizes', () => {
  it('agrees with table A-1', () => {
    // Source: ITU-T H.264 (08/2021) Annex A, table A-1: level 4 allows 245 760 MB/s, 4.2 522 240, 5.1 983 040.
    expect(macroblocks(1920, 1080)).toBe(8160)
    const level = (widthPx: number, heightPx: number, framesPerSecond: number) =>
      neededLevel({ widthPx, heightPx, framesPerSecond, bitsPerSecond: 8e6 })
    expect(level(1920, 1080, 30)).toBe(40)
    expect(level(1920, 1080, 60)).toBe(42)
    expect(level(3840, 2160, 30)).toBe(51)
    expect(level(7680, 4320, 60)).toBeUndefined()
  })

  it('turns bits per pixel and frame into rates and bytes', () => {
    // Common practice, no source: 8 Mb/s for 1080p30 is 0.129 bits per pixel and frame.
    expect(8e6 / (1920 * 1080 * 30)).toBeCloseTo(0.129, 3)
    const short = destinationOf('tall-short')
    expect(short && deliveryBitRate(short, 25)).toBe(7_776_000)
    expect(predictedBytes(8e6, 0, 60)).toBe(60e6)
  })

  it('offers only frames that 4:2:0 can code', () => {
    for (const to of DESTINATIONS) expect([to.widthPx % 2, to.heightPx % 2]).toEqual([0, 0])
  })
})
