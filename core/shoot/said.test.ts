import { describe, expect, it } from 'vitest'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { DESTINATIONS } from '../exports/destination'
import { frameRate, type FrameRate } from '../units/frameRate'
import { batteriesFor, carryList, carrySentence } from './carry'
import { clockOf, dayWarnings, daySentence, inOrder, minutesOf, type Day } from './day'
import { framingAnswer, framingSentence, middleThird, middleWindow, sharedWindow } from './framing'
import { cardState, isUsable, type Camera, type GearCard } from './gear'
import { likelyGear } from './loadGear'
import {
  differenceWords,
  differsFromPlan,
  expandedBytes,
  learn,
  measuredSentence,
  offloadSeconds,
  outlying,
  recordedBitsPerSecond,
} from './measured'
import type { RecordingMode } from './mode'
import { modeOfFacts } from './modeOfClip'
import { MOST_CARDS, packTakes } from './pack'
import type { CameraBudget, PlanBudget } from './plan'
import { commonTimeline, rateAnswer, steadyShutters, usualRates } from './rates'
import {
  neededSpeedClass,
  recordingBytes,
  recordingSeconds,
  shutterFor,
  speedClassOf,
  speedListOf,
  speedSentence,
} from './recording'
import { planAnswer } from './sentence'
import { shortages } from './shortages'

const camera: Camera = {
  ...{
    id: 'c',
    name: 'Curlew',
    kind: 'camera',
    media: 'cards',
    internalBytes: 64e9,
    slots: 1,
    spans: true,
    batteryMinutes: 0,
  },
  modes: [],
}
const card = (name: string, more: Partial<GearCard> = {}): GearCard => ({
  ...{ id: name, name, capacityBytes: 128e9, bytesPerSecond: 30e6, state: 'empty' },
  ...more,
})
const mode = { name: '4K 25' } as RecordingMode
const budgetOf = (more: Partial<CameraBudget> = {}): CameraBudget => ({
  ...{
    camera,
    planned: { cardBytes: 128e9 } as CameraBudget['planned'],
    rows: [{ mode } as CameraBudget['rows'][number]],
    seconds: 3600,
  },
  ...{
    sizeBytes: 45e9,
    bytesPerSecond: 75e6,
    neededClass: 'V90',
    cards: [],
    needed: 1,
    missing: 0,
    missingBytes: 128e9,
  },
  ...{ openBytes: 0, openTakes: [], longerThanCard: false, sure: true, internalShort: 0 },
  ...more,
})
const planOf = (more: Partial<PlanBudget>, ...cameras: CameraBudget[]): PlanBudget => ({
  ...{ cameras, sizeBytes: 45e9, cards: 1, missing: 0, tooSlow: [], notClear: [], promised: [], tapeSeconds: 0 },
  ...more,
})
const inCamera = (
  name: string,
  trouble?: 'too-slow' | 'not-clear' | 'promised',
  spare = false,
  more: Partial<GearCard> = {},
) => ({ card: card(name, more), trouble, spare }) as CameraBudget['cards'][number]

