import { describe, expect, it } from 'vitest'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { DESTINATIONS } from '../exports/destination'
import { frameRate } from '../units/frameRate'
import { framingAnswer, framingSentence, middleThird, middleWindow, sharedWindow } from './framing'
import { cardState, isUsable, type GearCard } from './gear'
import { likelyGear } from './loadGear'
import { expandedBytes, measuredSentence, offloadSeconds, recordedBitsPerSecond } from './measured'
import { modeOfFacts } from './modeOfClip'
import { packTakes } from './pack'
import {
  neededSpeedClass,
  recordingBytes,
  recordingSeconds,
  shutterFor,
  speedClassOf,
  speedListOf,
  speedSentence,
} from './recording'

const card = (name: string, more: Partial<GearCard> = {}): GearCard => ({
  ...{ id: name, name, capacityBytes: 128e9, bytesPerSecond: 30e6, state: 'empty' },
  ...more,
})

describe('a stream', () => {
  it('needs a class, and fills a card', () => {
    expect([48e6, 48e6 + 8, 720e6, 4800e6, 4800e6 + 8].map(neededSpeedClass)).toEqual([
      'V6',
      'V10',
      'V90',
      'E600',
      undefined,
    ])
    expect([5e6, 6e6, 75e6, 90e6, 149e6, 9e9].map(speedClassOf)).toEqual([
      '5.00 MB/s',
      'V6',
      'V60',
      'V90',
      'V90',
      'E600',
    ])
    expect([speedListOf('V30'), speedListOf('E300')]).toEqual([
      'video speed classes V6 to V90',
      'express speed classes E150 to E600',
    ])
    expect([speedSentence(600e6), speedSentence(5e9)]).toMatchInlineSnapshot(`
      [
        "75.0 MB/s needs V90 (video speed classes V6 to V90)",
        "625 MB/s is above every published class, E600 included: use media whose maker states a sustained write of that much",
      ]
    `)
    expect([recordingBytes(100e6, 3600), recordingBytes(9, 1), recordingSeconds(128e9, 100e6)]).toEqual([
      45e9, 2, 10_240,
    ])
    expect([frameRate(24), frameRate(25), frameRate(120)].map(shutterFor)).toEqual([
      { exact: 48, stop: 50 },
      { exact: 50, stop: 50 },
      { exact: 240, stop: 250 },
    ])
  })

  it('is learned from what was recorded', () => {
    const of = (value: number, guessed = false) => ({
      camera: 'Curlew',
      mode: '4K',
      inUse: 100,
      learned: { value, guessed },
    })
    expect([
      measuredSentence([of(120, true)]),
      measuredSentence([of(100)]),
      measuredSentence([of(100), of(120)]),
      measuredSentence([of(120), of(80)]),
      measuredSentence([of(120), of(80), of(70)]),
    ]).toMatchInlineSnapshot(`
      [
        "Nothing of this plan was measured yet.",
        "The gear book uses the measured figures.",
        "4K of Curlew takes 20.0 % more than it is planned with.",
        "4K of Curlew takes 20.0 % more than it is planned with, and 1 other mode differs.",
        "4K of Curlew takes 20.0 % more than it is planned with, and 2 other modes differ.",
      ]
    `)
    expect([
      expandedBytes(3, 1.5),
      offloadSeconds(512e9, 47.4e6),
      recordedBitsPerSecond({ label: '', sizeBytes: 100, seconds: 2 }),
    ]).toEqual([5, 512e9 / 47.4e6, 400])
  })

  it('is that of a clip', () => {
    const facts = testFacts({ video: testPicture(), audio: testSound() })
    const of = (more: Parameters<typeof testFacts>[0], bytes = 20e6) => modeOfFacts(testFacts(more), bytes)
    expect(modeOfFacts(facts, 20e6)).toMatchInlineSnapshot(`
      {
        "audioBitsPerSecond": 192000,
        "measuredBitsPerSecond": 40000000,
        "name": "3840×2160 at 25, H.264",
        "picture": {
          "bitDepth": 8,
          "chroma": "4:2:0",
          "codec": "H.264",
          "coding": {
            "bitsPerSecond": 39808000,
            "kind": "coded",
          },
          "heightPx": 2160,
          "rate": {
            "den": 1,
            "num": 25,
          },
          "widthPx": 3840,
        },
        "proxyBitsPerSecond": 0,
      }
    `)
    expect(of({ seconds: 0 })).toBeUndefined()
    expect(of({ video: undefined, audio: testSound({ bitsPerSecond: 0, bits: 24 }), seconds: 4 })).toMatchObject({
      ...{ name: 'AAC, 2 channels', picture: undefined, audioBitsPerSecond: 2 * 48_000 * 24 },
    })
    expect(of({ video: undefined, audio: undefined, seconds: 4 })?.name).toBe('Sound')
    expect(of({ audio: testSound({ bitsPerSecond: 0, bits: undefined }) })?.audioBitsPerSecond).toBe(2 * 48_000 * 16)
    expect(of({ video: testPicture({ bitDepth: undefined, chroma: 'RGB' }) })?.picture).toMatchObject({
      bitDepth: 8,
      chroma: '4:4:4',
    })
    expect(of({}, 1)?.picture?.coding).toEqual({ kind: 'coded', bitsPerSecond: 1000 })
  })
})

