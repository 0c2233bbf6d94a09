import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
import { measureRate } from './cadence'
import { isInterlaced, soundOver, type MediaFacts } from './facts'
import { propertiesOf } from './properties'
import { colourRemark, remarksOf } from './remarks'
import { testFacts, testPicture, testSound } from './testFacts'

const film = (change: Parameters<typeof testPicture>[0], rest: Partial<MediaFacts> = {}) =>
  testFacts({ video: testPicture(change), ...rest })
const group = (facts: MediaFacts, title: string) =>
  new Map(
    propertiesOf(facts)
      .find((one) => one.title === title)
      ?.properties.map(({ name, value, source }) => [name, source === '' ? value : `${value} (${source})`]),
  )
const picture = (change: Parameters<typeof testPicture>[0], name: string) => group(film(change), 'Picture').get(name)

describe('what is listed of a file', () => {
  it('is all of it, each with where it was read', () => {
    expect(
      Object.fromEntries(
        group(film({ profile: '', cleanAperture: { x: 8, y: 4, widthPx: 3824, heightPx: 2152 } }), 'Picture'),
      ),
    ).toEqual({
      Codec: 'H.264 (stream header)',
      Level: '5.1 (stream header)',
      'Stored frame': '3840×2160 (stream header)',
      Frame: '3840×2160 (after rotation)',
      'Shown as': '3840×2160 (aperture, samples, rotation)',
      'Sample aspect': '1:1 (stream header)',
      'Clean aperture': '3824×2152 at 8, 4 (index)',
      Rotation: '0° against the clock (display matrix)',
      Scan: 'progressive (stream header)',
      Rate: '25 (25/1) (time stamps, index)',
      Cadence: 'constant (100 time stamps)',
      'Frames presented': '100 (index)',
      'Frames stored': '100 (index)',
      'Length presented': '4.000 s (time stamps, index)',
      'Length stored': '4.000 s (time stamps, index)',
      'Starts at': '0.000 s (time stamps, index)',
      'Key frames': 'up to 12 frames apart (long-GOP) (index)',
      'Pixel format': 'yuv420p (stream header)',
      'Bits and chroma': '8 bit 4:2:0 (stream header)',
      Range: 'limited (stream header)',
      Primaries: 'BT.709 (stream header)',
      Transfer: 'BT.709 (stream header)',
      Matrix: 'BT.709 (stream header)',
      'Bit rate': '40.0 Mb/s (mean of the track)',
      Track: '0, default (container)',
      Language: 'not stated',
    })
    expect(Object.fromEntries(group(testFacts(), 'Sound'))).toEqual({
      Codec: 'AAC LC (stream header)',
      Channels: '2 (stream header)',
      Layout: 'stereo (stream header)',
      'Sample rate': '48 kHz (stream header)',
      'Bits of a sample': 'not stated',
      Length: '4.000 s (time stamps)',
      'Starts at': '0.000 s (time stamps)',
      'Bit rate': '192 kb/s (mean of the track)',
      Track: '1, default (container)',
      Language: 'not stated',
    })
    expect(Object.fromEntries(group(testFacts(), 'File'))).toEqual({
      Container: 'mov, isom (first bytes)',
      Bytes: '20.0 MB (file system)',
      'Bit rate': '40.0 Mb/s (bytes and length)',
      Length: '4.000 s (the longest track)',
      'Starts at': '0.000 s (the earliest track)',
      Recorded: 'not stated',
      Timecode: 'not stated',
      Index: 'before the media (boxes)',
    })
  })

  it('says what was measured beside what is stated', () => {
    expect(picture({ measuredFields: { order: 'top first', frames: 200 } }, 'Scan as measured')).toBe(
      'top first (200 decoded frames)',
    )
    const cadence = { kind: 'variable', average: 26.1634, offGrid: 0.3125, measuredFrames: 100 } as const
    expect(picture({ cadence }, 'Cadence')).toBe('variable, 26.163 on average, 31.3 % off the grid (100 time stamps)')
    expect(picture({ cadence: { ...cadence, kind: 'not measured' } }, 'Cadence')).toBe('not measured')
    expect(picture({ cadence: { ...cadence, kind: 'constant', pulldown: true } }, 'Cadence')).toContain('two or three')
    const holes = [1, 2].map((at) => ({ atSeconds: at, seconds: at / 2 }))
    expect(picture({ cadence: { ...cadence, holes } }, 'Holes')).toContain('0.500 s at 1.000 s, 1.000 s at 2.000 s')
    expect(picture({ countedFrames: 99 }, 'Frames counted')).toBe('99 (every packet)')
    expect(picture({ framesFrom: 'packets' }, 'Rate')).toBe('25 (25/1) (time stamps, packets)')
    expect(picture({ framesFrom: 'packets' }, 'Key frames')).toBe('up to 12 frames apart (long-GOP) (packets)')
    expect(picture({ framesFrom: 'length and rate' }, 'Rate')).toBe('25 (25/1) (length and rate)')
    expect(picture({ keyDistance: 1 }, 'Key frames')).toBe('every frame (intra) (index)')
    expect(picture({ keyDistance: 2 }, 'Key frames')).toBe('up to 2 frames apart (long-GOP) (index)')
    expect(picture({ keyDistance: undefined }, 'Key frames')).toBe('not stated')
    for (const change of [{ bitDepth: undefined }, { chroma: undefined }])
      expect(picture(change, 'Bits and chroma')).toBe('not stated')
    expect(picture({ bitsPerSecond: 0 }, 'Bit rate')).toBe('not stated')
    expect(picture({ sampleAspectStated: false }, 'Sample aspect')).toBe('not stated')
    expect(picture({ isDefault: false }, 'Track')).toBe('0 (container)')
    for (const [codec, level, text] of [
      ['h264', 40, '4'],
      ['hevc', 153, '5.1'],
      ['av1', 8, '8, as coded'],
    ] as const)
      expect(picture({ codec, level }, 'Level')).toBe(`${text} (stream header)`)
    for (const level of [0, -99]) expect(picture({ level }, 'Level')).toBe('not stated')
  })

  it('of the file itself and what lies beside it has its source too', () => {
    const file = (change: Partial<MediaFacts>, name: string) => group(testFacts(change), 'File').get(name)
    const recordedAt = '2026-06-04T11:12:13'
    expect(file({ recordedAt }, 'Recorded')).toBe(`${recordedAt} (no zone stated)`)
    expect(file({ recordedAt, recordedFrom: { source: 'tag', zone: 'UTC' } }, 'Recorded')).toBe(
      `${recordedAt} (tag, UTC)`,
    )
    expect(file({ recordedAt, recordedFrom: { source: 'tag', zone: undefined } }, 'Recorded')).toContain(
      '(tag, no zone',
    )
    expect(file({ indexFirst: false }, 'Index')).toBe('after the media (boxes)')
    expect(file({ indexFirst: undefined }, 'Index')).toBe('not stated')
    expect(file({ brand: undefined }, 'Container')).toBe('mov (first bytes)')
    expect(file({ bitsPerSecond: 0 }, 'Bit rate')).toBe('not stated')
    expect(file({ broadcast: { timeReference: 48_000, description: '' } }, 'Description')).toBe('not stated')
    expect(file({ broadcast: { timeReference: 48_000, description: 'Tide' } }, 'Description')).toContain('Tide')
    expect(file({ broadcast: { timeReference: 48_000, description: '' } }, 'Time reference')).toContain('48000 samples')
    const track = { index: 2, language: undefined, isDefault: false }
    const others = [{ ...track, kind: 'timecode', codec: undefined }, { ...track, kind: 'subtitle', codec: 'srt' }] as const // prettier-ignore
    expect(file({ others }, 'Other tracks')).toBe('timecode, subtitle srt (container)')
    // What cannot be counted on stands as it was found.
    expect(file({ timecode: 'later', timecodeFrom: 'a tag' }, 'Timecode')).toBe('later (a tag)')
    expect(file({ timecode: '01:00:00:00', timecodeFrom: 'a tag', video: undefined }, 'Timecode')).toBe(
      '01:00:00:00 (a tag)',
    )
    expect(
      group(testFacts({ sidecar: [{ name: 'Lens', value: '35' }] }), 'Sidecar, as the camera wrote it').get('Lens'),
    ).toBe('35 (sidecar)')
    expect(propertiesOf(testFacts()).map(({ title }) => title)).toEqual(['Picture', 'Sound', 'File'])
  })

  it('show the span of the timecode, over midnight too', () => {
    const timecode = (of: MediaFacts) => group(of, 'File').get('Timecode')
    const night = testFacts({ timecode: '23:59:58:00', timecodeFrom: 'the timecode track' })
    expect(timecode(night)).toBe('23:59:58:00 to 00:00:01:24, over midnight (the timecode track)')
    const drop = testFacts({
      timecode: '00:00:58;00',
      video: testPicture({ rate: frameRate(30000, 1001), frames: 60 }),
    })
    // Source: SMPTE ST 12-1: after 00:00:59;29 comes 00:01:00;02; 60 frames from 58;00 end at 59;29.
    expect(timecode(drop)).toBe('00:00:58;00 to 00:00:59;29, drop-frame')
  })

  it('number their tracks where there are several', () => {
    const sounds = [testSound(), testSound({ index: 2, language: 'eng' })]
    expect(propertiesOf(testFacts({ sounds })).map((group) => group.title)).toEqual([
      'Picture',
      'Sound 1',
      'Sound 2',
      'File',
    ])
  })
})