describe('what is short', () => {
  it('is said of each card and camera, the gravest first', () => {
    const said = (...budgets: CameraBudget[]) =>
      shortages(planOf({}, ...budgets)).map(({ kind, sentence }) => `${kind}: ${sentence}`)
    const all = budgetOf({
      cards: [
        inCamera('A'),
        inCamera('B', 'promised', false, { promisedTo: 'Launch day' }),
        inCamera('C', 'not-clear'),
        inCamera('D', 'too-slow'),
      ],
      ...{ missing: 2, openBytes: 5e9, longerThanCard: true, internalShort: 1e9 },
    })
    expect(said(budgetOf())).toEqual([])
    expect(said(all)).toMatchInlineSnapshot(`
      [
        "too-slow: D is too slow for Curlew: it writes 30.0 MB/s, and 75.0 MB/s need V90.",
        "not-clear: C still holds clips that are not safe: prove them first, or take another card.",
        "promised: B is planned for Launch day on the same day.",
        "longer-than-card: A take of Curlew is longer than a card of 128 GB, and it stops at a full one.",
        "internal: Curlew holds 64.0 GB, and 1.00 GB more are planned: empty it in between, or plan less.",
        "missing: Curlew lacks 2 cards of 128 GB for 5.00 GB.",
      ]
    `)
    expect(
      said(
        budgetOf({ missing: 1, sure: false }),
        budgetOf({ cards: [inCamera('D', 'too-slow')], neededClass: undefined }),
      ),
    ).toMatchInlineSnapshot(`
      [
        "too-slow: D is too slow for Curlew: it writes 30.0 MB/s, and 75.0 MB/s need a card above every published class.",
        "missing: Curlew perhaps lacks 1 card of 128 GB, the spare.",
      ]
    `)
  })

  it('is counted in one sentence', () => {
    const say = (more: Partial<PlanBudget>, ...cameras: CameraBudget[]) => planAnswer(planOf(more, ...cameras)).sentence
    const [one, two] = [[inCamera('A')], [inCamera('A'), inCamera('B')]]
    expect([
      say({ tooSlow: one }, budgetOf()),
      say({ tooSlow: two, notClear: one }, budgetOf()),
      say({ tooSlow: one, notClear: two, promised: one }, budgetOf()),
      say({ missing: 1 }, budgetOf({ missing: 1 })),
      say({ missing: 3 }, budgetOf({ missing: 3, sure: false })),
      say({ missing: 13 }, budgetOf({ missing: 13 })),
      say({}, budgetOf({ longerThanCard: true })),
      say({}, budgetOf({ internalShort: 1 })),
      say({ notClear: one, missing: 1 }, budgetOf({ longerThanCard: true, missing: 1 })),
    ]).toMatchInlineSnapshot(`
      [
        "One card is too slow.",
        "Two cards are too slow and one is not clear.",
        "One card is too slow, two are not clear and one is planned for another shoot of that day.",
        "One more card is needed.",
        "Perhaps three more cards are needed.",
        "13 more cards are needed.",
        "A take is longer than its card.",
        "An internal medium is too small.",
        "One card is not clear, one more card is needed and a take is longer than its card.",
      ]
    `)
    const fits = (more: Partial<PlanBudget>, cards: CameraBudget['cards']) => {
      const { sentence, why } = planAnswer(planOf(more, budgetOf({ cards })))
      return `${sentence} ${why}`
    }
    expect([
      fits({ cards: 2 }, [inCamera('A'), inCamera('B', undefined, true)]),
      fits({ cards: 3 }, []),
      fits({ cards: 0 }, []),
    ]).toMatchInlineSnapshot(`
      [
        "Every take has its card: 2 cards for 45.0 GB. 1 card to spare. None is filled above the limit, none is used twice.",
        "Every take has its card: 3 cards for 45.0 GB. None is filled above the limit, none is used twice.",
        "The day comes to 45.0 GB, and every device has room for it. No cards are needed.",
      ]
    `)
  })
})

describe('the carry list', () => {
  it('names everything, and what is not ready', () => {
    const plan = planOf(
      { tapeSeconds: 3600 },
      budgetOf({
        camera: { ...camera, batteryMinutes: 50 },
        cards: [
          inCamera('A'),
          inCamera('B', undefined, true),
          inCamera('C', 'too-slow'),
          inCamera('D', 'not-clear', false, { state: 'full' }),
          inCamera('E', 'promised', false, { promisedTo: 'Launch day' }),
        ],
        missing: 2,
      }),
      budgetOf({ camera: { ...camera, name: 'Field', kind: 'recorder' } }),
      budgetOf({ camera: { ...camera, name: 'Deck', kind: 'deck' } }),
      budgetOf({ camera: { ...camera, name: 'Teal', kind: 'phone', batteryMinutes: 120 } }),
    )
    const said = carryList(plan).map(({ title, lines }) => [
      title,
      ...lines.map(({ what, more, open }) => `${open ? '!' : ' '} ${what}${more && `: ${more}`}`),
    ])
    expect(said).toMatchInlineSnapshot(`
      [
        [
          "Cards",
          "  A: 128 GB, into Curlew",
          "  B: 128 GB, spare for Curlew",
          "! C: too slow for Curlew: leave it at home",
          "! D: full and unproved",
          "! E: planned for Launch day on the same day",
          "! 2 cards of 128 GB: still to be found for Curlew",
        ],
        [
          "Cameras",
          "  Curlew: 4K 25; 3 batteries",
          "  Teal: 4K 25; 2 batteries",
        ],
        [
          "Sound",
          "  Field: 4K 25",
        ],
        [
          "Tape",
          "  Deck: 4K 25",
          "  Tapes of 1 h in all: capture takes as long as the tape",
        ],
        [
          "For the evening",
          "  Card reader and its cable",
          "  Two drives for two copies: they travel apart",
        ],
      ]
    `)
    expect(carrySentence(carryList(plan))).toBe('4 things on the list are not ready.')
    const one = carryList(planOf({}, budgetOf({ cards: [inCamera('C', 'too-slow')] })))
    expect(carrySentence(one)).toBe('1 thing on the list is not ready.')
    expect(carrySentence(carryList(planOf({})))).toBe('Everything on the list is in the gear book: 2 things.')
    expect(carrySentence([])).toBe('Nothing is planned yet.')
    // As long as they last, and one more.
    expect([3600, 3601, 0].map((seconds) => batteriesFor(seconds, 60))).toEqual([2, 3, 1])
  })
})