describe('framing', () => {
  const uhd = { widthPx: 3840, heightPx: 2160 }
  const to = (id: string) => DESTINATIONS.filter((one) => one.id === id)

  it('says what can be cut', () => {
    const said = (frame: typeof uhd, ...ids: string[]) => {
      const answers = ids.flatMap(to).map((one) => framingAnswer(frame, one))
      return [framingSentence(answers), ...answers.map((one) => one.sentence)]
    }
    expect([
      said(uhd),
      said(uhd, 'wide-watch'),
      said(uhd, 'wide-watch', 'tall-short'),
      said({ widthPx: 1920, heightPx: 1080 }, 'wide-watch', 'tall-short'),
      said({ widthPx: 1280, heightPx: 720 }, 'wide-watch', 'tall-short'),
    ]).toMatchInlineSnapshot(`
      [
        [
          "Choose what will be delivered.",
        ],
        [
          "All of them fill their frame without inventing pixels.",
          "Frame as usual; it can be enlarged to 200.0 % without inventing pixels.",
        ],
        [
          "All of them can be cut without inventing pixels: frame 3.16 times wider, subject in the middle third.",
          "Frame as usual; it can be enlarged to 200.0 % without inventing pixels.",
          "Frame 3.16 times wider than for the whole frame; it can be enlarged to 112.5 % without inventing pixels.",
        ],
        [
          "Tall short would be blown up; the rest can be cut without inventing pixels.",
          "Frame as usual; no room to enlarge.",
          "Pixels are invented: 177.7 %. Record a larger frame, or turn the camera.",
        ],
        [
          "None of them can be cut without inventing pixels.",
          "Pixels are invented: 150.0 %. Record a larger frame, or turn the camera.",
          "Pixels are invented: 266.6 %. Record a larger frame, or turn the camera.",
        ],
      ]
    `)
  })

  it('keeps what all of them show in sight', () => {
    expect(middleWindow(uhd, { widthPx: 1080, heightPx: 1920 })).toEqual({
      x: 1312,
      y: 0,
      widthPx: 1214,
      heightPx: 2160,
    })
    expect(middleThird({ widthPx: 3840, heightPx: 2160 })).toEqual({ x: 1280, y: 0, widthPx: 1280, heightPx: 2160 })
    const both = ['wide-watch', 'tall-short'].flatMap(to).map((one) => framingAnswer(uhd, one))
    expect(sharedWindow(both)).toEqual({ x: 1312, y: 0, widthPx: 1214, heightPx: 2160 })
    expect(sharedWindow([])).toBeUndefined()
    const [wide, tall] = both
    const apart = tall && { ...tall, window: { ...tall.window, x: 9000 } }
    expect(wide && apart && sharedWindow([wide, apart])).toBeUndefined()
    const below = tall && { ...tall, window: { ...tall.window, y: 9000 } }
    expect(wide && below && sharedWindow([wide, below])).toBeUndefined()
  })
})

describe('gear', () => {
  it('of the day is usable while it is empty or clear, and nobody else counts on it', () => {
    const load = (sizeBytes: number, more = {}) => ({ sizeBytes, formatted: false, clear: false, ...more })
    expect(
      [undefined, load(9, { formatted: true }), load(9, { clear: true }), load(89), load(90)].map((one) =>
        cardState(100, one, 0.9),
      ),
    ).toEqual([...['empty', 'empty', 'clear', 'in-use', 'full']])
    expect((['empty', 'in-use', 'full', 'clear'] as const).map((state) => isUsable(card('A', { state })))).toEqual([
      true,
      false,
      false,
      true,
    ])
    expect(isUsable(card('A', { promisedTo: 'Launch day' }))).toBe(false)
  })

  it('of a load is guessed by its name, else by the plan', () => {
    const clues = (label: string, cardIds?: string[]) =>
      likelyGear({
        label,
        cards: [
          { id: '1', name: 'Curlew A' },
          { id: '2', name: 'Pool 7' },
        ],
        cameras: [
          { id: 'c', name: 'Curlew' },
          { id: 't', name: 'Teal' },
        ],
        plan: cardIds && ({ cameras: [{ cameraId: 't', cardIds }] } as never),
      })
    expect(clues(' curlew a ')).toEqual({ cardId: '1', cameraId: undefined })
    expect(clues('Curlew A (2)')).toEqual({ cardId: '1', cameraId: 'c' })
    expect(clues('Pool 7', ['2'])).toEqual({ cardId: '2', cameraId: 't' })
    expect(clues('Teal 3', ['2'])).toEqual({ cardId: undefined, cameraId: 't' })
    expect(clues('Unknown', [])).toEqual({ cardId: undefined, cameraId: undefined })
  })

  it('is packed whole, the longest take first, over empty cards only where the camera does that', () => {
    expect(packTakes([{ bytes: 5, count: 3 }], [9, 9], false)).toEqual({
      filled: [5, 5],
      open: [{ bytes: 5, count: 1 }],
    })
    expect(
      packTakes(
        [
          { bytes: 2, count: 1 },
          { bytes: 7, count: 1 },
        ],
        [9],
        false,
      ),
    ).toEqual({ filled: [9], open: [] })
    expect(packTakes([{ bytes: 0, count: 9 }], [9], false)).toEqual({ filled: [0], open: [] })
    expect(packTakes([{ bytes: 5, count: 3 }], [], false, 9)).toEqual({ filled: [5, 5, 5], open: [] })
    expect(packTakes([{ bytes: 20, count: 1 }], [9], true, 9)).toEqual({ filled: [9, 9, 2], open: [] })
    expect(packTakes([{ bytes: 20, count: 1 }], [9], false, 9)).toEqual({
      filled: [0],
      open: [{ bytes: 20, count: 1 }],
    })
    expect(packTakes([{ bytes: 20, count: 1 }], [9, 9], true)).toEqual({
      filled: [0, 0],
      open: [{ bytes: 20, count: 1 }],
    })
    expect(packTakes([{ bytes: 9, count: 1e6 }], [], false, 9).filled).toHaveLength(2000)
  })
})
