import { describe, expect, it } from 'vitest'
import type { MediaFacts, VideoTrack } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { checkDelivery, isLookedAt, type MeasuredDelivery } from './check'
import { USUAL_CHOICE, type DeliveryPlan } from './plan'
import { testMaster, testPlan } from './testPlan'

const video = testPicture({ level: 40, widthPx: 1080, heightPx: 1920, bitsPerSecond: 7_700_000 })
const file = testFacts({ sizeBytes: 3_970_000, bitsPerSecond: 7_900_000, video })
const CLEAN: MeasuredDelivery = {
  bars: { left: 0, right: 0, top: 0, bottom: 0 },
  ...{ fields: undefined, detailBitsPerSecond: undefined },
}

/** The checks of a file, `+` where they pass and `?` or `!` where a remark stands beside them. */
const checked = (plan: DeliveryPlan, found: MediaFacts, measured: Partial<MeasuredDelivery> = {}) =>
  checkDelivery(plan, found, { ...CLEAN, ...measured }).map(
    ({ name, pass, wanted, found, remark }) =>
      `${pass ? (remark === 'doubt' ? '?' : remark === 'note' ? '!' : '+') : '-'} ${name}: ${wanted} | ${found}`,
  )
const one = (name: string, more: Partial<VideoTrack>, measured: Partial<MeasuredDelivery> = {}, plan = testPlan()) =>
  checked(plan, { ...file, video: { ...video, ...more } }, measured).find((line) =>
    line.slice(2).startsWith(`${name}:`),
  )
const fileCheck = (
  name: string,
  more: Partial<MediaFacts>,
  measured: Partial<MeasuredDelivery> = {},
  plan = testPlan(),
) => checked(plan, { ...file, ...more }, measured).find((line) => line.slice(2).startsWith(`${name}:`))

