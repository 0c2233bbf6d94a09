import { describe, expect, it } from 'vitest'
import type { MediaFacts, SoundTrack, VideoTrack } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { colourFault, coloursStated, isConverted, masterColours, usualColours, type ColourChoice } from './colours'
import { predictedBytes } from './destination'
import { deliveryPlan, deliveryRate, USUAL_CHOICE, type DeliveryPlan } from './plan'
import { cutOf, isInvented, largestWindow, losslessZoom, reframe, scaleDown, windowFault } from './reframe'
import { framingSentence } from './sentence'
import { DOWN_MIX, mixOf, soundLabel, soundPlan } from './sound'
import { TALL_WINDOW, testDestination, testMaster, testPlan } from './testPlan'

const video = testPicture()

describe('colours', () => {
  it('are taken for what is usual by their lines, also where they are turned', () => {
    const usual = (widthPx: number, heightPx: number, rotationDegrees = 0) =>
      usualColours(testPicture({ widthPx, heightPx, rotationDegrees }))
    expect([usual(1280, 718), usual(1278, 720), usual(1278, 718)]).toEqual(['bt709', 'bt709', 'bt601-525'])
    expect([usual(720, 576), usual(720, 480), usual(352, 288)]).toEqual(['bt601-625', 'bt601-525', 'bt601-625'])
    expect([usual(576, 720, 90), usual(576, 720, -90), usual(576, 718, 180)]).toEqual([
      'bt601-625',
      'bt601-625',
      'bt601-525',
    ])
  })

  it('are stated where matrix and primaries are, and RGB needs no matrix', () => {
    const stated = (more: Partial<VideoTrack>) => coloursStated(testPicture(more))
    expect([stated({}), stated({ primaries: undefined }), stated({ matrix: undefined })]).toEqual([true, false, false])
    expect(stated({ matrix: undefined, chroma: 'RGB' })).toBe(true)
    expect(
      ['smpte2084', 'arib-std-b67', 'bt709', undefined].map((transfer) =>
        colourFault(testPicture({ transfer }))?.slice(0, 3),
      ),
    ).toEqual([...['PQ ', 'HLG', undefined, undefined]])
  })

  it('are converted from what stands in the file, what was chosen, or what goes with it', () => {
    const from = (more: Partial<VideoTrack>, choice: ColourChoice = 'stated') => {
      const { matrix, primaries, transfer, range, assumed } = masterColours(testPicture(more), choice)
      return [matrix, primaries, transfer, range, assumed].join(' | ')
    }
    const none = { matrix: undefined, primaries: undefined, transfer: undefined, range: undefined }
    expect([
      from({}),
      from({ transfer: 'iec61966-2-1', range: 'full' }),
      from({ transfer: 'linear' }),
      from({ transfer: 'smpte170m' }),
      from({ matrix: undefined, chroma: 'RGB' }),
      from(none),
      from({ ...none, widthPx: 720, heightPx: 480 }),
      from({ ...none, chroma: 'RGB' }),
      from(none, 'bt601-625'),
      from({}, 'bt601-525'),
      from({ chroma: 'RGB', matrix: 'gbr' }, 'bt601-525'),
      from({ ...none, matrix: 'bt2020nc' }),
      from({ ...none, primaries: 'bt2020' }),
      from({ ...none, primaries: 'smpte432' }),
      from({ ...none, primaries: 'bt470bg' }),
      from({ ...none, matrix: 'smpte170m' }),
      from({ ...none, matrix: 'gbr' }),
      from({ ...none, matrix: 'gbr', chroma: 'RGB' }),
      from({ ...none, matrix: 'smpte170m' }, 'bt709'),
    ]).toMatchInlineSnapshot(`
      [
        "bt709 | bt709 | bt709 | limited | ",
        "bt709 | bt709 | iec61966-2-1 | full | ",
        "bt709 | bt709 | linear | limited | ",
        "bt709 | bt709 | bt709 | limited | ",
        "gbr | bt709 | bt709 | limited | ",
        "bt709 | bt709 | bt709 | limited | The colours are not stated; treated as BT.709.",
        "smpte170m | smpte170m | bt709 | limited | The colours are not stated; treated as BT.601 of 525 lines.",
        "gbr | bt709 | bt709 | limited | The colours are not stated; treated as BT.709.",
        "bt470bg | bt470bg | bt709 | limited | The colours are not stated; treated as BT.601 of 625 lines.",
        "smpte170m | smpte170m | bt709 | limited | The file states BT.709; you chose BT.601 of 525 lines.",
        "gbr | smpte170m | bt709 | limited | The file states matrix RGB, transfer BT.709, primaries BT.709; you chose BT.601 of 525 lines.",
        "bt2020nc | bt2020 | bt709 | limited | The colours are stated in part (matrix BT.2020, transfer not stated, primaries not stated); the rest is assumed to match.",
        "bt2020nc | bt2020 | bt709 | limited | The colours are stated in part (matrix not stated, transfer not stated, primaries BT.2020); the rest is assumed to match.",
        "bt709 | smpte432 | bt709 | limited | The colours are stated in part (matrix not stated, transfer not stated, primaries P3); the rest is assumed to match.",
        "bt470bg | bt470bg | bt709 | limited | The colours are stated in part (matrix not stated, transfer not stated, primaries BT.601 625 lines); the rest is assumed to match.",
        "smpte170m | smpte170m | bt709 | limited | The colours are stated in part (matrix BT.601 525 lines, transfer not stated, primaries not stated); the rest is assumed to match.",
        "bt709 | bt709 | bt709 | limited | The colours are stated in part (matrix RGB, transfer not stated, primaries not stated); the rest is assumed to match.",
        "gbr | bt709 | bt709 | limited | The colours are stated in part (matrix RGB, transfer not stated, primaries not stated); the rest is assumed to match.",
        "bt709 | bt709 | bt709 | limited | The file states matrix BT.601 525 lines, transfer not stated, primaries not stated; you chose BT.709.",
      ]
    `)
  })

  it('are converted where one of four is not BT.709 in limited range', () => {
    const same = masterColours(testPicture(), 'stated')
    expect(isConverted(same)).toBe(false)
    for (const more of [
      { matrix: 'x' },
      { primaries: 'x' },
      { transfer: 'linear' as const },
      { range: 'full' as const },
    ])
      expect(isConverted({ ...same, ...more })).toBe(true)
  })
})

