import { describe, expect, it } from 'vitest'
import { allPass, checksText } from '../media/check'
import type { MediaFacts, VideoTrack } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { checkDelivery, type MeasuredDelivery } from './check'
import { DESTINATIONS } from './destination'
import { deliveryPlan, type DeliveryPlan } from './plan'

const [tall] = DESTINATIONS
const master = testFacts({ video: testPicture({ frames: 375 }) })
const planned = tall && deliveryPlan(master, tall, { x: 1312, y: 0, widthPx: 1216, heightPx: 2160 })
if (!planned) throw new Error('no plan')
const plan: DeliveryPlan = planned

const video = testPicture({ level: 40, widthPx: 1080, heightPx: 1920, frames: 375, bitsPerSecond: 7_700_000 })
const file = testFacts({ sizeBytes: 14_900_000, bitsPerSecond: 7_900_000, video })

const NO_BARS = { left: 0, right: 0, top: 0, bottom: 0 }
const CLEAN: MeasuredDelivery = { bars: NO_BARS, fields: undefined, detailBitsPerSecond: undefined }

const failures = (found: MediaFacts, measured = CLEAN, wanted = plan) =>
  checkDelivery(wanted, found, measured)
    .filter((check) => !check.pass)
    .map((check) => check.name)

const withVideo = (change: Partial<VideoTrack>) => failures({ ...file, video: { ...video, ...change } })

/** The check of a name, with its remark. */
const named = (name: string, found: MediaFacts, measured = CLEAN, wanted = plan) =>
  checkDelivery(wanted, found, measured).find((check) => check.name === name)