describe('what is out of the ordinary', () => {
  it('is nothing for most clips', () => {
    expect([remarksOf(testFacts()), colourRemark(testPicture())]).toEqual([[], undefined])
  })

  const short = (facts: MediaFacts) => remarksOf(facts).map((remark) => remark.short)
  const said = (facts: MediaFacts) => remarksOf(facts).map((remark) => remark.sentence)

  it('begins where it decides something, and not before', () => {
    const over = (seconds: number) => short(testFacts({ audio: testSound({ seconds: 4 + seconds }) }))
    expect([0.049, 0.051, -0.049, -0.051].map(over)).toEqual([[], ['longer sound'], [], ['shorter sound']])
    expect([0.1, 0.104].map((startSeconds) => short(testFacts({ startSeconds })))).toEqual([[], ['late start']])
    expect([250, 251, undefined].map((keyDistance) => short(film({ keyDistance })))).toEqual([
      [],
      ['few key frames'],
      [],
    ])
    expect(short(film({ storedFrames: 101 }))).toEqual(['trimmed'])
    expect(short(film({ displayWidthPx: 3838 }))).toEqual(['shown 3838×2160'])
    expect(short(film({ displayHeightPx: 2158 }))).toEqual(['shown 3840×2158'])
    expect(said(film({ displayWidthPx: 5120, sampleAspect: '4:3' }))).toEqual([
      'Stored as 3840×2160, shown as 5120×2160: samples of 4:3.',
    ])
    expect(said(film({ displayWidthPx: 5120 }))).toEqual(['Stored as 3840×2160, shown as 5120×2160.'])
    expect(short(testFacts({ video: undefined, startSeconds: 1 }))).toEqual(['late start'])
    expect(short(film({ transfer: 'smpte2084' }))).toEqual(['PQ'])
    expect(short(film({ mirrored: true }))).toEqual(['mirrored'])
    expect(short(film({ cadence: { kind: 'constant', average: 24, offGrid: 0, measuredFrames: 9, pulldown: true } }))).toEqual(['pull-down']) // prettier-ignore
  })

  it('names fields as stated, or as its frames show', () => {
    const shown = (order: 'top first' | 'progressive' | 'undecided') =>
      said(film({ fieldOrder: undefined, measuredFields: { order, frames: 100 } }))
    expect(said(film({ fieldOrder: 'bottom first' }))).toEqual(['Interlaced, bottom first.'])
    expect(shown('top first')).toEqual(['Interlaced, top first, as its frames show.'])
    expect(shown('progressive')).toEqual([])
    expect(shown('undecided')).toEqual(['Whether it is interlaced is not stated, and its frames do not show it.'])
    expect(short(film({ measuredFields: { order: 'undecided', frames: 100 } }))).toEqual([])
    expect(isInterlaced(testPicture({ fieldOrder: undefined }))).toBe(false)
  })

  it('counts tracks, and says which bounds were met', () => {
    const two = testFacts({ videos: [testPicture(), testPicture()], sounds: [testSound(), testSound()] })
    expect(said(two)).toEqual(['It has 2 pictures; 3840×2160 is worked with.', 'It has 2 sound tracks.'])
    const others = [{ index: 2, language: undefined, isDefault: false, kind: 'empty sound', codec: undefined }] as const
    expect(short(testFacts({ others }))).toEqual(['empty sound'])
    expect(short(testFacts({ bounds: ['Too large.'] }))).toEqual(['measured in part'])
    const sequence = { first: 1, last: 9, missing: [], short: 0 } as unknown as MediaFacts['sequence'] & object
    expect(short(testFacts({ bounds: ['No rate.'], sequence }))).toEqual(['rate not stated'])
    expect(soundOver(testFacts({ audio: undefined }))).toBe(0)
    expect(soundOver(testFacts({ audio: testSound({ startSeconds: 0.5, seconds: 4 }), video: testPicture({ startSeconds: 0.2 }) }))).toBeCloseTo(0.3) // prettier-ignore
  })

  it('names three holes and counts the others', () => {
    const holes = [1, 2, 12, 4, 5].map((at) => ({ atSeconds: at, seconds: at }))
    const cadence = (count: number, offGrid: number) =>
      ({ kind: 'variable', average: 20, offGrid, measuredFrames: 101, holes: holes.slice(0, count) }) as const
    expect(remarksOf(film({ cadence: cadence(5, 0.05) }))).toEqual([
      {
        short: '5 holes',
        sentence:
          'No picture was recorded at 1.00 s for 1.00 s, at 2.00 s for 2.00 s, at 12.0 s for 12.0 s, and 2 more. ' +
          'Besides, its frames keep to 25 a second.',
      },
    ])
    expect(short(film({ cadence: cadence(3, 0.04) }))).toEqual(['3 holes', 'variable rate'])
    expect(said(film({ cadence: cadence(3, 0.04) }))[0]).toMatch(/for 12\.0 s\.$/)
    expect(short(film({ cadence: cadence(1, 0.01) }))).toEqual(['hole of 1.00 s'])
  })

  it('compares what a file beside it tells of its length to a frame and a half, or a second', () => {
    // Four seconds at 25: 100 frames.
    const beside = (value: string, name = 'duration') => short(testFacts({ sidecar: [{ name, value }] })).length > 0
    expect(['99', '101', '98', '102'].map((value) => beside(value))).toEqual([false, false, true, true])
    expect(['3', '5', '2', '6'].map((value) => beside(value))).toEqual([false, false, true, true])
    expect(['3941', '4059', '3939', '4061'].map((value) => beside(value))).toEqual([false, false, true, true])
    expect(['00:00:04:01', '00:00:04:02', '00:00:03;24', '00:00:04.05', '00:00:04.07'].map((value) => beside(value))).toEqual([false, true, false, false, true]) // prettier-ignore
    expect(['00:00:05', '00:00:06', '0:01:04', '1:00:04'].map((value) => beside(value))).toEqual([
      false,
      true,
      true,
      true,
    ])
    expect(['12:00', '4 s', '-7', '1234567890', '00:00:09:00:00'].map((value) => beside(value))).toEqual([false, false, false, false, false]) // prettier-ignore
    expect(['Clip/Duration', 'a/duration/VALUE', 'longduration', 'duration/max'].map((name) => beside('7', name))).toEqual([true, true, false, false]) // prettier-ignore
    expect(remarksOf(testFacts({ sidecar: [{ name: 'duration', value: '7' }], video: undefined }))).toEqual([])
    expect(
      said(
        testFacts({
          sidecar: [
            { name: 'Lens', value: '35' },
            { name: 'duration', value: '7' },
          ],
        }),
      ),
    ).toEqual([
      'The file beside it gives its length as 7; the film has 100 frames, 4.00 s. Perhaps one of the two is not whole.',
    ])
  })

  it('is that colours are silent only where all are', () => {
    expect(colourRemark(testPicture({ matrix: undefined, transfer: undefined }))).toBeUndefined()
  })

  it('names a hole with its place and length, and the variable rate only where there is one besides', () => {
    // 200 frames of 40 ms, of which 75 are missing from 2 s on, and one from 6 s on.
    const times = Array.from({ length: 200 }, (_, at) => at).filter((at) => (at < 50 || at >= 125) && at !== 150)
    const { rate, cadence } = measureRate([times.map((at) => at * 40)], 1000, [])
    expect(cadence.holes).toEqual([{ atSeconds: 2, seconds: 3 }])
    // One frame that is missing is no hole, and no longer a constant rate.
    expect(short(film({ rate, cadence }))).toEqual(['hole of 3.00 s', 'variable rate'])
    const only = measureRate([times.filter((at) => at < 150).map((at) => at * 40)], 1000, [])
    expect(remarksOf(film({ rate, cadence: only.cadence }))).toEqual([
      {
        short: 'hole of 3.00 s',
        sentence: 'No picture was recorded at 2.00 s for 3.00 s. Besides, its frames keep to 25 a second.',
      },
    ])
  })
})