describe('the plan of a deliverable', () => {
  it('keeps a rate that destinations know, and goes to the nearest else', () => {
    expect(deliveryRate(testPicture({ rate: frameRate(30_000, 1001) }))).toEqual(frameRate(30_000, 1001))
    expect(deliveryRate(testPicture({ rate: frameRate(26) }))).toEqual(frameRate(25))
    expect(deliveryPlan(testFacts({ video: undefined }), testDestination('tall-short'), TALL_WINDOW)).toBeUndefined()
  })

  it('says what is changed, what stays behind and why it cannot be made', () => {
    const said = (master: MediaFacts, choice = USUAL_CHOICE) => {
      const { says, leftOut, fault } = testPlan(master, choice)
      return [...says, leftOut ?? '-', fault ?? '-']
    }
    const variable = { cadence: { ...video.cadence, kind: 'variable' as const, average: 24.46 } }
    const subtitle = { index: 5, kind: 'subtitle', codec: 'mov_text' } as never
    const data = { index: 6, kind: 'data', codec: 'none' } as never
    const two = testSound({ index: 2 })
    expect([
      said(testFacts()),
      said(testMaster({ rate: frameRate(26), frames: 104 })),
      said(testMaster(variable)),
      said(testMaster({ fieldOrder: 'top first' })),
      said(testMaster({ fieldOrder: 'top first' }), { ...USUAL_CHOICE, fields: 'field' }),
      said(testMaster({ fieldOrder: undefined, measuredFields: { order: 'bottom first' } as never })),
      said(testMaster({ fieldOrder: 'top first', rotationDegrees: 90 })),
      said(testMaster({ rotationDegrees: 90 })),
      said(testMaster({ fieldOrder: 'top first', rotationDegrees: 180 })),
      said(testMaster({ transfer: 'smpte2084' })),
      said(testFacts({ videos: [video, video], sounds: [testSound(), two], others: [subtitle, subtitle, data] })),
      said(testFacts({ videos: [video, video, video], sounds: [testSound(), two, two], others: [subtitle] })),
      said(testFacts({ audio: undefined, others: [data] })),
      said(testMaster({ rate: frameRate(1000) })),
    ]).toMatchInlineSnapshot(`
      [
        [
          "-",
          "-",
        ],
        [
          "Recorded at 26 frames a second, which no destination knows. It will be put on 25: 0 frames doubled, 4 dropped.",
          "-",
          "-",
        ],
        [
          "Recorded at a variable rate: 24.5 on average. It will be put on 25: 0 frames doubled, 0 dropped.",
          "-",
          "-",
        ],
        [
          "Interlaced, top first: deinterlaced to one frame a frame, as many as there are.",
          "-",
          "-",
        ],
        [
          "Interlaced, top first: deinterlaced to one frame a field, twice as many.",
          "-",
          "-",
        ],
        [
          "Interlaced, bottom first as measured: deinterlaced to one frame a frame, as many as there are.",
          "-",
          "-",
        ],
        [
          "Interlaced, top first: deinterlaced to one frame a frame, as many as there are.",
          "-",
          "It is interlaced and turned by a quarter, so that its lines stand upright. Deinterlace it in the editing program and use that file as the master.",
        ],
        [
          "-",
          "-",
        ],
        [
          "Interlaced, top first: deinterlaced to one frame a frame, as many as there are.",
          "-",
          "-",
        ],
        [
          "-",
          "PQ (ITU-R BT.2100) has to be tone-mapped for a BT.709 destination, which is not done here yet. Only retagged it would look wrong. Bring it to BT.709 in the editing program and use that file as the master.",
        ],
        [
          "Sound 1: stereo goes out, the other is left out.",
          "1 picture, 1 sound track, 2 subtitle tracks",
          "-",
        ],
        [
          "Sound 1: stereo goes out, the other 2 are left out.",
          "2 pictures, 2 sound tracks, 1 subtitle track",
          "-",
        ],
        [
          "-",
          "-",
        ],
        [
          "Recorded at 1000 frames a second, which no destination knows. It will be put on 240: 0 frames doubled, 76 dropped.",
          "-",
          "-",
        ],
      ]
    `)
  })

  it('is said in one sentence', () => {
    const say = (more: Partial<DeliveryPlan>) =>
      framingSentence({ ...testPlan(), scale: 1, fault: undefined, ...more }, 'CURL0041')
    expect([say({}), say({ scale: 1.001 }), say({ scale: 1.0011 }), say({ scale: 2, fault: 'x' })]).toEqual([
      'Tall short from CURL0041: every pixel is real.',
      'Tall short from CURL0041: every pixel is real.',
      'This window invents pixels: each real one is drawn 1.00 times as large.',
      'CURL0041 cannot go out as it is.',
    ])
    expect(predictedBytes(8e6, 192_000, 10)).toBe(10_240_000)
  })
})