describe('the day', () => {
  const day = (more: Partial<Day>): Day => ({
    ...{ shootOn: '2026-11-14', timeZone: 'Europe/London', calls: [], takeSeconds: 0, clocksOff: [] },
    ...more,
  })
  const call = (at: string, what: string, minutes: number) => ({ at, what, minutes })

  it('is warned of', () => {
    expect(dayWarnings(day({}))).toEqual([])
    expect([
      dayWarnings(day({ calls: [call('23:00', 'Night', 90), call('09:00', 'Ribs', 60), call('09:30', 'Hull', 30)] })),
      dayWarnings(day({ calls: [call('23:00', 'Night', 60), call('09:00', 'Ribs', 30), call('09:30', 'Hull', 30)] })),
      dayWarnings(day({ clocksOff: [{ camera: 'Curlew', load: 'Curlew A' }] })),
      dayWarnings(day({ shootOn: '2026-03-29' })),
      dayWarnings(day({ shootOn: '2026-10-25' })),
      dayWarnings(day({ shootOn: null })),
      dayWarnings(day({ calls: [call('09:00', 'Ribs', 60)], takeSeconds: 3600 })),
      dayWarnings(day({ calls: [call('09:00', 'Ribs', 60)], takeSeconds: 3601 })),
      dayWarnings(day({ calls: [call('x', 'Ribs', 60)], takeSeconds: 3601 })),
    ]).toMatchInlineSnapshot(`
      [
        [
          "“Night” goes on past midnight (23:00 to 00:30): its clips carry two dates. Keep them on one card, and look for them under both days.",
          "“Ribs” lasts longer than until the next call.",
        ],
        [],
        [
          "The clock of Curlew was off last time (“Curlew A”): set it before the first take, after every battery, too.",
        ],
        [
          "The clocks of Europe/London go forward by 1 h on that day: set cameras to one time, and leave them on it.",
        ],
        [
          "The clocks of Europe/London go back by 1 h on that day: set cameras to one time, and leave them on it.",
        ],
        [],
        [],
        [
          "The planned takes alone last 1 h 1 s, and the calls give 1 h in all.",
        ],
        [],
      ]
    `)
  })

  it('is said in one sentence', () => {
    const say = (more: Partial<Day>, warnings: string[] = []) => daySentence(day(more), warnings)
    expect([
      say({}),
      say({ shootOn: null }, ['a']),
      say({ calls: [call('10:00', 'Hull', 1), call('09:00', 'Ribs', 1)] }, ['a', 'b']),
      say({ calls: [call('09:00', ' ', 1)] }),
    ]).toMatchInlineSnapshot(`
      [
        "The day is 2026-11-14.",
        "No day is set yet. 1 thing to check before.",
        "The day is 2026-11-14; it begins at 09:00 with “Ribs”. 2 things to check before.",
        "The day is 2026-11-14; it begins at 09:00.",
      ]
    `)
    expect(inOrder([call('x', 'c', 1), call('10:00', 'b', 1), call('9.05', 'a', 1)]).map(({ what }) => what)).toEqual([
      'a',
      'b',
      'c',
    ])
    expect(
      ['00:00', '23:59', '9h05', ' 9:05 ', '24:00', '12:60', '12', '12:5', 'x12:00', '12:00x'].map(minutesOf),
    ).toEqual([...[0, 1439, 545, 545, ...Array.from({ length: 6 }, () => undefined)]])
    expect([0, 545, 1439, 1440, 1505].map(clockOf)).toEqual(['00:00', '09:05', '23:59', '00:00', '01:05'])
  })
})