describe('a deliverable', () => {
  it('is checked in all that can be told of it', () => {
    const measured = {
      ...{ black: false, decoded: { frames: 100, errors: 0 }, detailBitsPerSecond: 5e6, loweredDb: 1.25 },
      sound: { seconds: 4, unlike: 0, firstUnlike: null, steps: 0 },
    }
    expect(checked(testPlan(), file, measured)).toMatchInlineSnapshot(`
      [
        "+ Picture: not black | not black",
        "+ Decoded frames: 100 | 100",
        "+ Decoding: no errors | 0 errors",
        "+ Frame size: 1080×1920 | 1080×1920",
        "+ Own pixels: none invented | drawn 0.89 times as large",
        "+ Sample aspect: 1:1 | 1:1",
        "+ Rotation flag: none | none",
        "+ Bars: none | none",
        "+ Scan: progressive | progressive",
        "+ Frame rate: 25, constant | 25",
        "+ Frames: 100 | 100",
        "+ Length: 4.000 s, the longest track | 4.000 s",
        "+ Length limit: 60 s or shorter | 4.0 s",
        "+ Codec: H.264 High | H.264 High",
        "+ Level: 4, what it needs | 4",
        "+ Pixel format: 8 bit 4:2:0 | 8 bit 4:2:0",
        "+ Colour tags: BT.709 | BT.709",
        "+ Range: limited | limited",
        "+ Bit rate: 7.78 Mb/s, at most a tenth above | 7.70 Mb/s",
        "+ Detail: 5.00 Mb/s at a good quality | 7.70 Mb/s",
        "+ Size: 3.98 MB, at most a tenth above | 3.97 MB",
        "+ Index first: yes | yes",
        "+ Sound: AAC, 2 channels | AAC, 2 channels, 1.3 dB lower so that the mix does not clip",
        "+ Sample rate: 48 kHz | 48 kHz",
        "+ Sound, second by second: each second within 2 ms | 4 s alike",
        "+ Tracks: 1 picture, 1 sound | 1 picture, 1 sound",
      ]
    `)
    const silent = testFacts({ audio: undefined })
    expect(checked(testPlan(silent), { ...file, audio: undefined, sounds: [] })).toMatchInlineSnapshot(`
      [
        "+ Frame size: 1080×1920 | 1080×1920",
        "+ Own pixels: none invented | drawn 0.89 times as large",
        "+ Sample aspect: 1:1 | 1:1",
        "+ Rotation flag: none | none",
        "+ Bars: none | none",
        "+ Scan: progressive | progressive",
        "+ Frame rate: 25, constant | 25",
        "+ Frames: 100 | 100",
        "+ Length: 4.000 s, the longest track | 4.000 s",
        "+ Length limit: 60 s or shorter | 4.0 s",
        "+ Codec: H.264 High | H.264 High",
        "+ Level: 4, what it needs | 4",
        "+ Pixel format: 8 bit 4:2:0 | 8 bit 4:2:0",
        "+ Colour tags: BT.709 | BT.709",
        "+ Range: limited | limited",
        "+ Bit rate: 7.78 Mb/s, at most a tenth above | 7.70 Mb/s",
        "+ Size: 3.89 MB, at most a tenth above | 3.97 MB",
        "+ Index first: yes | yes",
        "+ Sound: none | none",
        "+ Tracks: 1 picture, 0 sound | 1 picture, 0 sound",
      ]
    `)
  })

  it('is not black, has no bars and the sides of its destination', () => {
    expect(one('Picture', {}, { black: true })).toBe('- Picture: not black | black all through')
    expect(one('Picture', {})).toBeUndefined()
    expect(one('Bars', {}, { bars: { left: 1, right: 0, top: 2, bottom: 0 } })).toBe(
      '- Bars: none | left 1 px, top 2 px',
    )
    expect(one('Frame size', { widthPx: 1078 })).toBe('- Frame size: 1080×1920 | 1078×1920')
    expect(one('Frame size', { heightPx: 1918 })).toBe('- Frame size: 1080×1920 | 1080×1918')
  })

  it('is progressive by what it says and, where the master had fields, by what is seen', () => {
    const woven = testPlan(testMaster({ fieldOrder: 'top first' }))
    const fields = (order: 'progressive' | 'top first' | 'undecided') => ({
      fields: { order, frames: 9, woven: 1 } as never,
    })
    expect(one('Scan', {}, fields('top first'), woven)).toBe('- Scan: progressive | top first')
    expect(one('Scan', {}, fields('undecided'), woven)).toBe('+ Scan: progressive | undecided')
    expect(one('Scan', {}, {}, woven)).toBe('+ Scan: progressive | progressive')
    // A master that is said to be progressive is believed.
    expect(one('Scan', {}, fields('top first'))).toBe('+ Scan: progressive | progressive')
    expect(one('Scan', { fieldOrder: undefined })).toBe('+ Scan: progressive | progressive')
    expect(one('Scan', { fieldOrder: 'bottom first' }, fields('progressive'), woven)).toBe(
      '- Scan: progressive | bottom first',
    )
    const looked = (deinterlace: 'frame' | undefined, fieldOrder: VideoTrack['fieldOrder']) =>
      isLookedAt({ deinterlace, video: testPicture({ fieldOrder }) })
    expect([looked('frame', 'top first'), looked(undefined, 'progressive'), looked(undefined, undefined)]).toEqual([
      true,
      false,
      true,
    ])
  })

  it('has the frames and the length of its plan, and of a grid one frame more or less', () => {
    expect(one('Frames', { frames: 99 })).toBe('- Frames: 100 | 99')
    const grid = testPlan(
      testMaster({ rate: frameRate(26), frames: 104, cadence: { ...video.cadence, kind: 'variable', average: 26 } }),
    )
    expect(grid.frames).toBe(100)
    expect([98, 99, 101, 102].map((frames) => one('Frames', { frames }, {}, grid)?.[0])).toEqual(['-', '+', '+', '-'])
    expect(one('Frames', { frames: 100 }, {}, grid)).toMatchInlineSnapshot(
      `"+ Frames: 100 ± 1 | 100, of the master’s 104 frames 0 doubled and 4 dropped"`,
    )
    // Half a frame is 20 ms; the last frame of sound lasts 25 ms at most, and a grid may be off by a frame of 40 ms.
    const length = (seconds: number, plan?: DeliveryPlan) => fileCheck('Length', { seconds }, {}, plan)?.[0]
    expect([4.0449, 4.0451, 3.9551, 3.9549].map((seconds) => length(seconds))).toEqual(['+', '-', '+', '-'])
    expect([4.0599, 4.0601].map((seconds) => length(seconds, grid))).toEqual(['+', '-'])
    expect([60, 60.001].map((seconds) => fileCheck('Length limit', { seconds })?.[0])).toEqual(['+', '-'])
    const wide = testPlan(testFacts(), USUAL_CHOICE, 'wide-watch')
    expect(fileCheck('Length limit', { seconds: 9999 }, {}, wide)).toBe('+ Length limit: no limit | 9999.0 s')
  })

  it('has a level that allows what it holds, and says where it is higher than needed', () => {
    expect(one('Level', { level: 51 })).toBe('! Level: 4, what it needs | 5.1, higher than needed')
    expect(one('Level', { level: 40 })).toBe('+ Level: 4, what it needs | 4')
    expect(one('Level', { level: 30 })).toBe('- Level: 4, what it needs | 3')
    expect(one('Level', { widthPx: 16_384, heightPx: 16_384 })).toMatch(/^- Level: none fits \|/)
  })

  it('has the bits that were ordered and not too few for what is in it', () => {
    const plan = testPlan()
    const most = plan.videoBitsPerSecond * 1.1
    expect([most - 1, most + 1].map((bitsPerSecond) => one('Bit rate', { bitsPerSecond })?.[0])).toEqual(['+', '-'])
    const bytes = plan.sizeBytes * 1.1
    expect([Math.floor(bytes), Math.ceil(bytes) + 1].map((sizeBytes) => fileCheck('Size', { sizeBytes })?.[0])).toEqual(
      ['+', '-'],
    )
    const detail = (bitsPerSecond: number) => one('Detail', { bitsPerSecond }, { detailBitsPerSecond: 8e6 })
    expect(detail(4e6)).toBe('+ Detail: 8.00 Mb/s at a good quality | 4.00 Mb/s')
    expect(detail(4e6 - 1)).toMatch(/^\? Detail: .*far below, fine detail will suffer$/)
    expect(one('Detail', {})).toBeUndefined()
  })

  it('is coded as players expect it', () => {
    expect(one('Codec', { codec: 'hevc' })).toBe('- Codec: H.264 High | hevc High')
    expect(one('Codec', { profile: 'Main' })).toBe('- Codec: H.264 High | H.264 Main')
    expect(one('Pixel format', { pixelFormat: 'yuvj420p' })).toBe('+ Pixel format: 8 bit 4:2:0 | 8 bit 4:2:0')
    expect(one('Pixel format', { pixelFormat: 'yuv420p10le' })).toBe('- Pixel format: 8 bit 4:2:0 | yuv420p10le')
    expect(one('Range', { range: undefined })).toBe('+ Range: limited | limited, not stated')
    expect(fileCheck('Index first', { indexFirst: undefined })).toBe('- Index first: yes | cannot be told')
    expect(fileCheck('Index first', { indexFirst: false })).toBe('- Index first: yes | no')
    const variable = { cadence: { ...video.cadence, kind: 'variable' as const, average: 24.5 } }
    expect(one('Frame rate', variable)).toBe('- Frame rate: 25, constant | variable, 24.500 on average')
  })

  it('has one picture and one sound, and says what of the master stayed behind', () => {
    const other = { index: 2, kind: 'data', codec: 'none' } as never
    expect(fileCheck('Tracks', { videos: [video, video] })?.[0]).toBe('-')
    expect(fileCheck('Tracks', { others: [other] })).toBe('- Tracks: 1 picture, 1 sound | 1 picture, 1 sound, 1 other')
    expect(fileCheck('Tracks', { sounds: [] })?.[0]).toBe('-')
    const two = testSound({ index: 2 })
    const master = testFacts({ sounds: [testSound(), two] })
    expect(fileCheck('Tracks', {}, {}, testPlan(master))).toBe(
      '! Tracks: 1 picture, 1 sound | 1 picture, 1 sound; of the master 1 sound track left out',
    )
    expect(fileCheck('Sound', { audio: testSound({ channels: 1 }) })).toBe('- Sound: AAC, 2 channels | AAC, 1 channel')
    expect(fileCheck('Sound', { audio: testSound({ codec: 'mp3' }) })?.[0]).toBe('-')
    expect(fileCheck('Sound', { audio: undefined })).toBe('- Sound: AAC, 2 channels | none')
    expect(fileCheck('Sample rate', { audio: testSound({ sampleRateHz: 44_100 }) })).toBe(
      '- Sample rate: 48 kHz | 44.1 kHz',
    )
    expect(fileCheck('Sample rate', { audio: undefined })).toBe('- Sample rate: 48 kHz | none')
    expect(fileCheck('Sound, second by second', {})).toBeUndefined()
    const none = checked(testPlan(), { ...file, video: undefined })
    expect(none).toEqual(['- Picture: a video track | none'])
  })
})
