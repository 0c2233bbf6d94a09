import { describe, expect, it } from 'vitest'
import { allPass } from '../media/check'
import type { MediaFacts, VideoTrack } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { checkDelivery, type BlackBars, type DeliveryOrder } from './check'
import { destinationOf, type Destination } from './destination'

const tall: Destination = destinationOf('tall-short') ?? {
  id: 'none',
  name: 'none',
  widthPx: 0,
  heightPx: 0,
  bitsPerPixelFrame: 0,
  audioBitsPerSecond: 0,
  longestSeconds: undefined,
}

const order: DeliveryOrder = { destination: tall, rate: frameRate(25), seconds: 15, withSound: true }

const video = testPicture({
  level: 40,
  widthPx: 1080,
  heightPx: 1920,
  frames: 375,
  bitsPerSecond: 7_700_000,
})

const file = testFacts({ sizeBytes: 14_900_000, bitsPerSecond: 7_900_000, video })

const NO_BARS: BlackBars = { left: 0, right: 0, top: 0, bottom: 0 }

const failures = (found: MediaFacts, bars = NO_BARS, wanted = order) =>
  checkDelivery(wanted, found, bars)
    .filter((check) => !check.pass)
    .map((check) => check.name)

const withVideo = (change: Partial<VideoTrack>) => failures({ ...file, video: { ...video, ...change } })

describe('a deliverable', () => {
  it('passes when it is what its destination asks for', () => {
    expect(failures(file)).toEqual([])
    expect(allPass(checkDelivery(order, file, NO_BARS))).toBe(true)
    expect(allPass([])).toBe(false)
  })

  it('fails by the name of what is wrong with the picture', () => {
    expect(withVideo({ widthPx: 1920, heightPx: 1080 })).toEqual(['Frame size'])
    expect(withVideo({ sampleAspect: '4:3' })).toEqual(['Sample aspect'])
    expect(withVideo({ rotationDegrees: 90 })).toEqual(['Rotation flag'])
    expect(withVideo({ rate: frameRate(30) })).toEqual(['Frame rate'])
    expect(withVideo({ codec: 'hevc' })).toEqual(['Codec'])
    expect(withVideo({ profile: 'Main' })).toEqual(['Codec'])
    expect(withVideo({ pixelFormat: 'yuv422p10le' })).toEqual(['Pixel format'])
    expect(withVideo({ matrix: undefined, transfer: undefined, primaries: undefined })).toEqual(['Colour tags'])
    expect(withVideo({ bitsPerSecond: 12_000_000 })).toEqual(['Bit rate'])
    expect(withVideo({ seconds: 14.9 })).toEqual(['Length'])
  })

  it('fails at a level above the one that its frame, rate and bit rate need', () => {
    // Source: ITU-T H.264 (08/2021) table A-1: 1080×1920 at 25 is 204 000 macroblocks a second, level 4.
    expect(withVideo({ level: 40 })).toEqual([])
    expect(withVideo({ level: 51 })).toEqual(['Level'])
  })

  it('gives bars away, as a proxy or a sideways upload would leave them', () => {
    expect(failures(file, { ...NO_BARS, top: 420, bottom: 420 })).toEqual(['Bars'])
    const bars = checkDelivery(order, file, { ...NO_BARS, top: 420, bottom: 418 }).find(
      (check) => check.name === 'Bars',
    )
    expect(bars?.found).toBe('top 420 px, bottom 418 px')
  })

  it('fails when sound, index or size are off', () => {
    expect(failures({ ...file, audio: undefined })).toEqual(['Sound'])
    expect(failures({ ...file, audio: testSound({ channels: 1 }) })).toEqual(['Sound'])
    expect(failures(file, NO_BARS, { ...order, withSound: false })).toContain('Sound')
    expect(failures({ ...file, indexFirst: false })).toEqual(['Index first'])
    expect(failures({ ...file, indexFirst: undefined })).toEqual(['Index first'])
    expect(failures({ ...file, sizeBytes: 30_000_000 })).toEqual(['Size'])
  })

  it('fails when it is longer than its destination takes', () => {
    const long = { ...file, sizeBytes: 59_000_000, video: { ...video, seconds: 61, frames: 1525 } }
    expect(failures(long, NO_BARS, { ...order, seconds: 61 })).toEqual(['Length limit'])
    const wide = destinationOf('wide-watch')
    expect(wide?.longestSeconds).toBeUndefined()
  })

  it('is no deliverable without a picture', () => {
    expect(failures({ ...file, video: undefined })).toEqual(['Picture'])
  })
})
