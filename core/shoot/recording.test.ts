import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
import {
  cardsFor,
  neededSpeedClass,
  recordingBudget,
  recordingBytes,
  recordingSeconds,
  shutterFor,
  speedSentence,
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
    expect(neededSpeedClass(4.81e9)).toBeUndefined()
    expect(speedSentence(600e6)).toBe('75.0 MB/s needs V90 (video speed classes V6 to V90)')
    // From memory: SD Association, express speed classes.
    expect(speedSentence(1e9)).toBe('125 MB/s needs E150 (express speed classes E150 to E600)')
    expect(recordingBudget({ ...curlew, videoBitsPerSecond: 600e6, cardBytesPerSecond: 60e6 }).sustained).toBe(false)
  })

  it('names the shutter and the nearest stop', () => {
    // Common practice, no source: 180° shutter.
    expect(shutterFor(frameRate(25))).toEqual({ exact: 50, stop: 50 })
    expect(shutterFor(frameRate(24))).toEqual({ exact: 48, stop: 50 })
    expect(shutterFor(frameRate(100))).toEqual({ exact: 200, stop: 200 })
    expect(shutterFor(frameRate(30000, 1001)).stop).toBe(60)
    expect(shutterFor(frameRate(80)).stop).toBe(160)
    expect(shutterFor(frameRate(150)).stop).toBe(320)
    expect(shutterFor(frameRate(200)).stop).toBe(400)
    expect(shutterFor(frameRate(4000)).stop).toBe(8000)
  })

  it('cuts no take to fill a card', () => {
    // Source: the arithmetic; two takes of 5 000 s do not fit into 9 216 s.
    const { secondsPerCard } = recordingBudget(curlew)
    expect(cardsFor(3, 5000, secondsPerCard)).toEqual({ cards: 3, perCard: 1 })
    expect(recordingBudget({ ...curlew, takes: 3, secondsPerTake: 5000 })).toMatchObject({ cards: 3, takesPerCard: 1 })
    expect(cardsFor(2, 10_000, secondsPerCard)).toEqual({ cards: 4, perCard: 0 })
    expect(cardsFor(3, 3072, secondsPerCard)).toEqual({ cards: 1, perCard: 3 })
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
          const budget = recordingBudget({ ...curlew, takes, secondsPerTake, fillLimit })
          const { cards, takesPerCard, sizeBytes } = budget
          expect(sizeBytes).toBeLessThanOrEqual(cards * curlew.cardBytes * fillLimit + 1)
          if (takesPerCard > 0) expect((cards - 1) * takesPerCard).toBeLessThan(takes)
        },
      ),
    )
  })
})
