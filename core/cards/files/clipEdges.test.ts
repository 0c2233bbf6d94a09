import { describe, expect, it } from 'vitest'
import { clipsOf, companionsOf, companionWords, type FileRole } from './clips'
import type { MediaFile } from './mediaFile'

const film = (path: string, more: Partial<MediaFile> = {}): MediaFile => ({
  ...{ path, sizeBytes: 400e6, hasVideo: true, hasSound: true, seconds: 30, framePx: 3840 * 2160, rate: 25 },
  ...{ codec: 'h264', recordedMs: Date.parse('2026-11-14T09:00:00Z'), isWrong: false },
  ...more,
})
const small = (path: string, more: Partial<MediaFile> = {}) =>
  film(path, { framePx: 1280 * 720, sizeBytes: 20e6, ...more })
const sound = (path: string, more: Partial<MediaFile> = {}) =>
  film(path, { hasVideo: false, framePx: 0, rate: 0, codec: 'pcm_s24le', sizeBytes: 8_640_044, ...more })
const mute = { hasSound: false }
const listed = (path: string, sizeBytes = 1000) => ({ path, sizeBytes, modifiedMs: 0 })

/** Each clip as its main file, then what goes with it. */
const together = (...media: MediaFile[]) =>
  clipsOf(media, [], new Map()).map(({ files }) =>
    files.map(({ path, role, number }) => `${path} ${role}${number === null ? '' : ` ${number}`}`).join(' + '),
  )
const isMember = (...media: MediaFile[]) => clipsOf(media, [], new Map()).length < media.length

describe('a companion', () => {
  const owner = (other: string, ...media: string[]) => {
    const beside = companionsOf(
      media.map((path) => ({ path })),
      [listed(other)],
    )
    return [...beside.keys()][0]
  }

  it('goes with the clip whose name it has, with a little behind it that is no further number', () => {
    expect(owner('C0041.XML', 'C0041.MP4')).toBe('C0041.MP4')
    expect(owner('c0041M01.xml', 'C0041.MP4')).toBe('C0041.MP4')
    expect(owner('C00412.XML', 'C0041.MP4')).toBeUndefined()
    expect(owner('C0041_12345678.XML', 'C0041.MP4')).toBeUndefined()
    expect(owner('C0041_1234567.XML', 'C0041.MP4')).toBe('C0041.MP4')
    expect(owner('Keel-1.XML', 'Keel.MP4')).toBe('Keel.MP4')
    expect(owner('Keel123.XML', 'Keel.MP4')).toBe('Keel.MP4')
    expect(owner('Keel1234.XML', 'Keel.MP4')).toBeUndefined()
    expect(owner('Keels.XML', 'Keel.MP4')).toBeUndefined()
    expect(owner('Keel1a.XML', 'Keel.MP4')).toBeUndefined()
    expect(owner('X.XML', 'Keel.MP4')).toBeUndefined()
    // The longest name that fits it.
    expect(owner('Keel-1 b.XML', 'Keel.MP4', 'Keel-1.MP4')).toBe('Keel-1.MP4')
    // A clip is no companion of itself.
    expect(owner('Keel.MP4', 'Keel.MP4')).toBeUndefined()
  })

  it('lies in the same folder, one beside it, or one within the other', () => {
    expect(owner('CLIP/A.XML', 'CLIP/A.MP4')).toBe('CLIP/A.MP4')
    expect(owner('META/A.XML', 'CLIP/A.MP4')).toBe('CLIP/A.MP4')
    expect(owner('CLIP/META/A.XML', 'CLIP/A.MP4')).toBe('CLIP/A.MP4')
    expect(owner('CLIP/A.XML', 'CLIP/SUB/A.MP4')).toBe('CLIP/SUB/A.MP4')
    expect(owner('ONE/META/A.XML', 'TWO/CLIP/A.MP4')).toBeUndefined()
    // In its own folder first, in whatever order they are listed.
    expect(owner('CLIP/A.XML', 'OTHER/A.MP4', 'CLIP/A.MP4')).toBe('CLIP/A.MP4')
    expect(owner('CLIP/A.XML', 'CLIP/A.MP4', 'OTHER/A.MP4')).toBe('CLIP/A.MP4')
  })

  it('is a thumbnail by its ending and size, and else a sidecar', () => {
    const role = (path: string, sizeBytes: number) =>
      clipsOf([film('A.MP4')], [], new Map([['A.MP4', [listed(path, sizeBytes)]]]))[0]?.files[1]?.role
    expect(role('A.THM', 9e9)).toBe('thumbnail')
    expect(role('A.JPG', 512 * 1024)).toBe('thumbnail')
    expect(role('A.JPG', 512 * 1024 + 1)).toBe('sidecar')
    expect(role('A.XML', 10)).toBe('sidecar')
  })

  it('is said in words', () => {
    const words = (...counts: [FileRole, number][]) => companionWords(new Map(counts))
    expect(words()).toBe('')
    expect(words(['sidecar', 0])).toBe('')
    expect(words(['sidecar', 1])).toBe('sidecar')
    expect(words(['sidecar', 2], ['thumbnail', 1], ['camera-proxy', 1])).toBe('camera proxy, thumbnail and 2 sidecars')
    expect(words(['picture', 2], ['sound', 2], ['frames', 2], ['camera-proxy', 2], ['thumbnail', 2])).toBe(
      '2 pictures, 2 files of sound, 2 frames, 2 camera proxies and 2 thumbnails',
    )
    expect(words(['picture', 1], ['sound', 1], ['frames', 1])).toBe('picture, sound and frame')
  })
})