describe('the sound of a deliverable', () => {
  it('becomes two channels', () => {
    const mix = (channels: number, layout?: string) => mixOf(testSound({ channels, layout }))
    expect([
      mix(1, 'mono'),
      mix(2, 'stereo'),
      mix(2, 'downmix'),
      mix(6, '5.1'),
      mix(6, '5.1(side)'),
      mix(7, '6.1(back)'),
    ]).toEqual([...['both', 'as is', 'as is', 'down-mix', 'down-mix', 'down-mix']])
    expect([
      mix(3, '3.0'),
      mix(4, '4.0'),
      mix(4, 'quad'),
      mix(5, '5.0'),
      mix(8, '7.1'),
      mix(8, 'octagonal'),
      mix(8),
    ]).toEqual([...Array.from({ length: 5 }, () => 'down-mix'), ...['first two', 'first two']])
    const label = (more: Partial<SoundTrack>) => soundLabel(testSound(more), 0)
    expect([
      label({}),
      label({ language: 'eng' }),
      label({ layout: undefined, channels: 1 }),
      label({ layout: undefined, channels: 3 }),
    ]).toEqual([...['1: stereo', '1: stereo, eng', '1: mono', '1: 3 channels']])
  })

  it('is mixed down by 3 dB', () => {
    // Source: ITU-R BS.775, table 2: 0.7071 is the root of a half.
    expect(DOWN_MIX).toBeCloseTo(Math.SQRT1_2, 4)
  })

  it('is as long as the picture, and says what is cut, padded or left out', () => {
    const says = (more: Partial<SoundTrack>, others: SoundTrack[] = [], picture: Partial<VideoTrack> = {}) => {
      const track = testSound(more)
      return soundPlan(testFacts({ video: testPicture(picture), audio: track, sounds: [track, ...others] }), null)?.says
    }
    expect([
      says({}),
      says({ seconds: 4.0499 }),
      says({ seconds: 4.0524 }),
      says({ seconds: 3.9501 }),
      says({ seconds: 3.94 }),
      says({ startSeconds: 0.0499, seconds: 3.95 }),
      says({ startSeconds: 0.06, seconds: 3.94 }),
      says({ startSeconds: 1.06, seconds: 3.94 }, [], { startSeconds: 1 }),
      says({}, [testSound({ index: 2, language: 'deu' })]),
      says({ channels: 1, layout: 'mono' }, [testSound({ index: 2 }), testSound({ index: 3 })]),
    ]).toMatchInlineSnapshot(`
      [
        [],
        [],
        [
          "The sound goes on 0.05 s after the picture and is cut there.",
        ],
        [],
        [
          "The sound ends 0.06 s before the picture; silence follows.",
        ],
        [],
        [
          "The sound begins 0.06 s after the picture; silence is put before.",
        ],
        [
          "The sound begins 0.06 s after the picture; silence is put before.",
        ],
        [
          "Sound 1: stereo goes out, the other is left out.",
        ],
        [
          "Sound 1: mono goes out, the other 2 are left out.",
          "The one channel goes to left and right.",
        ],
      ]
    `)
    const second = testSound({ index: 2, language: 'deu' })
    const facts = testFacts({ sounds: [testSound(), second] })
    expect(soundPlan(facts, 2)?.says).toEqual(['Sound 2: stereo, deu goes out, the other is left out.'])
    expect(soundPlan(facts, 9)?.track.index).toBe(1)
    expect(soundPlan(testFacts({ audio: undefined }), null)).toBeUndefined()
  })
})

