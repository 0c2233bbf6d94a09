import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
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
})
