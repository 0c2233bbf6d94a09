import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
import {
  neededSpeedClass,
  recordingBytes,
  recordingSeconds,
  shutterFor,
  speedClassOf,
  speedSentence,
} from './recording'

describe('what a stream needs', () => {
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
    expect([90e6, 75e6, 5e6].map(speedClassOf)).toEqual(['V90', 'V60', '5.00 MB/s'])
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
})
