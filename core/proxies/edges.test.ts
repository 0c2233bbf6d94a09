import { describe, expect, it } from 'vitest'
import type { VideoTrack } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { checkProxy, compareTimes } from './check'
import { clipsToSample, sampleParts } from './estimate'
import {
  hasLowChannel,
  mostProxyBytes,
  plainLayout,
  proxyAperture,
  proxyBitRate,
  proxyBytes,
  proxyChanges,
  proxyFrame,
  proxyLayout,
  proxyPictureBits,
  proxySampleRate,
} from './recipe'
import { proxySentence } from './sentence'

const video = testPicture()
const half = (more: Partial<VideoTrack> = {}) => testPicture({ widthPx: 1920, heightPx: 1080, ...more })
const original = testFacts({ timecode: '10:00:00:00', video })
/** The checks of a proxy, `+` where they pass, with what was wanted and found; or one of them. */
const checked = (from: typeof original, to: typeof original, decoded?: Parameters<typeof checkProxy>[3]) =>
  checkProxy(from, to, 2, decoded).map(
    ({ name, pass, wanted, found }) => `${pass ? '+' : '-'} ${name}: ${wanted} | ${found}`,
  )
const one = (name: string, from: Partial<VideoTrack>, to: Partial<VideoTrack>) =>
  checked(testFacts({ video: testPicture(from) }), testFacts({ video: half(to) })).find((line) =>
    line.slice(2).startsWith(`${name}:`),
  )

