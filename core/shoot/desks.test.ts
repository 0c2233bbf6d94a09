import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DESTINATIONS } from '../exports/destination'
import { frameRate } from '../units/frameRate'
import { median } from '../units/middle'
import { clockChange, clockOf, dayWarnings, minutesOf, type Day } from './day'
import { framingAnswer, framingSentence, middleThird, middleWindow, sharedWindow } from './framing'
import { guidesOf, guidesSvg, lineWidth, paintGuides, strokesOf } from './guides'
import { differenceWords, expandedBytes, learn, offloadSeconds, outlying } from './measured'
import { commonTimeline, rateAnswer, slowFactor, steadyShutters } from './rates'
import { shotRows, shotsFromRows, shotsNotOn, type Shot } from './shots'

const to = (id: string) => DESTINATIONS.find((one) => one.id === id) ?? expect.fail(`no destination ${id}`)
const UHD = { widthPx: 3840, heightPx: 2160 }
const HD = { widthPx: 1920, heightPx: 1080 }

describe('rates', () => {
  it('play slower by recorded ÷ timeline', () => {
    // Common practice, no source: 120 on a timeline of 25 is 4.8 times slower.
    expect(slowFactor(frameRate(120), frameRate(25))).toBe(4.8)
    expect(rateAnswer(frameRate(50), frameRate(25), 50)).toMatchObject({ use: 'slow', slowFactor: 2 })
    expect(rateAnswer(frameRate(24), frameRate(25), 50).use).toBe('converted')
  })

  it('are steady under lamps where an exposure lasts whole pulses', () => {
    // Common practice, no source: 25 and 50 where the mains have 50 Hz, 30 and 60 where they have 60 Hz.
    for (const [rate, mains] of [
      [frameRate(25), 50],
      [frameRate(50), 50],
      [frameRate(100), 50],
      [frameRate(30), 60],
      [frameRate(60), 60],
      [frameRate(30_000, 1001), 60],
    ] as const)
      expect(rateAnswer(rate, rate, mains).flicker).toBe('steady')
    expect(rateAnswer(frameRate(25), frameRate(25), 60).flicker).toBe('rolls')
    expect(rateAnswer(frameRate(30), frameRate(30), 50).sentence).toContain('set 1/50')
    expect(rateAnswer(frameRate(120), frameRate(25), 50).flicker).toBe('no-shutter')
    // Three pulses to a frame, less two in a thousand: 2.9942 and 2.9938.
    const near = (rate: number) => rateAnswer(frameRate(rate, 100_000), frameRate(rate, 100_000), 60).flicker
    expect([4_007_748, 4_008_284].map(near)).toEqual(['steady', 'rolls'])
    // At 60 Hz lamps flicker 120 times a second.
    expect(steadyShutters(frameRate(25), 60)).toEqual([30, 40, 60, 120])
  })

  it('of one day share a timeline when each is a whole multiple of the slowest', () => {
    expect(commonTimeline([frameRate(100), frameRate(25), frameRate(50)]).timeline).toEqual(frameRate(25))
    expect(commonTimeline([frameRate(30), frameRate(25)]).timeline).toBeUndefined()
    // A thousandth apart is apart: 24 and 24000/1001.
    expect(commonTimeline([frameRate(24), frameRate(24_000, 1001)]).timeline).toBeUndefined()
    expect(commonTimeline([frameRate(24_000, 1001), frameRate(48_000, 1001)]).timeline).toEqual(frameRate(24_000, 1001))
    expect(commonTimeline([]).sentence).toBe('No rate is planned yet.')
  })
})

describe('framing', () => {
  it('says what can be cut without invented pixels', () => {
    // Common practice, no source: the largest 9:16 window of UHD is 1215×2160, at 0.889; of HD 607.5×1080, at 1.778.
    const tall = framingAnswer(UHD, to('tall-short'))
    expect(tall).toMatchObject({ invented: false, window: { widthPx: 1214, heightPx: 2160, x: 1312, y: 0 } })
    expect(tall.scale).toBeCloseTo(0.889, 3)
    expect(tall.wider).toBeCloseTo(3.16, 2)
    expect(framingAnswer(HD, to('tall-short'))).toMatchObject({ invented: true })
    expect(framingAnswer(HD, to('tall-short')).scale).toBeCloseTo(1.778, 3)
    // UHD into 1080p: 200 %.
    expect(framingAnswer(UHD, to('wide-watch')).sentence).toContain('enlarged to 200.0 %')
    expect(framingSentence([framingAnswer(HD, to('tall-short'))])).toBe(
      'None of them can be cut without inventing pixels.',
    )
  })

  it('keeps every window inside the frame, in the middle, on even pixels', () => {
    const side = fc.integer({ min: 64, max: 8192 })
    fc.assert(
      fc.property(side, side, fc.constantFrom(...DESTINATIONS), (widthPx, heightPx, delivery) => {
        const { x, y, ...window } = middleWindow({ widthPx, heightPx }, delivery)
        expect([x, y, window.widthPx, window.heightPx].every((value) => value % 2 === 0 && value >= 0)).toBe(true)
        expect(x + window.widthPx).toBeLessThanOrEqual(widthPx)
        expect(y + window.heightPx).toBeLessThanOrEqual(heightPx)
        expect(Math.abs(widthPx - window.widthPx - 2 * x)).toBeLessThanOrEqual(3)
      }),
    )
  })

  it('finds what all of them show', () => {
    const answers = ['wide-watch', 'tall-short', 'square-feed'].map((id) => framingAnswer(UHD, to(id)))
    expect(sharedWindow(answers)).toEqual({ x: 1312, y: 0, widthPx: 1214, heightPx: 2160 })
    expect(sharedWindow([])).toBeUndefined()
    expect(middleThird(UHD)).toEqual({ x: 1280, y: 0, widthPx: 1280, heightPx: 2160 })
  })
})