describe('a deliverable', () => {
  it('passes when it is what its destination asks for', () => {
    const checks = checkDelivery(plan, file, CLEAN)
    expect(failures(file)).toEqual([])
    expect(allPass(checks)).toBe(true)
    expect(checksText(checks)).toBe(`passes all ${checks.length} checks`)
    expect(allPass([])).toBe(false)
  })

  it('fails by the name of what is wrong with the picture', () => {
    expect(withVideo({ widthPx: 1920, heightPx: 1080 })).toEqual(['Frame size'])
    expect(withVideo({ sampleAspect: '4:3' })).toEqual(['Sample aspect'])
    expect(withVideo({ rotationDegrees: 90 })).toEqual(['Rotation flag'])
    expect(withVideo({ rate: frameRate(24) })).toEqual(['Frame rate'])
    expect(withVideo({ codec: 'hevc' })).toEqual(['Codec'])
    expect(withVideo({ profile: 'Main' })).toEqual(['Codec'])
    expect(withVideo({ pixelFormat: 'yuv422p10le' })).toEqual(['Pixel format'])
    expect(withVideo({ matrix: undefined, transfer: undefined, primaries: undefined })).toEqual(['Colour tags'])
    expect(withVideo({ range: 'full' })).toEqual(['Range'])
    expect(withVideo({ bitsPerSecond: 12_000_000 })).toEqual(['Bit rate'])
    expect(withVideo({ frames: 374 })).toEqual(['Frames'])
    expect(withVideo({ fieldOrder: 'top first' })).toEqual(['Scan'])
  })

  it('says how far above the order it lets pass, and lets pass no more', () => {
    const withRate = (share: number) => {
      const bitsPerSecond = Math.floor(plan.videoBitsPerSecond * share)
      return named('Bit rate', { ...file, video: { ...video, bitsPerSecond } })
    }
    const withSize = (share: number) => named('Size', { ...file, sizeBytes: Math.floor(plan.sizeBytes * share) })
    for (const having of [withRate, withSize]) {
      expect([0.5, 1, 1.099, 1.101].map((share) => having(share)?.pass)).toEqual([true, true, true, false])
      expect(having(1.05)?.wanted).toMatch(/^[\d.]+ [MGk]b?B?(\/s)?, at most a tenth above$/)
    }
  })

  it('fails at a rate that is no rate, such as 26.163 on average', () => {
    const cadence = { kind: 'variable', average: 26.163, offGrid: 0.2, measuredFrames: 375 } as const
    expect(withVideo({ rate: frameRate(25), cadence })).toEqual(['Frame rate'])
    expect(withVideo({ rate: frameRate(26_163, 1000) })).toEqual(['Frame rate'])
  })

  it('fails at a level that is too low, and notes one that is needlessly high', () => {
    // Source: ITU-T H.264 (08/2021) table A-1: 1080×1920 at 25 is 204 000 macroblocks a second, level 4.
    expect(withVideo({ level: 32 })).toEqual(['Level'])
    expect(withVideo({ level: 51 })).toEqual([])
    expect(named('Level', { ...file, video: { ...video, level: 51 } })).toMatchObject({ pass: true, remark: 'note' })
    expect(named('Level', file)?.remark).toBeUndefined()
  })

  it('doubts a bit rate far below what the picture asks for', () => {
    const measured = { ...CLEAN, detailBitsPerSecond: 20_000_000 }
    expect(named('Detail', file, measured)).toMatchObject({ pass: true, remark: 'doubt' })
    expect(checksText(checkDelivery(plan, file, measured))).toBe('fails no check, 1 doubt')
    expect(named('Detail', file, { ...CLEAN, detailBitsPerSecond: 9_000_000 })?.remark).toBeUndefined()
  })

  it('does not pass where pixels were invented, and says how many times', () => {
    expect(failures(file, CLEAN, { ...plan, scale: 2.67 })).toEqual(['Own pixels'])
    expect(named('Own pixels', file, CLEAN, { ...plan, scale: 2.67 })?.found).toBe('drawn 2.67 times as large')
  })

  it('is measured for fields where the master was woven', () => {
    const woven = { ...plan, deinterlace: 'frame' } as const
    const measured = { ...CLEAN, fields: { order: 'top first', frames: 100 } } as const
    expect(failures(file, measured, woven)).toEqual(['Scan'])
    expect(failures(file, { ...CLEAN, fields: { order: 'undecided', frames: 0 } }, woven)).toEqual([])
  })

  it('gives bars away, as a proxy or a sideways upload would leave them', () => {
    expect(failures(file, { ...CLEAN, bars: { ...NO_BARS, top: 420, bottom: 420 } })).toEqual(['Bars'])
    const bars = named('Bars', file, { ...CLEAN, bars: { ...NO_BARS, top: 420, bottom: 418 } })
    expect(bars?.found).toBe('top 420 px, bottom 418 px')
  })

  it('fails when sound, tracks, index or size are off', () => {
    const silent = { ...plan, sound: undefined }
    expect(failures({ ...file, audio: undefined })).toEqual(['Sound', 'Sample rate'])
    expect(failures({ ...file, audio: testSound({ channels: 1 }) })).toEqual(['Sound'])
    expect(failures({ ...file, audio: testSound({ sampleRateHz: 44_100 }) })).toEqual(['Sample rate'])
    expect(failures(file, CLEAN, silent)).toEqual(['Sound', 'Tracks'])
    expect(failures({ ...file, sounds: [testSound(), testSound()] })).toEqual(['Tracks'])
    expect(failures({ ...file, indexFirst: false })).toEqual(['Index first'])
    expect(failures({ ...file, indexFirst: undefined })).toEqual(['Index first'])
    expect(failures({ ...file, sizeBytes: 30_000_000 })).toEqual(['Size'])
  })

  it('is as long as its longest track, and that counts for the limit', () => {
    expect(failures({ ...file, seconds: 15.2 })).toEqual(['Length'])
    const long = { ...plan, seconds: 61, frames: 1525, sizeBytes: 60_000_000 }
    const film = { ...file, seconds: 61, video: { ...video, seconds: 61, frames: 1525 } }
    expect(failures(film, CLEAN, long)).toEqual(['Length limit'])
  })

  it('is no deliverable without a picture', () => {
    expect(failures({ ...file, video: undefined })).toEqual(['Picture'])
  })
})