describe('a proxy against its original', () => {
  it('is compared in all that can be told of it', () => {
    const decoded = { frames: 100, errors: 0, times: { frames: 100, worstSeconds: 0.0004 }, sounds: [] }
    expect(checked(original, { ...original, video: half() }, decoded)).toMatchInlineSnapshot(`
      [
        "+ Decoded frames: 100 | 100",
        "+ Decoding: no errors | 0 errors",
        "+ Time stamps: 100, each within 2.0 ms | 100 compared, 0.4 ms apart at most",
        "+ Frames: 100 | 100",
        "+ Frame rate: 25/1 | 25/1",
        "+ Duration: 4.000 s ± half a frame | 4.000 s",
        "+ Frame size: 1920×1080 | 1920×1080",
        "+ Sample aspect: 1:1 | 1:1",
        "+ Scan: progressive | progressive",
        "+ Rotation: 0° against the clock | 0° against the clock",
        "+ Colour tags: BT.709 | BT.709",
        "+ Range: limited | limited",
        "+ Sound: stereo | stereo",
        "+ Sound against picture: 0.00 s after it, 4.00 s long | 0.00 s after it, 4.00 s long",
        "+ Start timecode: 10:00:00:00 | 10:00:00:00",
      ]
    `)
    const silent = testFacts({ video, audio: undefined })
    expect(checked(silent, { ...silent, video: half({ fieldOrder: undefined }) })).toMatchInlineSnapshot(`
      [
        "+ Frames: 100 | 100",
        "+ Frame rate: 25/1 | 25/1",
        "+ Duration: 4.000 s ± half a frame | 4.000 s",
        "+ Frame size: 1920×1080 | 1920×1080",
        "+ Sample aspect: 1:1 | 1:1",
        "+ Scan: progressive | not stated",
        "+ Rotation: 0° against the clock | 0° against the clock",
        "+ Colour tags: BT.709 | BT.709",
        "+ Range: limited | limited",
        "+ Sound: no sound | no sound",
        "+ Start timecode: none | none",
      ]
    `)
  })

  it('may be off by half a frame in its length, and by nothing in its sides', () => {
    // 25 frames a second: half a frame is 20 ms.
    expect([4.0199, 4.0201, 3.9801, 3.9799].map((seconds) => one('Duration', {}, { seconds })?.[0])).toEqual([
      '+',
      '-',
      '+',
      '-',
    ])
    expect(one('Frame size', {}, { widthPx: 1918 })).toBe('- Frame size: 1920×1080 | 1918×1080')
    expect(one('Frame size', {}, { heightPx: 1078 })).toBe('- Frame size: 1920×1080 | 1920×1078')
    expect(one('Sample aspect', { sampleAspect: '16:15' }, {})).toBe('- Sample aspect: 16:15 | 1:1')
  })

  it('has a variable rate only where the original has', () => {
    const variable = { ...video.cadence, kind: 'variable' as const }
    const rate = (from: Partial<VideoTrack>, to: Partial<VideoTrack>) => one('Frame rate', from, to)
    expect(rate({ cadence: variable }, { cadence: variable })).toBe('+ Frame rate: variable | variable')
    expect(rate({ cadence: variable }, {})).toBe('- Frame rate: variable | 25/1')
    expect(rate({}, { cadence: variable })).toBe('- Frame rate: 25/1 | variable')
    expect(rate({}, { rate: frameRate(24) })).toBe('- Frame rate: 25/1 | 24/1')
  })

  it('is progressive where the original has fields, and else as the original says', () => {
    expect(one('Scan', { fieldOrder: 'top first' }, {})).toBe('+ Scan: progressive | progressive')
    expect(one('Scan', { fieldOrder: undefined }, {})).toBe('+ Scan: progressive | progressive')
    expect(one('Scan', {}, { fieldOrder: undefined })).toBe('+ Scan: progressive | not stated')
    expect(one('Scan', {}, { fieldOrder: 'bottom first' })).toBe('- Scan: progressive | bottom first')
  })

  it('has the colours of the original, or those that RGB becomes', () => {
    const rgb = { chroma: 'RGB', matrix: 'gbr', range: 'full' as const }
    expect(one('Colour tags', rgb, {})).toBe('+ Colour tags: BT.709 | BT.709')
    expect(one('Range', rgb, {})).toBe('+ Range: limited | limited')
    expect(one('Range', { range: undefined }, { range: undefined })).toBe(
      '+ Range: limited, not stated | limited, not stated',
    )
    expect(one('Range', { range: 'full' }, { range: undefined })).toBe('- Range: full | limited, not stated')
    expect(one('Range', {}, { range: 'full' })).toBe('- Range: limited | full')
    expect(one('Rotation', { rotationDegrees: 90 }, {})?.[0]).toBe('-')
  })

  it('has the clean aperture of the original on its own frame, within a pixel', () => {
    const clean = { x: 8, y: 0, widthPx: 3824, heightPx: 2160 }
    const scaled = { x: 4, y: 0, widthPx: 1912, heightPx: 1080 }
    const found = (cleanAperture: typeof clean | undefined) =>
      one('Clean aperture', { cleanAperture: clean }, { cleanAperture })
    expect(found(scaled)).toBe('+ Clean aperture: 1912×1080 at 4, 0 | 1912×1080 at 4, 0')
    expect(found({ ...scaled, x: 5 })?.[0]).toBe('+')
    for (const side of ['x', 'y', 'widthPx', 'heightPx'] as const) {
      expect(found({ ...scaled, [side]: scaled[side] + 1 })?.[0], side).toBe('+')
      expect(found({ ...scaled, [side]: scaled[side] + 2 })?.[0], side).toBe('-')
      expect(found({ ...scaled, [side]: scaled[side] - 2 })?.[0], side).toBe('-')
    }
    expect(found(undefined)).toBe('- Clean aperture: 1912×1080 at 4, 0 | the whole frame')
    expect(one('Clean aperture', {}, { cleanAperture: scaled })).toBe(
      '- Clean aperture: the whole frame | 1912×1080 at 4, 0',
    )
    expect(one('Clean aperture', {}, {})).toBeUndefined()
  })

  it('shows each frame when the original does', () => {
    const stamps = (times: { frames: number; worstSeconds: number }, from: Partial<VideoTrack> = {}) =>
      checked(testFacts({ video: testPicture(from) }), testFacts({ video: half() }), {
        frames: 100,
        errors: 0,
        times,
      }).find((line) => line.includes('Time stamps'))
    expect(stamps({ frames: 100, worstSeconds: 0.002 })).toBe(
      '+ Time stamps: 100, each within 2.0 ms | 100 compared, 2.0 ms apart at most',
    )
    expect(stamps({ frames: 100, worstSeconds: 0.0021 })?.[0]).toBe('-')
    expect(stamps({ frames: 99, worstSeconds: 0 })?.[0]).toBe('-')
    // A quarter of a frame at 1000 frames a second is less than what containers round by.
    expect(stamps({ frames: 100, worstSeconds: 0.0003 }, { rate: frameRate(1000), frames: 100 })?.[0]).toBe('-')
    expect(stamps({ frames: 100, worstSeconds: 0.00025 }, { rate: frameRate(1000), frames: 100 })?.[0]).toBe('+')
    // Film with pull-down: two fifths of a frame of 25 are 16 ms, and 2 ms more.
    const pulled = { cadence: { ...video.cadence, pulldown: true as const } }
    expect(stamps({ frames: 100, worstSeconds: 0.018 }, pulled)?.[0]).toBe('+')
    expect(stamps({ frames: 100, worstSeconds: 0.0181 }, pulled)?.[0]).toBe('-')
  })

  it('has each frame at its time, both counted from the first', () => {
    expect(compareTimes([1, 1.04, 1.08], [5, 5.04, 5.08]).worstSeconds).toBeCloseTo(0, 9)
    expect(compareTimes([0, 0.04, 0.08], [0, 0.05, 0.08]).worstSeconds).toBeCloseTo(0.01, 9)
    expect(compareTimes([0, 0.05, 0.08], [0, 0.04, 0.08]).worstSeconds).toBeCloseTo(0.01, 9)
    expect(compareTimes([0, 0.04, 0.08], [0, 0.04]).frames).toBe(2)
    expect(compareTimes([0, 0.04], [0, 0.04, 9]).frames).toBe(2)
    expect(compareTimes([0, 0.04, 0.09], [0, 0.04, 0.08]).worstSeconds).toBeCloseTo(0.01, 9)
    expect(compareTimes([], [0])).toEqual({ frames: 0, worstSeconds: 0 })
  })

  it('has each sound with its channels, its layout and its place against the picture', () => {
    const sound = (from: Parameters<typeof testSound>[0][], to: Parameters<typeof testSound>[0][]) => {
      const facts = (sounds: typeof from, picture: VideoTrack) => {
        const tracks = sounds.map((track) => testSound(track))
        return testFacts({ video: picture, audio: tracks[0], sounds: tracks })
      }
      return checked(facts(from, video), facts(to, half())).filter((line) => line.includes('Sound'))
    }
    expect(sound([{}], [{ layout: 'mono' }])).toMatchInlineSnapshot(`
      [
        "- Sound: stereo | mono",
        "+ Sound against picture: 0.00 s after it, 4.00 s long | 0.00 s after it, 4.00 s long",
      ]
    `)
    expect(sound([{ layout: 'weird', channels: 3 }], [{ layout: '3.0', channels: 3 }])[0]?.[0]).toBe('+')
    expect(sound([{ layout: '5.1(side)', channels: 6 }], [{ layout: '5.1', channels: 6 }])[0]?.[0]).toBe('+')
    expect(sound([{ layout: '5.1', channels: 6 }], [{ layout: '5.1', channels: 5 }])[0]?.[0]).toBe('-')
    expect(sound([{}, {}], [{}])[0]?.[0]).toBe('-')
    expect(sound([{}, { channels: 1, layout: 'mono' }], [{}, {}])[0]?.[0]).toBe('-')
    expect(sound([{ layout: undefined }], [{ layout: undefined }])[0]).toContain('2 channels | 2 channels')
    // 60 ms of place and 120 ms of length.
    const late = (startSeconds: number, seconds = 4) => sound([{}], [{ startSeconds, seconds }])[1]?.[0]
    expect([0.06, 0.061, -0.06, -0.061].map((seconds) => late(seconds))).toEqual(['+', '-', '+', '-'])
    expect([4.119, 4.121, 3.881, 3.879].map((seconds) => late(0, seconds))).toEqual(['+', '-', '+', '-'])
    // It is the distance from the picture that counts.
    const both = checked(
      testFacts({ video: testPicture({ startSeconds: 2 }), audio: testSound({ startSeconds: 2 }) }),
      testFacts({ video: half() }),
    )
    expect(both.find((line) => line.includes('Sound against'))).toMatch(/^\+/)
    const older = {
      ...testFacts({ video: half(), audio: testSound({ startSeconds: 9 }) }),
      version: original.version - 1,
    }
    expect(checked(testFacts({ video }), older).some((line) => line.includes('Sound against'))).toBe(false)
    const unlike = { seconds: 4, unlike: 1, firstUnlike: 2, steps: 0 }
    const named = (sounds: (typeof unlike)[]) =>
      checked(original, { ...original, video: half() }, { frames: 100, errors: 0, times: undefined, sounds }).filter(
        (line) => line.includes('second by'),
      )
    expect(named([unlike]).map((line) => line.split(',')[0])).toEqual(['- Sound'])
    expect(named([unlike, unlike]).map((line) => line.split(',')[0])).toEqual(['- Sound 1', '- Sound 2'])
    const untimed = checked(testFacts({ video }), testFacts({ video: half(), timecode: '01:00:00:00' })).at(-1)
    expect(untimed).toBe('- Start timecode: none | 01:00:00:00')
  })
})