describe('rates', () => {
  it('say what they are good for, at which shutter, under which lamps', () => {
    const said = (num: number, timeline: FrameRate, mains: 50 | 60, den = 1) =>
      rateAnswer(frameRate(num, den), timeline, mains).sentence
    const pal = frameRate(25)
    expect([
      said(25, pal, 50),
      said(50, pal, 50),
      said(120, pal, 50),
      said(24, pal, 60),
      said(30, pal, 50),
      said(240, frameRate(24), 60),
      said(30_000, frameRate(30_000, 1001), 60, 1001),
      said(100, pal, 50),
    ]).toMatchInlineSnapshot(`
      [
        "25 plays as it is. 1/50 is steady under lamps on 50 Hz.",
        "50 plays 2 times slower on 25, or at its own speed with every second frame. 1/100 is steady under lamps on 50 Hz.",
        "120 plays 4.8 times slower on 25; at its own speed frames would be dropped unevenly. A frame is shorter than a pulse of lamps on 50 Hz: no shutter is steady, use daylight or lamps made for it.",
        "24 has fewer frames than 25: at its own speed frames are shown twice. Film at 25 instead. 1/50 is steady under lamps on 60 Hz.",
        "30 plays 1.2 times slower on 25; at its own speed frames would be dropped unevenly. 1/60 flickers under lamps on 50 Hz: set 1/50 or 1/100, or light without them.",
        "240 plays 10 times slower on 24, or at its own speed with every 10th frame. A frame is shorter than a pulse of lamps on 60 Hz: no shutter is steady, use daylight or lamps made for it.",
        "29.97 plays as it is. 1/60 is steady under lamps on 60 Hz.",
        "100 plays 4 times slower on 25, or at its own speed with every 4th frame. 1/200 is steady under lamps on 50 Hz.",
      ]
    `)
    expect(steadyShutters(frameRate(25), 50)).toEqual([25, 100 / 3, 50, 100])
    expect(steadyShutters(frameRate(120), 50)).toEqual([])
    expect(usualRates(50)).toHaveLength(3)
    expect(usualRates(60)[0]).toEqual(frameRate(24_000, 1001))
  })

  it('of one day are said together', () => {
    const say = (...rates: FrameRate[]) => commonTimeline(rates).sentence
    expect([
      say(),
      say(frameRate(25), frameRate(25)),
      say(frameRate(50), frameRate(25)),
      say(frameRate(50), frameRate(25), frameRate(100)),
      say(frameRate(25), frameRate(30)),
      say(frameRate(24), frameRate(24_000, 1001)),
    ]).toMatchInlineSnapshot(`
      [
        "No rate is planned yet.",
        "Everything is filmed at 25: one timeline.",
        "50 and 25 share a timeline of 25.",
        "50, 25 and 100 share a timeline of 25.",
        "25 and 30 share no timeline: 30 would have to be converted to 25. Film all at one rate, or the faster ones at whole multiples of it.",
        "24 and 23.976 share no timeline: 24 would have to be converted to 23.976. Film all at one rate, or the faster ones at whole multiples of it.",
      ]
    `)
    expect(commonTimeline([frameRate(50), frameRate(25)]).timeline).toEqual(frameRate(25))
    expect(commonTimeline([frameRate(25), frameRate(30)]).timeline).toBeUndefined()
  })
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
    expect(outlying([10, 11])).toEqual([false, false])
    expect(outlying([10, 10.5, 11, 40])).toEqual([false, false, false, true])
    expect(outlying([10, 10, 10, 10.02])).toEqual([false, false, false, false])
    expect(
      learn(
        [10, 10.5, 11, 40].map((at) => ({ at })),
        ({ at }) => at,
        5,
      ),
    ).toMatchObject({ value: 10.5, guessed: false })
    expect(learn<{ at: number }>([], ({ at }) => at, 5)).toMatchObject({ value: 5, guessed: true })
    expect([
      differenceWords(109, 100),
      differenceWords(100.4, 100),
      differenceWords(99.4, 100),
      differenceWords(91, 100),
    ]).toEqual([...['9.0 % more', 'as stated', '0.6 % less', '9.0 % less']])
    const of = (value: number, guessed = false) => ({
      camera: 'Curlew',
      mode: '4K',
      inUse: 100,
      learned: { value, guessed },
    })
    expect([100.4, 100.6, 99.4, 99.6].map((value) => differsFromPlan(of(value)))).toEqual([false, true, true, false])
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
    expect(packTakes([{ bytes: 9, count: 1e6 }], [], false, 9).filled).toHaveLength(MOST_CARDS)
  })
})