describe('a camera proxy', () => {
  it('is as long, smaller in bytes, and smaller in its frame or less than half in bytes', () => {
    const original = film('CLIP/A.MP4')
    const proxy = (more: Partial<MediaFile> = {}) => isMember(original, small('PROXY/A.MP4', more))
    expect(together(original, small('PROXY/A.MP4'))).toEqual(['CLIP/A.MP4 picture + PROXY/A.MP4 camera-proxy'])
    expect([30.5, 30.51, 29.5, 29.49].map((seconds) => proxy({ seconds }))).toEqual([true, false, true, false])
    expect(proxy({ sizeBytes: 400e6 - 1 })).toBe(true)
    expect(proxy({ sizeBytes: 400e6 })).toBe(false)
    const same = { framePx: original.framePx }
    expect([proxy({ ...same, sizeBytes: 200e6 - 1 }), proxy({ ...same, sizeBytes: 200e6 })]).toEqual([true, false])
    expect(proxy({ framePx: original.framePx + 1, sizeBytes: 1 })).toBe(false)
    expect(proxy({ isWrong: true })).toBe(false)
    // Where neither says when it was recorded, the length must bear it out.
    const untimed = { recordedMs: undefined }
    expect(
      [30.04, 30.06].map((seconds) => isMember(film('C/A.MP4', untimed), small('P/A.MP4', { ...untimed, seconds }))),
    ).toEqual([...[true, false]])
    expect(isMember(film('C/A.MP4', untimed), small('P/A.MP4', { seconds: 30.06 }))).toBe(false)
    const start = original.recordedMs ?? 0
    expect([2000, 2001, -2000, -2001].map((late) => proxy({ recordedMs: start + late }))).toEqual([
      true,
      false,
      true,
      false,
    ])
    expect([
      isMember(film('C/A.MP4', { seconds: 0 }), small('P/A.MP4', { seconds: 0 })),
      proxy({ seconds: 0 }),
    ]).toEqual([false, false])
  })

  it('may have another name with the same number at the same time, where it is the one such film', () => {
    const original = film('CLIP/GX010041.MP4')
    const other = (path: string, more: Partial<MediaFile> = {}) => isMember(original, small(path, more))
    expect(other('CLIP/GL010041.LRV')).toBe(true)
    expect(other('PROXY/GL010041.MP4')).toBe(true)
    expect(other('CLIP/GL010041.MP4')).toBe(false)
    expect(other('CLIP/GL010042.LRV')).toBe(false)
    expect(other('FAR/AWAY/GL010041.LRV')).toBe(false)
    expect(other('CLIP/GL010041.LRV', { recordedMs: undefined })).toBe(false)
    expect(other('CLIP/GL010041.LRV', { seconds: 31 })).toBe(false)
    expect(isMember(film('CLIP/A12.MP4'), small('CLIP/B12.LRV'))).toBe(false)
    // Of two originals nobody knows which.
    expect(together(original, film('CLIP/GX010041.MOV'), small('CLIP/GL010041.LRV'))).toHaveLength(3)
    expect(isMember(film('CLIP/X0041.MP4'), sound('CLIP/Y0041.WAV', { sizeBytes: 1, framePx: 1 }))).toBe(false)
  })

  it('of a proxy goes with the original, and what belongs to nobody stays alone', () => {
    expect(
      together(film('A.MP4'), small('A_1.MP4'), small('A_1_2.MP4', { framePx: 100, sizeBytes: 1e6 })),
    ).toHaveLength(1)
    expect(together(small('A.MP4'), film('B.MP4'))).toEqual(['A.MP4 picture', 'B.MP4 picture'])
  })
})

