import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clipFindings } from '../findings/clipFindings'
import { clipsOf, companionsOf } from './clips'
import { chaptersOf, counterGaps } from './counters'
import { countOf, frameRuns, rangeWords } from './frameRuns'
import type { MediaFile } from './mediaFile'

const film = (path: string, more: Partial<MediaFile> = {}): MediaFile => ({
  path,
  sizeBytes: 400_000_000,
  hasVideo: true,
  hasSound: true,
  seconds: 30,
  framePx: 3840 * 2160,
  rate: 25,
  codec: 'h264',
  recordedMs: Date.parse('2026-11-14T09:00:00Z'),
  isWrong: false,
  ...more,
})
const small = (path: string, more: Partial<MediaFile> = {}) =>
  film(path, { framePx: 1280 * 720, sizeBytes: 20_000_000, ...more })
const sound = (path: string, more: Partial<MediaFile> = {}) =>
  film(path, { hasVideo: false, framePx: 0, rate: 0, codec: 'pcm_s24le', sizeBytes: 8_640_044, ...more })
const listed = (path: string, sizeBytes = 1000) => ({ path, sizeBytes, modifiedMs: 0 })

const gaps = (clips: readonly string[], others: readonly string[] = []) =>
  counterGaps(clips, others).map(({ after, before, missing }) => `${after}→${before}: ${missing}`)

describe('counters of any habit', () => {
  it('learns where the number stands from the folder itself', () => {
    expect(gaps(['CLIP1.MP4', 'CLIP2.MP4', 'CLIP4.MP4', 'CLIP10.MP4', 'CLIP11.MP4'])).toEqual([
      'CLIP2→CLIP4: 1',
      'CLIP4→CLIP10: 5',
    ])
    expect(gaps(['A001C001_K7.mxf', 'A001C002_Q1.mxf', 'A001C004_ZZ.mxf', 'A001C005_B2.mxf'])).toEqual([
      'A001C002_Q1→A001C004_ZZ: 1',
    ])
    expect(gaps(['take_0001_heron.mov', 'take_0002_heron.mov', 'take_0005_heron.mov'])).toEqual([
      'take_0002_heron→take_0005_heron: 2',
    ])
  })

  it('takes times of day for no counter', () => {
    expect(gaps(['20261114_101523.mp4', '20261114_101911.mp4', '20261114_111002.mp4'])).toEqual([])
    expect(gaps(['VID-2026-11-14-1.mp4', 'VID-2026-11-15-7.mp4'])).toEqual([])
  })

  it('counts takes, not the chapters they were split into', () => {
    const chapters = ['GX010034', 'GX020034', 'GX010035', 'GX010037', 'GX020037', 'GX030037']
    expect(gaps(chapters.map((name) => `DCIM/100CURLW/${name}.MP4`))).toEqual(['GX010035→GX010037: 1'])
    expect(chaptersOf(chapters.map((name) => `DCIM/100CURLW/${name}.MP4`))).toEqual([
      ['DCIM/100CURLW/GX010034.MP4', 'DCIM/100CURLW/GX020034.MP4'],
      ['DCIM/100CURLW/GX010037.MP4', 'DCIM/100CURLW/GX020037.MP4', 'DCIM/100CURLW/GX030037.MP4'],
    ])
    // Files that go on from one with another name have no counter of their own.
    expect(gaps(['XOPR0040', 'XP010040', 'XOPR0041', 'XOPR0042', 'XP010042'].map((name) => `${name}.MP4`))).toEqual([])
    expect(
      gaps(['M0050', 'M0050_001', 'M0051', 'M0053', 'M0053_001', 'M0053_002'].map((name) => `${name}.MP4`)),
    ).toEqual(['M0051→M0053: 1'])
    expect(chaptersOf(['T_0007_1.mov', 'T_0007_2.mov', 'T_0008_1.mov', 'T_0009_1.mov'])).toEqual([
      ['T_0007_1.mov', 'T_0007_2.mov'],
    ])
  })

  it('lets pictures and films share one counter, in one folder or over numbered folders', () => {
    const films = ['DCIM/100CURLW/CURL0041.MP4', 'DCIM/100CURLW/CURL0043.MP4', 'DCIM/101CURLW/CURL0045.MP4']
    expect(gaps(films)).toEqual(['CURL0041→CURL0043: 1', 'CURL0043→CURL0045: 1'])
    expect(gaps(films, ['DCIM/100CURLW/CURL0042.JPG', 'DCIM/101CURLW/CURL0044.JPG'])).toEqual([])
    expect(gaps(films, ['DCIM/100CURLW/STIL0042.JPG', 'DCIM/101CURLW/STIL0044.JPG'])).toEqual([])
    // A counter of stills alone is nobody's question here.
    expect(gaps([], ['DCIM/100CURLW/STIL0042.JPG', 'DCIM/101CURLW/STIL0044.JPG'])).toEqual([])
  })

  it('finds no hole in any unbroken run, wherever it begins and however it is named', () => {
    fc.assert(
      fc.property(
        fc.stringMatching(/^[A-Z]{1,6}[-_]?$/),
        fc.integer({ min: 3, max: 6 }),
        fc.integer({ min: 1, max: 999 }),
        fc.integer({ min: 3, max: 200 }),
        (prefix, width, start, length) => {
          const last = 10 ** width - 1
          const names = Array.from({ length }, (_, at) => {
            const number = ((start - 1 + at) % last) + 1
            return `CLIPS/${prefix}${String(number).padStart(width, '0')}.MOV`
          })
          expect(gaps(names)).toEqual([])
          const at = Math.floor(length / 2)
          if (length >= 5) expect(gaps(names.filter((_, place) => place !== at))).toHaveLength(1)
        },
      ),
    )
  })
})

