import { describe, expect, it } from 'vitest'
import { allPass } from '../media/check'
import { isMediaName } from '../media/mediaName'
import type { MediaFacts, VideoTrack } from '../media/facts'
import { testFacts, testPicture } from '../media/testFacts'
import { frameRate } from '../units/frameRate'
import { checkProxy } from './check'
import { proxyBitRate, proxyFrame } from './recipe'

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
    expect(proxyFrame({ widthPx: 1079, heightPx: 607 }, 2)).toEqual({ widthPx: 538, heightPx: 302 })
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
    expect(failures({ ...proxy(), audio: undefined })).toEqual(['Sound'])
    expect(failures({ ...proxy(), timecode: undefined })).toEqual(['Start timecode'])
    expect(failures({ ...proxy(), video: undefined })).toEqual(['Picture'])
  })

  it('are only made of media', () => {
    expect(['CURL0041.MP4', 'a.mov', 'T01.WAV'].map(isMediaName)).toEqual([true, true, true])
    expect(['CURL0041.XML', '.mp4', 'mp4'].map(isMediaName)).toEqual([false, false, false])
  })
})
