import { describe, expect, it } from 'vitest'
import { allPass } from '../media/check'
import { isMediaName } from '../media/mediaName'
import type { MediaFacts, VideoTrack } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { checkProxy, proxyState } from './check'
import { proxySentence } from './sentence'
import { clipsToSample, measuredShare, sampleParts } from './estimate'
import { mostProxyBytes, proxyAspectError, proxyBitRate, proxyChanges, proxyFrame } from './recipe'

const video = testPicture()
const original = testFacts({ timecode: '10:00:00:00', video })
const proxy = (more: Partial<VideoTrack> = {}): MediaFacts => ({
  ...original,
  video: { ...video, widthPx: 1920, heightPx: 1080, ...more },
})
const failures = (found: MediaFacts) =>
  checkProxy(original, found, 2)
    .filter((check) => !check.pass)
    .map((check) => check.name)

describe('proxies', () => {
  it('are an exact fraction of the original with even sides', () => {
    expect(proxyFrame({ widthPx: 3840, heightPx: 2160 }, 2)).toEqual({ widthPx: 1920, heightPx: 1080 })
    expect(proxyFrame({ widthPx: 3840, heightPx: 2160 }, 3)).toEqual({ widthPx: 1280, heightPx: 720 })
    expect(proxyFrame({ widthPx: 2704, heightPx: 1520 }, 2)).toEqual({ widthPx: 1352, heightPx: 760 })
    expect(proxyFrame({ widthPx: 1079, heightPx: 607 }, 2)).toEqual({ widthPx: 540, heightPx: 304 })
    // Source: the arithmetic; 426/240 and 428/240 are off by 0.23 % alike, the smaller one is taken.
    expect(proxyFrame({ widthPx: 854, heightPx: 480 }, 2)).toEqual({ widthPx: 426, heightPx: 240 })
    expect(proxyAspectError({ widthPx: 854, heightPx: 480 }, 2)).toBeCloseTo(-0.0023, 4)
    expect(proxyAspectError({ widthPx: 3840, heightPx: 2160 }, 2)).toBe(0)
    expect(proxyBitRate({ widthPx: 64, heightPx: 36 }, 25, 0.12)).toBe(500_000)
  })

  it('pass when they equal the original in everything but size', () => {
    expect(allPass(checkProxy(original, proxy(), 2))).toBe(true)
  })

  it('fail by name at a missing frame, another rate, bars or lost sound', () => {
    expect(failures(proxy({ frames: 99 }))).toEqual(['Frames'])
    expect(failures(proxy({ rate: frameRate(25000, 1001) }))).toEqual(['Frame rate'])
    expect(failures(proxy({ seconds: 4.021 }))).toEqual(['Duration'])
    expect(failures(proxy({ widthPx: 1024, heightPx: 540 }))).toEqual(['Frame size'])
    expect(failures({ ...proxy(), audio: undefined, sounds: [] })).toEqual(['Sound'])
    expect(failures({ ...proxy(), timecode: undefined })).toEqual(['Start timecode'])
    expect(failures({ ...proxy(), video: undefined })).toEqual(['Picture'])
  })

  it('fail where the time of one frame, a field or the second sound is off', () => {
    const decoded = { frames: 100, errors: 0, times: { frames: 100, worstSeconds: 0.0004 } }
    const failing = (found: MediaFacts, late = decoded) =>
      checkProxy(original, found, 2, late)
        .filter((check) => !check.pass)
        .map((check) => check.name)
    expect(failing(proxy())).toEqual([])
    expect(failing(proxy(), { ...decoded, times: { frames: 100, worstSeconds: 0.02 } })).toEqual(['Time stamps'])
    expect(failing(proxy({ fieldOrder: 'top first' }))).toEqual(['Scan'])
    expect(failing(proxy({ range: 'full' }))).toEqual(['Range'])
    expect(failing(proxy({ matrix: 'smpte170m' }))).toEqual(['Colour tags'])
    expect(failing({ ...proxy(), sounds: [testSound(), testSound()] })).toEqual(['Sound'])
    expect(failing({ ...proxy(), audio: testSound({ startSeconds: 0.2 }) })).toEqual(['Sound against picture'])
  })

  it('are equal only when their sound was compared, and is', () => {
    const times = { frames: 100, worstSeconds: 0 }
    const state = (sounds?: { unlike: number; steps: number }[]) => {
      const compared = sounds?.map((sound) => ({ seconds: 4, firstUnlike: sound.unlike > 0 ? 2 : null, ...sound }))
      const decoded = { frames: 100, errors: 0, times, sounds: compared }
      return proxyState(original, checkProxy(original, proxy(), 2, decoded), decoded)
    }
    expect(state()).toBe('unchecked')
    expect(state([{ unlike: 0, steps: 0 }])).toBe('equal')
    expect(state([{ unlike: 1, steps: 0 }])).toBe('differs')
    expect(state([{ unlike: 0, steps: 3 }])).toBe('differs')
    const silent = testFacts({ video, audio: undefined })
    expect(proxyState(silent, checkProxy(silent, { ...silent, video: proxy().video }, 2))).toBe('equal')
    expect(proxySentence({ wanted: 3, equal: 2, differ: 0, unchecked: 1, making: 0, without: 0 })).toMatch(
      /^1 proxy is to be checked/,
    )
    expect(proxySentence({ wanted: 3, equal: 1, differ: 1, unchecked: 1, making: 0, without: 2 })).toMatch(
      /^1 proxy differs/,
    )
    expect(proxySentence({ wanted: 1, equal: 1, differ: 0, unchecked: 0, making: 0, without: 2 })).toBe(
      'The one proxy equals its original in every check; 2 clips are edited without one.',
    )
    const many = { wanted: 8, differ: 0, unchecked: 0, without: 0 }
    expect(proxySentence({ ...many, equal: 0, making: 0 })).toBe('8 clips have no proxy yet.')
    expect(proxySentence({ ...many, equal: 0, making: 8 })).toBe('8 proxies are being made.')
    expect(proxySentence({ ...many, equal: 7, making: 1 })).toBe('7 of 8 clips have a proxy; 1 proxy is being made.')
    const none = { wanted: 0, equal: 0, differ: 0, unchecked: 0, making: 0 }
    expect(proxySentence({ ...none, without: 1 })).toBe('The one clip is edited without a proxy.')
    expect(proxySentence({ ...none, without: 14 })).toBe('All 14 clips are edited without proxies.')
  })

  it('count their sound, and say what they change', () => {
    const quiet = testFacts({ video, audio: undefined })
    // Source: the arithmetic; two channels of 64 kb/s over 4 s are 64 000 bytes, before the tables.
    expect(mostProxyBytes(original) - mostProxyBytes(quiet)).toBeGreaterThan(64_000)
    expect(proxyChanges(original)).toEqual([])
    const woven = testFacts({
      video: testPicture({ widthPx: 720, heightPx: 576, fieldOrder: 'top first', sampleAspect: '16:15', bitDepth: 10 }),
    })
    expect(proxyChanges(woven)).toEqual([
      'Deinterlaced to full frames, one for each frame; no fields are blended.',
      'Samples of 16:15 are kept, not squared.',
      '10 bits become 8.',
    ])
  })

  it('are sized by a few seconds of every kind of clip', () => {
    expect(sampleParts(4)).toEqual([{ atSeconds: 0, seconds: 4 }])
    expect(sampleParts(80).map((part) => part.atSeconds)).toEqual([19, 59])
    const clips = Array.from({ length: 40 }, (_, at) => ({
      id: String(at),
      kind: at < 30 ? 'long' : at < 39 ? 'short' : 'odd',
      seconds: at,
    }))
    const chosen = clipsToSample(clips, 6)
    expect(new Set(chosen.map((clip) => clip.id)).size).toBe(6)
    expect(new Set(chosen.map((clip) => clip.kind))).toEqual(new Set(['long', 'short', 'odd']))
    expect(clipsToSample(clips.slice(0, 2), 6)).toHaveLength(2)
    expect(clipsToSample([], 6)).toEqual([])
    expect(
      measuredShare([
        { bytes: 50, mostBytes: 100 },
        { bytes: 10, mostBytes: 20 },
      ]),
    ).toEqual({ clips: 2, share: 0.5 })
    expect(measuredShare([])).toBeUndefined()
  })

  it('are only made of media', () => {
    expect(['CURL0041.MP4', 'a.mov', 'T01.WAV'].map(isMediaName)).toEqual([true, true, true])
    expect(['CURL0041.XML', '.mp4', 'mp4'].map(isMediaName)).toEqual([false, false, false])
  })
})
