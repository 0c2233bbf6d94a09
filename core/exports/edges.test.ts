import { describe, expect, it } from 'vitest'
import type { MediaFacts, SoundTrack, VideoTrack } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { checkDelivery, isLookedAt, type MeasuredDelivery } from './check'
import { colourFault, coloursStated, isConverted, masterColours, usualColours, type ColourChoice } from './colours'
import { DESTINATIONS, predictedBytes } from './destination'
import { deliveryPlan, deliveryRate, USUAL_CHOICE, type DeliveryPlan } from './plan'
import { cutOf, isInvented, largestWindow, losslessZoom, reframe, scaleDown, windowFault } from './reframe'
import { framingSentence } from './sentence'
import { mixOf, soundLabel, soundPlan } from './sound'

const tall = DESTINATIONS.find((one) => one.id === 'tall-short')!
const window = { x: 1312, y: 0, widthPx: 1216, heightPx: 2160 }
const planOf = (master: MediaFacts, choice = USUAL_CHOICE): DeliveryPlan => deliveryPlan(master, tall, window, choice)!
const picture = (more: Partial<VideoTrack>) => testFacts({ video: testPicture(more) })
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
const one = (
  name: string,
  more: Partial<VideoTrack>,
  measured: Partial<MeasuredDelivery> = {},
  plan = planOf(testFacts()),
) =>
  checked(plan, { ...file, video: { ...video, ...more } }, measured).find((line) =>
    line.slice(2).startsWith(`${name}:`),
  )
const fileCheck = (
  name: string,
  more: Partial<MediaFacts>,
  measured: Partial<MeasuredDelivery> = {},
  plan = planOf(testFacts()),
) => checked(plan, { ...file, ...more }, measured).find((line) => line.slice(2).startsWith(`${name}:`))

describe('a deliverable', () => {
  it('is checked in all that can be told of it', () => {
    const measured = {
      ...{ black: false, decoded: { frames: 100, errors: 0 }, detailBitsPerSecond: 5e6, loweredDb: 1.25 },
      sound: { seconds: 4, unlike: 0, firstUnlike: null, steps: 0 },
    }
    expect(checked(planOf(testFacts()), file, measured)).toMatchInlineSnapshot(`
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
    expect(checked(planOf(silent), { ...file, audio: undefined, sounds: [] })).toMatchInlineSnapshot(`
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
    const woven = planOf(picture({ fieldOrder: 'top first' }))
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
    const grid = planOf(
      picture({ rate: frameRate(26), frames: 104, cadence: { ...video.cadence, kind: 'variable', average: 26 } }),
    )
    expect(grid.frames).toBe(100)
    expect([98, 99, 101, 102].map((frames) => one('Frames', { frames }, {}, grid)?.[0])).toEqual(['-', '+', '+', '-'])
    expect(one('Frames', { frames: 100 }, {}, grid)).toMatchInlineSnapshot(`"+ Frames: 100 ± 1 | 100, of the master’s 104 frames 0 doubled and 4 dropped"`)
    // Half a frame is 20 ms; the last frame of sound lasts 25 ms at most, and a grid may be off by a frame of 40 ms.
    const length = (seconds: number, plan?: DeliveryPlan) => fileCheck('Length', { seconds }, {}, plan)?.[0]
    expect([4.0449, 4.0451, 3.9551, 3.9549].map((seconds) => length(seconds))).toEqual(['+', '-', '+', '-'])
    expect([4.0599, 4.0601].map((seconds) => length(seconds, grid))).toEqual(['+', '-'])
    expect([60, 60.001].map((seconds) => fileCheck('Length limit', { seconds })?.[0])).toEqual(['+', '-'])
    const wide = deliveryPlan(
      testFacts(),
      DESTINATIONS.find((to) => to.id === 'wide-watch')!,
      window,
    )!
    expect(fileCheck('Length limit', { seconds: 9999 }, {}, wide)).toBe('+ Length limit: no limit | 9999.0 s')
  })

  it('has a level that allows what it holds, and says where it is higher than needed', () => {
    expect(one('Level', { level: 51 })).toBe('! Level: 4, what it needs | 5.1, higher than needed')
    expect(one('Level', { level: 40 })).toBe('+ Level: 4, what it needs | 4')
    expect(one('Level', { level: 30 })).toBe('- Level: 4, what it needs | 3')
    expect(one('Level', { widthPx: 16_384, heightPx: 16_384 })).toMatch(/^- Level: none fits \|/)
  })

  it('has the bits that were ordered and not too few for what is in it', () => {
    const plan = planOf(testFacts())
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
    expect(fileCheck('Tracks', {}, {}, planOf(master))).toBe(
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
    const none = checked(planOf(testFacts()), { ...file, video: undefined })
    expect(none).toEqual(['- Picture: a video track | none'])
  })
})

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
    expect(deliveryPlan(testFacts({ video: undefined }), tall, window)).toBeUndefined()
  })

  it('says what is changed, what stays behind and why it cannot be made', () => {
    const said = (master: MediaFacts, choice = USUAL_CHOICE) => {
      const { says, leftOut, fault } = planOf(master, choice)
      return [...says, leftOut ?? '-', fault ?? '-']
    }
    const variable = { cadence: { ...video.cadence, kind: 'variable' as const, average: 24.46 } }
    const subtitle = { index: 5, kind: 'subtitle', codec: 'mov_text' } as never
    const data = { index: 6, kind: 'data', codec: 'none' } as never
    const two = testSound({ index: 2 })
    expect([
      said(testFacts()),
      said(picture({ rate: frameRate(26), frames: 104 })),
      said(picture(variable)),
      said(picture({ fieldOrder: 'top first' })),
      said(picture({ fieldOrder: 'top first' }), { ...USUAL_CHOICE, fields: 'field' }),
      said(picture({ fieldOrder: undefined, measuredFields: { order: 'bottom first' } as never })),
      said(picture({ fieldOrder: 'top first', rotationDegrees: 90 })),
      said(picture({ rotationDegrees: 90 })),
      said(picture({ fieldOrder: 'top first', rotationDegrees: 180 })),
      said(picture({ transfer: 'smpte2084' })),
      said(testFacts({ videos: [video, video], sounds: [testSound(), two], others: [subtitle, subtitle, data] })),
      said(testFacts({ videos: [video, video, video], sounds: [testSound(), two, two], others: [subtitle] })),
      said(testFacts({ audio: undefined, others: [data] })),
      said(picture({ rate: frameRate(1000) })),
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
      framingSentence({ ...planOf(testFacts()), scale: 1, fault: undefined, ...more }, 'CURL0041')
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

  it('is as long as the picture, and says what is cut, padded or left out', () => {
    const says = (more: Partial<SoundTrack>, others: SoundTrack[] = [], picture: Partial<VideoTrack> = {}) => {
      const track = testSound(more)
      return soundPlan(testFacts({ video: testPicture(picture), audio: track, sounds: [track, ...others] }), null)?.says
    }
    expect([
      says({}),
      says({ seconds: 4.0499 }),
      says({ seconds: 4.06 }),
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
          "The sound goes on 0.06 s after the picture and is cut there.",
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