describe('a window', () => {
  const uhd = { widthPx: 3840, heightPx: 2160 }

  it('lies on even pixels within the picture', () => {
    const fault = (more: object) =>
      windowFault({ x: 0, y: 0, widthPx: 100, heightPx: 100, ...more }, { widthPx: 100, heightPx: 100 })
    expect(fault({})).toBeUndefined()
    expect(fault({ widthPx: 2, heightPx: 2 })).toBeUndefined()
    for (const side of ['x', 'y', 'widthPx', 'heightPx']) expect(fault({ [side]: 1 }), side).toContain('even pixels')
    for (const more of [{ x: -2 }, { y: -2 }, { widthPx: 0 }, { heightPx: 0 }])
      expect(fault(more)).toContain('is empty or starts outside')
    for (const more of [{ x: 2 }, { y: 2 }, { widthPx: 102 }, { heightPx: 102 }])
      expect(fault(more)).toContain('beyond the picture of 100×100')
  })

  it('is as large as wanted, around its centre, and counts how much of the picture it uses', () => {
    const square = { widthPx: 1080, heightPx: 1080 }
    expect(reframe(uhd, square, 2, { x: 1920, y: 1080 })).toMatchObject({
      ...{ window: { x: 1380, y: 540, widthPx: 1080, heightPx: 1080 }, scale: 1, invented: false },
      usedShare: (1080 * 1080) / (3840 * 2160),
    })
    expect(reframe(uhd, square, 0.5, { x: 0, y: 0 }).window).toEqual({ x: 0, y: 0, widthPx: 2160, heightPx: 2160 })
    expect(reframe(uhd, square, 1, { x: 9999, y: 9999 }).window).toMatchObject({ x: 1680, y: 0 })
    // A picture too small for any true window still gives one.
    expect(
      reframe({ widthPx: 3, heightPx: 3 }, { widthPx: 1080, heightPx: 1920 }, 1, { x: 1, y: 1 }).window,
    ).toMatchObject({ heightPx: 2, widthPx: 2 })
    expect(reframe({ widthPx: 1, heightPx: 1 }, square, 1, { x: 0, y: 0 }).window).toMatchObject({
      widthPx: 2,
      heightPx: 2,
    })
    expect(largestWindow({ widthPx: 100, heightPx: 100 }, square)).toEqual({ widthPx: 100, heightPx: 100 })
    expect(losslessZoom({ widthPx: 1920, heightPx: 1080 }, { widthPx: 3840, heightPx: 2160 })).toBe(0.5)
    expect([1, 1.001, 1.00101].map(isInvented)).toEqual([false, false, true])
    expect([1.1259, 1, 0.88888].map(scaleDown)).toEqual(['112.5 %', '100.0 %', '88.8 %'])
  })

  it('is cut in samples, whatever their shape', () => {
    // 720×576 with samples of 16:15 is shown as 768×576; with tall samples the height is another.
    const wide = testPicture({ widthPx: 720, heightPx: 576, displayWidthPx: 768, displayHeightPx: 576 })
    expect(cutOf(wide, { x: 168, y: 100, widthPx: 432, heightPx: 400 }).window).toEqual({
      x: 158,
      y: 100,
      widthPx: 406,
      heightPx: 400,
    })
    const high = testPicture({ widthPx: 720, heightPx: 480, displayWidthPx: 720, displayHeightPx: 540 })
    expect(cutOf(high, { x: 0, y: 90, widthPx: 720, heightPx: 270 }).window).toEqual({
      x: 0,
      y: 80,
      widthPx: 720,
      heightPx: 240,
    })
    expect(cutOf(high, { x: 700, y: 530, widthPx: 100, heightPx: 100 }).window).toEqual({
      x: 620,
      y: 392,
      widthPx: 100,
      heightPx: 88,
    })
  })
})
