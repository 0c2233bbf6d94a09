import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
import { measureRate } from './cadence'
import { propertiesOf } from './properties'
import { colourRemark, remarksOf } from './remarks'
import { testFacts, testPicture, testSound } from './testFacts'

const valueOf = (facts: ReturnType<typeof testFacts>, title: string, name: string) =>
  propertiesOf(facts)
    .find((group) => group.title === title)
    ?.properties.find((property) => property.name === name)

describe('the properties of a clip', () => {
  it('stand with their source, and what is not stated says so', () => {
    expect(valueOf(testFacts(), 'Picture', 'Level')).toEqual({ name: 'Level', value: '5.1', source: 'stream header' })
    const silent = testFacts({ video: testPicture({ range: undefined }) })
    expect(valueOf(silent, 'Picture', 'Range')).toEqual({ name: 'Range', value: 'not stated', source: '' })
    expect(valueOf(testFacts(), 'Sound', 'Layout')?.value).toBe('stereo')
  })

  it('show the span of the timecode, over midnight too', () => {
    const film = testFacts({ timecode: '23:59:58:00', timecodeFrom: 'the timecode track' })
    expect(valueOf(film, 'File', 'Timecode')?.value).toBe('23:59:58:00 to 00:00:01:24, over midnight')
    const drop = testFacts({
      timecode: '00:00:58;00',
      video: testPicture({ rate: frameRate(30000, 1001), frames: 60 }),
    })
    // Source: SMPTE ST 12-1: after 00:00:59;29 comes 00:01:00;02; 60 frames from 58;00 end at 59;29.
    expect(valueOf(drop, 'File', 'Timecode')?.value).toBe('00:00:58;00 to 00:00:59;29, drop-frame')
    expect(valueOf(testFacts(), 'File', 'Timecode')?.value).toBe('not stated')
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
  const short = (facts: ReturnType<typeof testFacts>) => remarksOf(facts).map((remark) => remark.short)

  it('is nothing for most clips', () => {
    expect(remarksOf(testFacts())).toEqual([])
    expect(colourRemark(testPicture())).toBeUndefined()
  })

  it('is said in two words and in a sentence', () => {
    const cadence = { kind: 'variable', average: 26.2, offGrid: 0.31, measuredFrames: 100 } as const
    const phone = testFacts({ video: testPicture({ rate: frameRate(30), cadence }) })
    expect(remarksOf(phone)[0]).toEqual({
      short: 'variable rate',
      sentence: 'Recorded at a variable rate: 26.2 on average, 31 % of its frames off the grid of 30.',
    })
    expect(short(testFacts({ video: testPicture({ fieldOrder: 'top first' }) }))).toEqual(['interlaced'])
    expect(short(testFacts({ video: testPicture({ transfer: 'arib-std-b67' }) }))).toEqual(['HLG'])
    expect(short(testFacts({ video: testPicture({ storedFrames: 130 }) }))).toEqual(['trimmed'])
    expect(short(testFacts({ video: testPicture({ keyDistance: 251 }) }))).toEqual(['few key frames'])
    expect(short(testFacts({ audio: testSound({ seconds: 5 }) }))).toEqual(['longer sound'])
    expect(short(testFacts({ audio: testSound({ seconds: 2 }), startSeconds: 10 }))).toEqual([
      'shorter sound',
      'late start',
    ])
    expect(colourRemark(testPicture({ matrix: undefined, transfer: undefined, primaries: undefined }))).toBe(
      'The colours are not stated.',
    )
  })

  it('names a hole with its place and length, and the variable rate only where there is one besides', () => {
    // 200 frames of 40 ms, of which 75 are missing from 2 s on, and one from 6 s on.
    const times = Array.from({ length: 200 }, (_, at) => at).filter((at) => (at < 50 || at >= 125) && at !== 150)
    const { rate, cadence } = measureRate([times.map((at) => at * 40)], 1000, [])
    expect(cadence.holes).toEqual([{ atSeconds: 2, seconds: 3 }])
    const film = (holes = cadence) => testFacts({ video: testPicture({ rate, cadence: holes }) })
    // One frame that is missing is no hole, and no longer a constant rate.
    expect(short(film())).toEqual(['hole of 3.00 s', 'variable rate'])
    const only = measureRate([times.filter((at) => at < 150).map((at) => at * 40)], 1000, [])
    expect(remarksOf(film(only.cadence))).toEqual([
      {
        short: 'hole of 3.00 s',
        sentence: 'No picture was recorded at 2.00 s for 3.00 s. Besides, its frames keep to 25 a second.',
      },
    ])
    // A screen that stands still now and then has no holes: that is how it records.
    const still = Array.from({ length: 40 }, (_, at) => [0, 40, 80, 120].map((ms) => at * 1000 + ms)).flat()
    expect(measureRate([still], 1000, []).cadence.holes).toBeUndefined()
    const shaking = Array.from({ length: 200 }, (_, at) => at * 40 + (at % 2) * 15)
    expect(measureRate([shaking], 1000, []).cadence.holes).toBeUndefined()
  })

  it('says where a file beside it tells another length, in frames or as a time', () => {
    const beside = (value: string, name = 'Duration/value') => short(testFacts({ sidecar: [{ name, value }] }))
    const { frames, seconds } = testPicture()
    expect(beside(String(frames))).toEqual([])
    expect(beside(String(frames + 1))).toEqual([])
    expect(beside(String(frames + 30))).toEqual(['other length beside it'])
    expect(beside(`00:00:0${Math.floor(seconds)}`, 'Clip/duration')).toEqual([])
    expect(beside('00:01:00:00')).toEqual(['other length beside it'])
    // Whole seconds and thousandths are counts as well; what they mean is not guessed.
    expect(beside(String(Math.round(seconds)), 'duration')).toEqual([])
    expect(beside(String(Math.round(seconds * 1000)))).toEqual([])
    expect(beside('a while')).toEqual([])
    expect(beside('99', 'Proxy/durationMode')).toEqual([])
  })
})