describe('sound beside a film', () => {
  it('belongs to a film of its name without sound, as long as it', () => {
    expect(together(film('A.MP4', mute), sound('A.WAV'))).toEqual(['A.MP4 picture + A.WAV sound'])
    expect(isMember(film('A.MP4'), sound('A.WAV'))).toBe(false)
    expect(isMember(film('A.MP4', mute), sound('B.WAV'))).toBe(false)
    expect(isMember(film('A.MP4', mute), sound('A.WAV', { seconds: 40 }))).toBe(false)
    expect(isMember(film('A.MP4', mute), sound('A.WAV', mute))).toBe(false)
    expect(isMember(sound('A.AAC', mute), sound('A.WAV'))).toBe(false)
  })

  it('in a file a channel is one take, numbered by name, with the mix last', () => {
    expect(together(sound('T1_TR2.WAV'), sound('T1_TR1.WAV'), sound('T1_LR.WAV', { sizeBytes: 17_280_044 }))).toEqual([
      'T1_TR1.WAV sound 1 + T1_TR2.WAV sound 2 + T1_LR.WAV sound 3',
    ])
    expect(together(sound('t-mix.wav', { sizeBytes: 9 }), sound('T-1.WAV'), sound('T-2.WAV'))).toHaveLength(1)
    expect(together(sound('T.L.WAV'), sound('T.R.WAV'))).toHaveLength(1)
    expect(together(sound('T ch01.WAV'), sound('T CH02.WAV'))).toHaveLength(1)
    expect(together(sound('T_100.WAV'), sound('T_101.WAV'))).toHaveLength(2)
    expect(together(sound('T_1.WAV'), sound('T_2.WAV', { sizeBytes: 9 }))).toHaveLength(2)
    expect(together(sound('T_1.WAV'), sound('T_2.WAV', { seconds: 31 }))).toHaveLength(2)
    expect(together(sound('T_1.WAV'), sound('T_2.WAV', { codec: 'pcm_s16le' }))).toHaveLength(2)
    expect(together(sound('A/T_1.WAV'), sound('B/T_2.WAV'))).toHaveLength(2)
    expect(together(sound('T_1.WAV'), sound('T_2.WAV', { isWrong: true }))).toHaveLength(2)
    expect(together(film('T_1.MP4'), film('T_2.MP4'))).toHaveLength(2)
    expect(together(sound('T_LR.WAV'), sound('T_1.WAV'))).toHaveLength(2)
    expect(together(sound('_1.WAV'), sound('_2.WAV'))).toHaveLength(2)
    expect(together(sound('T_mixed.WAV'), sound('T_1.WAV'), sound('T_2.WAV'))).toHaveLength(2)
  })
})

describe('a run of frames', () => {
  const run = {
    ...{ folder: 'POLE', before: 'pole_', behind: '.dng', first: 1, last: 3, missing: [], short: 0 },
    frames: [listed('POLE/pole_1.dng'), listed('POLE/pole_3.dng')],
    places: [0, 2],
  }

  it('is a clip of its frames, each at its place, with what stands beside the first', () => {
    const [clip] = clipsOf([], [run], new Map([['POLE/pole_1.dng', [listed('POLE/pole_1.xml')]]]))
    expect(clip).toEqual({
      main: 'POLE/pole_1.dng',
      files: [
        { path: 'POLE/pole_1.dng', role: 'frames', number: 0 },
        { path: 'POLE/pole_3.dng', role: 'frames', number: 2 },
        { path: 'POLE/pole_1.xml', role: 'sidecar', number: null },
      ],
      take: undefined,
    })
    expect(clipsOf([], [{ ...run, frames: [], places: [] }], new Map())[0]?.main).toBe('POLE')
    expect(clipsOf([], [{ ...run, places: [] }], new Map())[0]?.files.map(({ number }) => number)).toEqual([0, 1])
  })
})
