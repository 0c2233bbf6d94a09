import { describe, expect, it } from 'vitest'
import { frameRate, type FrameRate } from '../units/frameRate'
import { batteriesFor, carryList, carrySentence } from './carry'
import { clockOf, dayWarnings, daySentence, inOrder, minutesOf, type Day } from './day'
import { type Camera, type GearCard } from './gear'
import type { RecordingMode } from './mode'
import type { CameraBudget, PlanBudget } from './plan'
import { commonTimeline, rateAnswer, steadyShutters, usualRates } from './rates'
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
        "The day is Sat 2026-11-14.",
        "No day is set yet. 1 thing to check before.",
        "The day is Sat 2026-11-14; it begins at 09:00 with “Ribs”. 2 things to check before.",
        "The day is Sat 2026-11-14; it begins at 09:00.",
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