describe('the recipe', () => {
  it('has the even sides whose aspect is off the least', () => {
    expect(proxyFrame({ widthPx: 3, heightPx: 2 }, 2)).toEqual({ widthPx: 2, heightPx: 2 })
    expect(proxyFrame({ widthPx: 1920, heightPx: 1080 }, 4)).toEqual({ widthPx: 480, heightPx: 270 })
    expect(proxyFrame({ widthPx: 1919, heightPx: 1080 }, 2)).toEqual({ widthPx: 960, heightPx: 540 })
  })

  it('turns the clean aperture with the picture', () => {
    const clean = { x: 10, y: 20, widthPx: 100, heightPx: 200 }
    const on = (rotationDegrees: number) =>
      proxyAperture(
        { cleanAperture: clean, widthPx: 1000, heightPx: 2000, rotationDegrees },
        { widthPx: 500, heightPx: 500 },
      )
    // The sides are those that are seen: half of the width, a quarter of the height.
    expect(on(0)).toEqual({ x: 5, y: 5, widthPx: 50, heightPx: 50 })
    expect(on(180)).toEqual(on(0))
    expect(on(90)).toEqual({ x: 3, y: 10, widthPx: 25, heightPx: 100 })
    expect(on(-90)).toEqual(on(90))
    expect(
      proxyAperture(
        { cleanAperture: undefined, widthPx: 1, heightPx: 1, rotationDegrees: 0 },
        { widthPx: 1, heightPx: 1 },
      ),
    ).toBeUndefined()
  })

  it('holds bits and bytes as the arithmetic says', () => {
    // 1920 × 1080 × 25 × 0.12 = 6 220 800 b/s.
    expect(proxyBitRate({ widthPx: 1920, heightPx: 1080 }, 25, 0.12)).toBe(6_220_800)
    expect(proxyPictureBits(video)).toBe(6_220_800)
    // The slower of the stated rate and the measured one.
    expect(proxyPictureBits(testPicture({ cadence: { ...video.cadence, average: 12.5 } }))).toBe(3_110_400)
    expect(proxyPictureBits(testPicture({ cadence: { ...video.cadence, average: 0 } }))).toBe(6_220_800)
    // 4 s: 8 000 bits of picture, 2 × 64 000 × 4 of sound, 1500 bytes, 17 for each of 100 frames and 187.5 of sound.
    expect(proxyBytes(original, 8000)).toBe(Math.ceil((8000 + 512_000) / 8 + 1500 + 17 * 287.5))
    expect(mostProxyBytes(original)).toBe(proxyBytes(original, 6_220_800 * 5))
    const sound = testFacts({ video: undefined })
    expect([proxyBytes(sound, 8000), mostProxyBytes(sound)]).toEqual([0, 0])
  })

  it('has the sound that AAC can carry', () => {
    expect(
      [44_100, 96_000, 96_001, 192_000].map((sampleRateHz) => proxySampleRate(testSound({ sampleRateHz }))),
    ).toEqual([...[44_100, 96_000, 48_000, 48_000]])
    const layouts = ['stereo', '5.1(side)', '5.1(back)', '7.1(wide)', 'octagonal', undefined]
    expect(layouts.map(plainLayout)).toEqual(['stereo', '5.1', '5.1', '7.1(wide)', 'octagonal', undefined])
    expect(layouts.map((layout) => proxyLayout(testSound({ layout })))).toEqual([
      'stereo',
      '5.1',
      '5.1',
      undefined,
      undefined,
      undefined,
    ])
    expect(
      ['2.1', '5.1(side)', '5.0', 'stereo', undefined].map((layout) => hasLowChannel(testSound({ layout }))),
    ).toEqual([true, true, false, false, false])
    expect(plainLayout('5.1(side) x')).toBe('5.1(side) x')
  })

  it('says what it changes', () => {
    const picture = (more: Partial<VideoTrack>) => proxyChanges(testFacts({ video: testPicture(more) }))
    expect(picture({ widthPx: 854, heightPx: 480 })).toEqual(['Even sides put the aspect off by 0.23 %.'])
    expect(picture({ chroma: 'RGB' })).toEqual(['RGB is coded as BT.709 in limited range.'])
    expect(picture({ pixelFormat: 'yuva444p10le' })).toEqual([
      'What is transparent in the original is not in the proxy: it has no alpha channel.',
    ])
    expect(proxyChanges(testFacts({ video: undefined }))).toEqual([])
    const sounds = (...tracks: Parameters<typeof testSound>[0][]) => {
      const made = tracks.map((track) => testSound(track))
      return proxyChanges(testFacts({ audio: made[0], sounds: made }))
    }
    expect(sounds({ sampleRateHz: 192_000, layout: '5.1(side)', channels: 6 })).toEqual([
      'The sound has 48 kHz instead of 192 kHz.',
      'The low-frequency channel of the sound keeps what lies below 120 Hz.',
    ])
    expect(
      sounds(
        {},
        { layout: 'octagonal', channels: 8 },
        { layout: undefined, channels: 8 },
        { layout: '2.1', channels: 3 },
      ),
    ).toEqual([
      'Sound 2 keeps its 8 channels in their order, without the name of their layout (octagonal).',
      'The low-frequency channel of Sound 4 keeps what lies below 120 Hz.',
    ])
  })
})

