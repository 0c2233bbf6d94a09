import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
import {
  neededSpeedClass,
  recordingBudget,
  recordingBytes,
  recordingSeconds,
  shutterFor,
  type RecordingPlan,
} from './recording'

const curlew: RecordingPlan = {
  camera: 'Curlew',
  widthPx: 3840,
  heightPx: 2160,
  rate: frameRate(25),
  videoBitsPerSecond: 100e6,
  audioBitsPerSecond: 0,
  secondsPerTake: 600,
  takes: 6,
  cardBytes: 128e9,
  cardBytesPerSecond: 30e6,
  fillLimit: 0.9,
}

describe('what a plan records', () => {
  it('turns bit rate and time into bytes and back', () => {
    // Common practice, no source: 100 Mb/s for an hour is 45.0 GB; a 128 GB card holds 10 240 s of it.
    expect(recordingBytes(100e6, 3600)).toBe(45e9)
    expect(recordingSeconds(128e9, 100e6)).toBe(10_240)
  })

  it('asks for the speed class that sustains the stream', () => {
    // Source: SD Association, video speed classes (V60 = 60 MB/s, V90 = 90 MB/s).
    expect(neededSpeedClass(600e6)).toBe('V90')
    expect(neededSpeedClass(480e6)).toBe('V60')
    expect(neededSpeedClass(721e6)).toBeUndefined()
    expect(recordingBudget({ ...curlew, videoBitsPerSecond: 600e6, cardBytesPerSecond: 60e6 }).sustained).toBe(false)
  })

  it('names the shutter and the nearest stop', () => {
    // Common practice, no source: 180° shutter.
    expect(shutterFor(frameRate(25))).toEqual({ exact: 50, stop: 50 })
    expect(shutterFor(frameRate(24))).toEqual({ exact: 48, stop: 50 })
    expect(shutterFor(frameRate(100))).toEqual({ exact: 200, stop: 200 })
    expect(shutterFor(frameRate(30000, 1001)).stop).toBe(60)
  })

  it('plans no card above the fill limit', () => {
    expect(recordingBudget(curlew)).toMatchObject({
      seconds: 3600,
      sizeBytes: 45e9,
      cards: 1,
      sustained: true,
      secondsPerCard: 9216,
    })
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.integer({ min: 1, max: 7200 }),
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        (takes, secondsPerTake, fillLimit) => {
          const { cards, sizeBytes } = recordingBudget({ ...curlew, takes, secondsPerTake, fillLimit })
          expect(sizeBytes).toBeLessThanOrEqual(cards * curlew.cardBytes * fillLimit + 1)
          expect(sizeBytes).toBeGreaterThan((cards - 1) * curlew.cardBytes * fillLimit)
        },
      ),
    )
  })
})