describe('runs of frames', () => {
  const frames = (folder: string, numbers: readonly number[], ending = 'dng', size = 1000) =>
    numbers.map((number) => listed(`${folder}/pole_${String(number).padStart(6, '0')}.${ending}`, size))
  const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, at) => from + at)

  it('is one clip a run, with the numbers that are not there', () => {
    const there = range(1, 50).filter((number) => number !== 17 && number !== 31)
    const [run, ...more] = frameRuns(frames('POLE/TAKE01', there))
    expect(more).toEqual([])
    expect(run).toMatchObject({ folder: 'POLE/TAKE01', before: 'pole_', behind: '.dng', first: 1, last: 50, short: 0 })
    expect(run?.frames).toHaveLength(48)
    expect(rangeWords(run?.missing ?? [])).toBe('17, 31')
    expect(countOf(run?.missing ?? [])).toBe(2)
  })

  it('divides two takes of one name, and finds the frame that is too short', () => {
    const two = frameRuns(frames('POLE', [...range(1, 40), ...range(1001, 1060)], 'dpx'))
    expect(two.map(({ first, last }) => [first, last])).toEqual([
      [1, 40],
      [1001, 1060],
    ])
    const [cut] = frameRuns([...frames('POLE', range(1, 30), 'tif'), ...frames('POLE', [31], 'tif', 400)])
    expect(cut?.short).toBe(1)
    // Compressed frames have all sizes: none of them is short.
    const [packed] = frameRuns(range(1, 30).map((at) => listed(`POLE/p${at}.dng`, 1000 + at * 7)))
    expect(packed?.short).toBe(0)
  })

  it('leaves stills alone: a camera’s numbered folders, and a few pictures in any other', () => {
    expect(frameRuns(range(1, 60).map((at) => listed(`DCIM/100CURLW/CURL00${at + 10}.DNG`)))).toEqual([])
    expect(frameRuns(frames('HOLIDAY', range(1, 12), 'jpg'))).toEqual([])
    expect(frameRuns(frames('LAPSE', range(1, 200), 'jp2'))).toHaveLength(1)
  })

  it('stops a card until somebody has settled what is missing', () => {
    const found = clipFindings(
      [
        {
          ...{ path: 'POLE/pole_000001.dng', sizeBytes: 48_000, seconds: 2, recordedAt: undefined, pictureMade: true },
          ...{ trouble: undefined, hasPicture: true, cut: undefined },
          frames: {
            first: 1,
            last: 50,
            missing: [
              { from: 17, to: 17 },
              { from: 31, to: 31 },
            ],
            short: 0,
          },
        },
      ],
      undefined,
    )
    expect(found).toMatchObject([{ kind: 'frames-missing', weight: 'stop' }])
    expect(found[0]?.sentence).toContain('17, 31 of 1–50')
  })
})