describe('the answer of the station', () => {
  it('is in the right number', () => {
    const say = (more: Partial<Parameters<typeof proxySentence>[0]>) =>
      proxySentence({ wanted: 3, equal: 0, differ: 0, unchecked: 0, making: 0, without: 0, ...more })
    expect([
      say({ differ: 1 }),
      say({ differ: 2 }),
      say({ unchecked: 1 }),
      say({ unchecked: 2 }),
      say({ wanted: 1, equal: 1 }),
      say({ equal: 3 }),
      say({ equal: 3, without: 1 }),
      say({ equal: 2, making: 1 }),
      say({ making: 2 }),
      say({ equal: 2 }),
      say({ equal: 1 }),
      say({ equal: 1, making: 2 }),
      say({ wanted: 1 }),
      say({ wanted: 0, without: 1 }),
      say({ wanted: 0, without: 2 }),
    ]).toMatchInlineSnapshot(`
      [
        "1 proxy differs from its original: do not edit with it.",
        "2 proxies differ from their originals: do not edit with them.",
        "1 proxy is to be checked: the sound was not compared when it was made.",
        "2 proxies are to be checked: the sound was not compared when they were made.",
        "The one proxy equals its original in every check.",
        "All 3 proxies equal their originals in every check.",
        "All 3 proxies equal their originals in every check; 1 clip is edited without one.",
        "2 of 3 clips have a proxy; 1 proxy is being made.",
        "2 proxies are being made.",
        "2 of 3 clips have a proxy.",
        "1 of 3 clips has a proxy.",
        "1 of 3 clips has a proxy; 2 proxies are being made.",
        "1 clip has no proxy yet.",
        "The one clip is edited without a proxy.",
        "All 2 clips are edited without proxies.",
      ]
    `)
  })
})

describe('what stands for a batch', () => {
  it('is a few seconds of a long clip, and all of a short one', () => {
    expect(sampleParts(4.001)).toHaveLength(2)
    expect(sampleParts(10, 1, 2)).toEqual([{ atSeconds: 4, seconds: 2 }])
  })

  it('begins with the kinds that have most seconds, and takes of each the clip in the middle by length', () => {
    const clip = (id: string, kind: string, seconds: number) => ({ id, kind, seconds })
    const clips = [
      ...[clip('a1', 'a', 1), clip('b9', 'b', 9), clip('b1', 'b', 1), clip('b5', 'b', 5)],
      ...[clip('c2', 'c', 2), clip('c7', 'c', 7)],
    ]
    const ids = (most: number) => clipsToSample(clips, most).map(({ id }) => id)
    expect(ids(1)).toEqual(['b5'])
    expect(ids(2)).toEqual(['b5', 'c7'])
    expect(ids(3)).toEqual(['b5', 'c7', 'a1'])
    // The second of a kind lies at two thirds of its lengths.
    expect(ids(4)).toEqual(['b5', 'c7', 'a1', 'b9'])
    expect(ids(9)).toEqual(['b5', 'c7', 'a1', 'b9', 'c2', 'b1'])
  })
})