describe('guides', () => {
  const answers = ['wide-watch', 'tall-short'].map((id) => framingAnswer({ widthPx: 384, heightPx: 216 }, to(id)))
  const frame = { widthPx: 384, heightPx: 216 }

  it('paint just what they draw, and nothing beside the lines', () => {
    const guides = guidesOf(frame, answers)
    const pixels = paintGuides(frame, guides)
    const opaque = (x: number, y: number) => pixels[(y * frame.widthPx + x) * 4 + 3] === 255
    const strokes = guides.flatMap((guide) => strokesOf(frame, guide))
    let painted = 0
    for (let y = 0; y < frame.heightPx; y += 1)
      for (let x = 0; x < frame.widthPx; x += 1) {
        const inside = strokes.some(
          (one) => x >= one.x && x < one.x + one.widthPx && y >= one.y && y < one.y + one.heightPx,
        )
        if (opaque(x, y) !== inside) expect.fail(`${x}, ${y} is ${inside ? 'missing' : 'painted'}`)
        painted += Number(inside)
      }
    expect(painted).toBeGreaterThan(1000)
    expect(lineWidth({ widthPx: 3840, heightPx: 2160 })).toBe(4)
  })

  it('stay inside the frame, and names cannot break the drawing', () => {
    const guides = guidesOf(frame, answers)
    for (const one of guides.flatMap((guide) => strokesOf(frame, guide))) {
      expect(one.x >= 0 && one.y >= 0).toBe(true)
      expect(one.x + one.widthPx <= frame.widthPx && one.y + one.heightPx <= frame.heightPx).toBe(true)
    }
    const svg = guidesSvg(
      frame,
      guides.map((guide) => ({ ...guide, name: '<&">' })),
    )
    expect(svg).toContain('width="384" height="216"')
    expect(svg).toContain('&lt;&amp;&quot;&gt;')
  })
})

describe('what was measured', () => {
  it('is the median of what is not far off', () => {
    expect(median([3, 1, 2])).toBe(2)
    expect(median([4, 1, 2, 3])).toBe(2.5)
    expect(median([])).toBeUndefined()
    // Source: NIST/SEMATECH e-Handbook, 1.3.5.17: modified z-scores of more than 3.5 (Iglewicz and Hoaglin); the ten
    // values from memory.
    expect(outlying([2.1, 2.6, 2.4, 2.5, 2.3, 2.1, 2.3, 2.6, 8.2, 8.3])).toEqual([...Array(8).fill(false), true, true])
    expect(outlying([1, 100])).toEqual([false, false])
    // The median is 100 and that of the deviations 1: up to 3.5 ÷ 0.6745 = 5.189 away is believed.
    const far = (value: number) => outlying([98, 99, 100, 100, 101, 102, value]).at(-1)
    expect([far(100 + 5.18), far(100 + 5.2), far(100 - 5.18), far(100 - 5.2)]).toEqual([false, true, false, true])
    expect(outlying([5, 5, 5, 5.001])).toEqual([false, false, false, false])
    const learned = learn([{ n: 109 }, { n: 108 }, { n: 110 }, { n: 70 }], (one) => one.n, 100)
    expect(learned).toMatchObject({ value: 109, guessed: false })
    expect(learned.of.map((one) => one.outlier)).toEqual([false, false, false, true])
    expect(learn([], () => 0, 100)).toMatchObject({ value: 100, guessed: true })
    expect([differenceWords(109, 100), differenceWords(100.2, 100), differenceWords(92, 100)]).toEqual([
      '9.0 % more',
      'as stated',
      '8.0 % less',
    ])
  })

  it('begins with the first guesses of the trade', () => {
    // Common practice, no source: 512 GB in 3 h is 47.4 MB/s; a full 512 GB became about a terabyte.
    expect(offloadSeconds(512e9, 47.4e6) / 3600).toBeCloseTo(3, 2)
    expect(expandedBytes(512e9, 2)).toBe(1024e9)
  })
})