describe('a clip is what the editor sees', () => {
  const assemble = (media: readonly MediaFile[], others: readonly string[] = []) =>
    clipsOf(
      media,
      [],
      companionsOf(
        media,
        others.map((path) => listed(path)),
      ),
    ).map(({ main, files, take }) => ({
      main,
      files: files.slice(1).map(({ path, role, number }) => `${role}${number ?? ''} ${path}`),
      take: take && `${take.part} of ${take.parts}`,
    }))

  it('gathers what a camera keeps in folders side by side', () => {
    expect(
      assemble(
        [film('CLIP/C0041.MXF'), small('SUB/C0041S03.MP4'), film('CLIP/C0042.MXF', { seconds: 12 })],
        ['CLIP/C0041M01.XML', 'THUMB/C0041T01.JPG', 'CLIP/C0042M01.XML', 'MEDIAPRO.XML'],
      ),
    ).toEqual([
      {
        main: 'CLIP/C0041.MXF',
        files: ['sidecar CLIP/C0041M01.XML', 'thumbnail THUMB/C0041T01.JPG', 'camera-proxy SUB/C0041S03.MP4'],
        take: undefined,
      },
      { main: 'CLIP/C0042.MXF', files: ['sidecar CLIP/C0042M01.XML'], take: undefined },
    ])
  })

  it('takes a small film for a camera proxy only where length and time bear the name out', () => {
    const original = film('CLIP/C0041.MXF')
    const alone = (other: MediaFile) => assemble([original, other]).length === 2
    expect(alone(small('SUB/C0041S03.MP4', { seconds: 21 }))).toBe(true)
    expect(alone(small('SUB/C0041S03.MP4', { recordedMs: (original.recordedMs ?? 0) + 90_000 }))).toBe(true)
    expect(alone(small('SUB/C0041S03.MP4', { recordedMs: undefined, seconds: 30.3 }))).toBe(true)
    expect(alone(small('SUB/C0041S03.MP4', { recordedMs: undefined, seconds: 30.02 }))).toBe(false)
    expect(alone(small('SUB/C00410.MP4'))).toBe(true)
    // One whose end is missing is not hidden behind its original.
    expect(alone(small('SUB/C0041S03.MP4', { isWrong: true }))).toBe(true)
    // Another name with the same number, at the same time and as long.
    expect(alone(small('PRX/P0041.MP4'))).toBe(false)
    expect(alone(small('PRX/P0041.MP4', { recordedMs: undefined }))).toBe(true)
    // Two films of the same name that are as large as one another are two films.
    expect(alone(film('OTHER/C0041.MXF'))).toBe(true)
  })

  it('keeps sound beside a silent picture, and one recorder’s channels, as one clip', () => {
    expect(
      assemble([
        film('VIDEO/0001AB.MXF', { hasSound: false }),
        sound('AUDIO/0001AB00.MXF', { seconds: 30 }),
        sound('AUDIO/0001AB01.MXF', { seconds: 30 }),
      ]),
    ).toEqual([
      {
        main: 'VIDEO/0001AB.MXF',
        files: ['sound AUDIO/0001AB00.MXF', 'sound AUDIO/0001AB01.MXF'],
        take: undefined,
      },
    ])
    expect(
      assemble([sound('TAKES/FLD1_Tr1.WAV'), sound('TAKES/FLD1_Tr2.WAV'), sound('TAKES/FLD2_Tr1.WAV', { seconds: 9 })]),
    ).toEqual([
      { main: 'TAKES/FLD1_Tr1.WAV', files: ['sound2 TAKES/FLD1_Tr2.WAV'], take: undefined },
      { main: 'TAKES/FLD2_Tr1.WAV', files: [], take: undefined },
    ])
    expect(assemble([sound('TAKES/FLD5_ChL.WAV'), sound('TAKES/FLD5_ChR.WAV')])).toEqual([
      { main: 'TAKES/FLD5_ChL.WAV', files: ['sound2 TAKES/FLD5_ChR.WAV'], take: undefined },
    ])
    // The mix that a recorder writes beside its channels goes with them, and alone stands for itself.
    const mix = (path: string) => sound(path, { sizeBytes: 17_280_044 })
    expect(
      assemble([
        mix('TAKES/FLD3_LR.WAV'),
        sound('TAKES/FLD3_1.WAV'),
        sound('TAKES/FLD3_2.WAV'),
        mix('TAKES/FLD4_LR.WAV'),
      ]),
    ).toEqual([
      { main: 'TAKES/FLD3_1.WAV', files: ['sound2 TAKES/FLD3_2.WAV', 'sound3 TAKES/FLD3_LR.WAV'], take: undefined },
      { main: 'TAKES/FLD4_LR.WAV', files: [], take: undefined },
    ])
    // Another first letter and another ending, but the same number, time and length: the camera's own small film.
    expect(assemble([film('DCIM/GX010041.MP4'), small('DCIM/GL010041.LRV'), small('DCIM/GL010042.LRV')])).toEqual([
      { main: 'DCIM/GX010041.MP4', files: ['camera-proxy DCIM/GL010041.LRV'], take: undefined },
      { main: 'DCIM/GL010042.LRV', files: [], take: undefined },
    ])
  })

  it('knows a take that the camera split, by its chapters or by its size', () => {
    const start = Date.parse('2026-11-14T09:00:00Z')
    const named = ['GX010034', 'GX020034', 'GX010035'].map((name) => film(`DCIM/100CURLW/${name}.MP4`))
    expect(assemble(named).map(({ take }) => take)).toEqual(['1 of 2', '2 of 2', undefined])
    const full = { sizeBytes: 4_294_967_295, seconds: 340 }
    const split = [
      film('STREAM/00000.MTS', { ...full, recordedMs: start }),
      film('STREAM/00001.MTS', { ...full, recordedMs: start + 340_200 }),
      film('STREAM/00002.MTS', { recordedMs: start + 680_100, seconds: 20 }),
      film('STREAM/00003.MTS', { recordedMs: start + 700_100, seconds: 20 }),
    ]
    expect(assemble(split).map(({ take }) => take)).toEqual(['1 of 3', '2 of 3', '3 of 3', undefined])
  })

  it('takes a file for split from 1.9 GB on, where the next one begins within a second and a half of its end', () => {
    // Common practice, no source: cameras stop at two gigabytes, file systems at four.
    const start = Date.parse('2026-11-14T09:00:00Z')
    const parts = (sizeBytes: number, lateMs: number, rate = 25) =>
      assemble([
        film('STREAM/00000.MTS', { sizeBytes, seconds: 100, recordedMs: start }),
        film('STREAM/00001.MTS', { seconds: 20, recordedMs: start + 100_000 + lateMs, rate }),
      ]).map(({ take }) => take)
    const split = ['1 of 2', '2 of 2']
    expect(parts(1_900_000_000, 0)).toEqual(split)
    expect(parts(1_899_999_999, 0)).toEqual([undefined, undefined])
    expect([parts(2e9, 1500), parts(2e9, -1500)]).toEqual([split, split])
    expect([parts(2e9, 1501), parts(2e9, -1501)].flat()).toEqual([undefined, undefined, undefined, undefined])
    expect(parts(2e9, 0, 50)).toEqual([undefined, undefined])
  })

  it('knows a take whose first file is named otherwise than those that go on from it', () => {
    const start = Date.parse('2026-11-14T09:00:00Z')
    const at = (name: string, seconds: number, more: Partial<MediaFile> = {}) =>
      film(`DCIM/100CURLW/${name}.MP4`, { recordedMs: start + seconds * 1000, ...more })
    const takes = (...media: MediaFile[]) =>
      assemble(media).map(({ main, take }) => `${main.slice(14, -4)} ${take ?? 'alone'}`)
    expect(takes(at('M0050', 0), at('M0050_001', 30), at('M0050_002', 60, { seconds: 7 }), at('M0051', 90))).toEqual([
      ...['M0050 1 of 3', 'M0050_001 2 of 3', 'M0050_002 3 of 3', 'M0051 alone'],
    ])
    // Some cameras give every part the time of the first.
    const last = { seconds: 12, sizeBytes: 9_000_000 }
    expect(takes(at('XOPR0040', 0), at('XP010040', 0), at('XP020040', 0, last), at('XOPR0041', 90))).toEqual([
      ...['XOPR0040 1 of 3', 'XP010040 2 of 3', 'XP020040 3 of 3', 'XOPR0041 alone'],
    ])
    const alone = (...media: MediaFile[]) => takes(...media).every((take) => take.endsWith('alone'))
    // Begun later than the first ended, in another mode, a number left out, or another take of that name.
    expect(alone(at('M0050', 0), at('M0050_001', 90))).toBe(true)
    expect(alone(at('M0050', 0), at('M0050_001', 30, { rate: 50 }))).toBe(true)
    expect(alone(at('XOPR0040', 0), at('XP020041', 30))).toBe(true)
    expect(alone(at('M0050', 0), at('M0050_003', 30))).toBe(true)
    // A second copy, as programs name it.
    expect(alone(at('M0050', 0), at('M0050_1', 0))).toBe(true)
    expect(alone(at('M0050', 0), at('M0050_01', 0))).toBe(true)
    const full = { sizeBytes: 4_294_967_295, seconds: 340 }
    expect(alone(at('M0050', 0, full), at('M0050_001', 0, full))).toBe(false)
    const noTime = { recordedMs: undefined }
    expect(alone(at('M0050', 0, noTime), at('M0050_1', 0, { ...noTime, seconds: 9 }))).toBe(true)
  })

  it('never loses a file and never gives one to two clips', () => {
    const name = fc.constantFrom(
      'C0041',
      'C0042',
      'C0041S03',
      'P0041',
      'C00410',
      'GX010041',
      'GX020041',
      'T_1',
      'T_2',
      'T',
      'GOPQ0041',
    )
    const media = fc.record({
      folder: fc.constantFrom('A/CLIP', 'A/SUB', 'A', 'B/CLIP'),
      name,
      ending: fc.constantFrom('MP4', 'MXF'),
      seconds: fc.constantFrom(30, 30.02, 12),
      px: fc.constantFrom(0, 921_600, 8_294_400),
      size: fc.constantFrom(100, 1000, 2_000_000_000),
      time: fc.constantFrom(undefined, 0, 30_000),
    })
    fc.assert(
      fc.property(
        fc.uniqueArray(media, { maxLength: 12, selector: (one) => `${one.folder}/${one.name}.${one.ending}` }),
        (list) => {
          const files = list.map(({ folder, name: stem, ending, seconds, px, size, time }) =>
            film(`${folder}/${stem}.${ending}`, {
              ...{ seconds, framePx: px, sizeBytes: size, recordedMs: time },
              ...{ hasVideo: px > 0, hasSound: size > 100 },
            }),
          )
          const clips = clipsOf(files, [], new Map())
          const paths = clips.flatMap((clip) => clip.files.map(({ path }) => path))
          expect(paths.sort()).toEqual(files.map(({ path }) => path).sort())
          expect(clips.every(({ main, files: own }) => own[0]?.path === main)).toBe(true)
        },
      ),
    )
  })
})