describe('a shot list', () => {
  const shot = (name: string, more: Partial<Shot> = {}): Shot => ({
    ...{ id: name, name, cameraId: null, deliverables: [], notes: '', filmedAt: null },
    ...more,
  })
  const names = { cameras: [{ id: 'c', name: 'Curlew' }], destinations: DESTINATIONS }

  it('of a table that comes again are added once, and nothing is cut unsaid', () => {
    const rows = [['Gulls'], ['Moon'], ['Gulls']]
    const { shots } = shotsFromRows(rows, names)
    expect(shotsNotOn([], shots)).toHaveLength(3)
    expect(shotsNotOn(shots, shots)).toEqual([])
    expect(shotsNotOn(shots.slice(0, 2), shots).map((one) => one.name)).toEqual(['Gulls'])
    expect(shotsNotOn([shot('Gulls', { notes: 'low' })], shots)).toHaveLength(3)
    const long = shotsFromRows(
      [
        ['x'.repeat(121), '', '', 'y'.repeat(501)],
        ['x'.repeat(120), '', '', 'y'.repeat(500)],
      ],
      names,
    )
    expect(long.shots.map((one) => [one.name.length, one.notes.length])).toEqual(Array(2).fill([120, 500]))
    expect(long.faults).toEqual([
      'Line 1: of the 501 characters of its notes 500 are kept.',
      'Line 1: of the 121 characters of its name 120 are kept.',
    ])
  })

  it('comes back from a table as it went into one', () => {
    const text = fc
      .string({ minLength: 1, maxLength: 20 })
      .map((one) => one.trim())
      .filter((one) => one !== '' && !one.startsWith("'"))
    fc.assert(
      fc.property(
        fc.array(fc.record({ name: text, notes: text, camera: fc.boolean(), many: fc.boolean() }), {
          minLength: 1,
          maxLength: 6,
        }),
        (wanted) => {
          const shots = wanted.map(({ name, notes, camera, many }) =>
            shot(name, {
              notes,
              cameraId: camera ? 'c' : null,
              deliverables: many ? ['tall-short', 'wide-watch'] : [],
              filmedAt: many ? '2026-11-26T09:30:00.000Z' : null,
            }),
          )
          const { shots: read, faults } = shotsFromRows(shotRows(shots, names), names)
          expect(faults).toEqual([])
          expect(read).toEqual(
            shots.map(({ name, cameraId, deliverables, notes, filmedAt }) => ({
              name,
              cameraId,
              deliverables,
              notes,
              filmedAt,
            })),
          )
        },
      ),
    )
  })
})

describe('the day', () => {
  const day: Day = { shootOn: '2026-12-08', timeZone: 'Europe/Lisbon', calls: [], takeSeconds: 0, clocksOff: [] }

  it('warns of what goes over midnight, of clocks, and of more takes than time', () => {
    const calls = [
      { at: '23:30', what: 'Fire', minutes: 45 },
      { at: '09:00', what: 'Hull', minutes: 120 },
      { at: '10:00', what: 'Slip', minutes: 30 },
    ]
    const warnings = dayWarnings({
      ...day,
      calls,
      takeSeconds: 5 * 3600,
      clocksOff: [{ camera: 'Curlew', load: 'Curlew A' }],
    })
    expect(warnings[0]).toContain('“Fire” goes on past midnight (23:30 to 00:15)')
    expect(warnings.join(' ')).toMatch(
      /clock of Curlew was off.*“Hull” lasts longer.*5 h, and the calls give 3 h 15 min/,
    )
    expect(dayWarnings({ ...day, calls: [{ at: '23:30', what: 'Fire', minutes: 30 }] })).toEqual([])
  })

  it('knows when clocks are put on or back', () => {
    // Source: IANA time zone database: Europe/Lisbon goes forward on 2026-03-29 and back on 2026-10-25.
    expect(clockChange('2026-03-29', 'Europe/Lisbon')).toBe(60)
    expect(clockChange('2026-10-25', 'Europe/Lisbon')).toBe(-60)
    expect(clockChange('2026-12-08', 'Europe/Lisbon')).toBe(0)
    // America/New_York goes forward on 2026-03-08, Asia/Kolkata never.
    expect(clockChange('2026-03-08', 'America/New_York')).toBe(60)
    expect(clockChange('2026-03-09', 'America/New_York')).toBe(0)
    expect(clockChange('2026-03-29', 'Asia/Kolkata')).toBe(0)
    // The half hour of Lord Howe.
    expect(clockChange('2026-04-05', 'Australia/Lord_Howe')).toBe(-30)
  })

  it('reads times as people write them', () => {
    expect([minutesOf('9:30'), minutesOf('09.30'), minutesOf('23h59'), minutesOf('24:00'), minutesOf('9')]).toEqual([
      570,
      570,
      1439,
      undefined,
      undefined,
    ])
    expect([clockOf(570), clockOf(1455)]).toEqual(['09:30', '00:15'])
  })
})
