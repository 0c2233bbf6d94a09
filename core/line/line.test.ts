import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Mark } from '../copies/mark'
import type { LoadFacts, ProductionFacts } from './facts'
import { lineOf } from './line'
import { GRADES, needs, nextStep, unsafeElsewhere } from './needs'

const nothing: ProductionFacts = {
  plan: { cameras: 0, sizeBytes: 0, cards: 0, tooSlow: 0, notClear: 0, missing: 0 },
  cardsWaiting: 0,
  cardsLooking: 0,
  loads: [],
  proxies: { wanted: 0, made: 0, failed: 0, unchecked: 0, without: 0 },
  storage: { sizeBytes: 0, tightVolume: undefined },
  exports: { made: 0, failed: 0, unshelved: 0 },
  bags: { written: 0, verified: 0, single: 0 },
  review: { decided: true, named: 0, unnamed: 0, placed: 0, unplaced: 0 },
  closed: false,
  known: [],
  shootOn: null,
}
const load: LoadFacts = {
  id: 'curlew-a',
  label: 'Curlew A',
  clips: 3,
  stops: 0,
  questions: 0,
  marks: [3, 2],
  oneDrive: false,
  perhapsOneDrive: false,
  clear: true,
  formatted: false,
  unseen: false,
  touched: false,
  foundWrong: 0,
  amiss: 0,
  looking: false,
}
const planned = { ...nothing, plan: { cameras: 1, sizeBytes: 45e9, cards: 1, tooSlow: 0, notClear: 0, missing: 0 } }
const filmed = { ...planned, loads: [load], proxies: { wanted: 3, made: 3, failed: 0, unchecked: 0, without: 0 } }

describe('the next step', () => {
  it('follows the order of the work, but safety goes first', () => {
    expect(nextStep(nothing).station).toBe('shoot')
    expect(nextStep({ ...nothing, closed: true }).station).toBe('storage')
    expect(nextStep(planned).station).toBe('cards')
    const short = { ...planned, plan: { ...planned.plan, missing: 2 } }
    expect(nextStep(short)).toMatchObject({
      station: 'shoot',
      sentence: 'Give every take its card: 2 more cards are needed.',
    })
    expect(lineOf({ ...short, loads: [load] })[0]).toMatchObject({ state: 'done', worry: undefined })
    expect(nextStep({ ...planned, cardsWaiting: 1 }).sentence).toContain('reader')
    const looking = { ...planned, cardsLooking: 1, loads: [{ ...load, marks: [], looking: true }] }
    for (const facts of [looking, { ...planned, cardsLooking: 1 }]) {
      expect(nextStep(facts).sentence).toBe('The card in the reader is being scanned.')
      expect(lineOf(facts)[1]).toMatchObject({ station: 'cards', state: 'open', worry: undefined })
    }
    expect(nextStep({ ...looking, cardsWaiting: 1 }).sentence).toBe('Take in the card in the reader.')
    expect(nextStep({ ...looking, loads: [...looking.loads, { ...load, label: 'B', marks: [2] }] }).sentence).toContain(
      'Copy “B”',
    )
    expect(nextStep({ ...filmed, cardsWaiting: 1, loads: [{ ...load, marks: [2] }] })).toMatchObject({
      station: 'copies',
    })
    expect(nextStep({ ...filmed, loads: [{ ...load, marks: [2, 2] }] }).sentence).toContain('Play')
    expect(nextStep({ ...filmed, loads: [{ ...load, stops: 1, clear: false }] })).toMatchObject({
      station: 'cards',
      sentence: expect.stringContaining('Curlew A'),
    })
    const out = { ...filmed, loads: [{ ...load, unseen: true }] }
    expect(nextStep(out).sentence).toContain('Put the card of “Curlew A” in again')
    expect(lineOf(out)[1]).toMatchObject({ state: 'open', worry: 'card not scanned' })
    expect(nextStep({ ...filmed, loads: [{ ...load, unseen: true, formatted: true }] }).station).toBe('exports')
    const anew = { ...filmed, loads: [{ ...load, touched: true }] }
    expect(nextStep(anew)).toMatchObject({ station: 'copies', sentence: expect.stringContaining('whole: files on it') })
    expect(lineOf(anew)[2]).toMatchObject({ state: 'open', worry: 'card rewritten' })
    const formatted = (marks: readonly Mark[]) =>
      nextStep({ ...filmed, cardsWaiting: 1, loads: [{ ...load, formatted: true, marks }] }).sentence
    expect(formatted([3, 1])).toContain('Copy “Curlew A” to another drive: its card is formatted')
    const shared = { ...load, marks: [3] as const, oneDrive: true }
    expect(nextStep({ ...filmed, loads: [{ ...shared, formatted: true }] }).sentence).toBe(
      'Copy “Curlew A” to another drive: its card is formatted, and its proved copies lie on one drive.',
    )
    expect(nextStep({ ...filmed, loads: [shared] }).sentence).toContain('two copies on one drive')
    const asked = { ...filmed, loads: [{ ...load, perhapsOneDrive: true }] }
    expect(nextStep(asked).sentence).toBe('Say whether the copies of “Curlew A” lie on different drives.')
    expect(lineOf(asked)[2]).toMatchObject({ state: 'done', worry: 'perhaps one drive' })
    expect(formatted([1])).toContain('Find the files of “Curlew A”')
    expect(formatted([3, 2])).toContain('reader')
    expect(nextStep({ ...filmed, proxies: { wanted: 3, made: 1, failed: 0, unchecked: 0, without: 0 } }).sentence).toBe(
      'Make 2 proxies.',
    )
    expect(nextStep(filmed).station).toBe('exports')
    const rendered = { ...filmed, exports: { made: 1, failed: 0, unshelved: 1 } }
    expect(nextStep(rendered).station).toBe('shelf')
    const shelved = {
      ...filmed,
      exports: { ...rendered.exports, unshelved: 0 },
      bags: { written: 1, verified: 1, single: 1 },
    }
    expect(nextStep(shelved).sentence).toBe('Put 1 film on a second drive: one drive can fail.')
    const twice = { ...shelved, bags: { written: 2, verified: 2, single: 0 } }
    expect(nextStep(twice).sentence).toBe(
      'Ask at Copies whether the card of “Curlew A” may be formatted, and say so when it is done.',
    )
    expect(nextStep({ ...twice, loads: [{ ...load, formatted: true }] })).toEqual({
      station: 'shelf',
      sentence: 'Everything is proved, made and shelved twice.',
      grade: undefined,
    })
  })

  it('never leads past a film that fails, a drive that is tight, or clips that nobody reviewed', () => {
    const done = { ...filmed, exports: { made: 2, failed: 1, unshelved: 1 } }
    expect(nextStep(done)).toMatchObject({ station: 'exports', sentence: expect.stringContaining('Do not upload it') })
    expect(nextStep({ ...filmed, storage: { sizeBytes: 1, tightVolume: 'Tide 1' } }).sentence).toContain('Tide 1')
    expect(nextStep({ ...filmed, review: { ...filmed.review, decided: false } }).sentence).toBe(
      'Review the clips: keep the good ones.',
    )
    expect(nextStep({ ...filmed, proxies: { wanted: 3, made: 3, failed: 1, unchecked: 0, without: 0 } }).station).toBe(
      'proxies',
    )
    expect(nextStep({ ...filmed, proxies: { wanted: 3, made: 3, failed: 0, unchecked: 2, without: 0 } }).sentence).toBe(
      'Compare the sound of 2 proxies with that of the originals.',
    )
    expect(
      nextStep({
        ...filmed,
        exports: { made: 1, failed: 0, unshelved: 0 },
        bags: { written: 1, verified: 0, single: 0 },
      }),
    ).toMatchObject({
      station: 'shelf',
      grade: 'asks',
    })
    const review = { decided: true, named: 0, unnamed: 3, placed: 0, unplaced: 3 }
    const stepOf = (more: Partial<typeof review>, made = 0) => {
      const { desk, sentence } = nextStep({
        ...{ ...filmed, review: { ...review, ...more } },
        exports: { made, failed: 0, unshelved: 0 },
      })
      return `${desk ?? ''}: ${sentence}`
    }
    expect(stepOf({})).toBe('review: Name 3 kept clips for the edit.')
    expect(stepOf({ named: 2, unnamed: 1 }, 1)).toBe('review: Name 1 more kept clip for the edit.')
    // Whoever leaves the camera’s names sorts, or edits, without being asked again.
    expect(stepOf({ placed: 2, unplaced: 1 }, 1)).toBe('sorted: Put 1 more clip into the sorted view for the edit.')
    expect(stepOf({ unnamed: 0 })).toBe('sorted: Put 3 clips into the sorted view for the edit.')
    expect(stepOf({ unnamed: 0 }, 1)).not.toContain('sorted view')
    expect(stepOf({ unnamed: 0, unplaced: 0 })).toContain('Frame a master')
    const asked = { ...filmed, exports: { made: 1, failed: 0, unshelved: 0 }, loads: [{ ...load, questions: 2 }] }
    expect(nextStep(asked).sentence).toBe('Answer the 2 questions about “Curlew A”.')
  })

  it('is the worst of everything that is needed, and “everything” only where nothing is open anywhere', () => {
    let calm = 0
    const closedFacts = {
      review: nothing.review,
      loads: [],
      proxies: { wanted: 0, made: 0, failed: 0, unchecked: 0, without: 0 },
    }
    // Mostly in order, so that what is left out somewhere is met by itself.
    const mostly = <T>(good: T, bad: fc.Arbitrary<T>) =>
      fc.oneof({ weight: 12, arbitrary: fc.constant(good) }, { weight: 1, arbitrary: bad })
    const some = fc.integer({ min: 1, max: 2 })
    const few = mostly(0, some)
    const marks = fc.array(fc.constantFrom<Mark>(0, 1, 2, 3), { maxLength: 3 })
    const anyLoad = fc.record({
      ...{
        id: fc.constantFrom('1', '2', '3'),
        label: fc.constantFrom('A', 'B'),
        clips: some,
        stops: few,
        questions: few,
      },
      marks: mostly<Mark[]>([3, 2], marks).map((all) => all.toSorted((one, other) => other - one)),
      ...{ clear: mostly(false, fc.constant(true)), formatted: mostly(true, fc.constant(false)) },
      ...{ touched: mostly(false, fc.constant(true)), perhapsOneDrive: mostly(false, fc.constant(true)) },
      ...{ oneDrive: fc.boolean(), foundWrong: few, amiss: few },
      ...{ unseen: mostly(false, fc.constant(true)), looking: mostly(false, fc.constant(true)) },
    })
    const anyFacts = fc.record({
      plan: fc.record({ cameras: some, sizeBytes: some, cards: some, tooSlow: few, notClear: few, missing: few }),
      ...{ cardsWaiting: few, cardsLooking: few, loads: fc.array(anyLoad, { minLength: 1, maxLength: 3 }) },
      proxies: fc.record({
        wanted: fc.constant(2),
        made: mostly(2, fc.constantFrom(0, 1)),
        failed: few,
        unchecked: few,
        without: few,
      }),
      storage: fc.record({ sizeBytes: some, tightVolume: mostly(undefined, fc.constant('Tide 1')) }),
      exports: fc.record({ made: mostly(1, fc.constant(0)), failed: few, unshelved: few }),
      bags: fc.record({ written: fc.constant(2), verified: mostly(2, fc.constant(1)), single: few }),
      review: fc.record({
        decided: mostly(true, fc.constant(false)),
        named: few,
        unnamed: few,
        placed: few,
        unplaced: few,
      }),
      closed: mostly(false, fc.constant(true)),
      known: fc.constant([]),
      shootOn: fc.constant(null),
    })
    fc.assert(
      fc.property(anyFacts, (any) => {
        // Of what is known from the records only there is no load.
        const facts: ProductionFacts = any.closed ? { ...any, ...closedFacts } : any
        const all = needs(facts)
        const step = nextStep(facts)
        // The screen of the night tells the same of what lies in no reader, and nothing of what it has told already.
        const elsewhere = unsafeElsewhere(facts, new Set())
        expect(elsewhere.filter(({ grade }) => grade === 'danger')).toEqual(
          all.filter(({ grade }) => grade === 'danger'),
        )
        const isUnsafe = facts.loads.some(
          (one) =>
            (one.marks[1] ?? 0) < 2 ||
            one.looking ||
            one.foundWrong > 0 ||
            one.amiss > 0 ||
            (one.unseen && !one.formatted),
        )
        expect(elsewhere.length > 0).toBe(isUnsafe)
        expect(unsafeElsewhere(facts, new Set(['1', '2', '3']))).toEqual([])
        const grades = all.map((need) => GRADES.indexOf(need.grade))
        expect(grades).toEqual(grades.toSorted((a, b) => a - b))
        if (all[0]) expect(step).toEqual(all[0])
        // Whatever of a formatted card is not twice proved comes before all else.
        const isLone = facts.loads.some((one) => one.formatted && (one.marks[1] ?? 0) < 2)
        expect(step.grade === 'danger').toBe(isLone)
        if (!/everything|finished/i.test(step.sentence)) return
        calm += 1
        expect(lineOf(facts).filter((one) => one.state === 'open' || one.worry !== undefined)).toEqual([])
        expect(facts.loads.every((one) => one.marks[1] !== undefined && one.marks[1] >= 2)).toBe(true)
        expect(
          facts.loads.some((one) => one.looking || (one.touched && !one.formatted) || one.foundWrong + one.amiss > 0),
        ).toBe(false)
        expect(facts.review.placed > 0 && facts.review.unplaced > 0).toBe(false)
        expect(facts.review.named > 0 && facts.review.unnamed > 0).toBe(false)
        expect(facts.bags.single + facts.exports.unshelved + facts.exports.failed).toBe(0)
      }),
      { numRuns: 3000 },
    )
    expect(calm).toBeGreaterThan(100)
  })
})

describe('the line', () => {
  it('has one figure a station and a worry only where there is one', () => {
    expect(lineOf(nothing).map((status) => status.state)).toEqual(Array(7).fill('empty'))
    const line = lineOf({ ...filmed, loads: [{ ...load, marks: [2, 1], stops: 2 }] })
    expect(line.map((status) => status.figure)).toEqual([
      '45.0 GB, 1 card',
      '3 clips',
      'twice copied',
      '3 of 3',
      '0 B',
      'none made',
      'nothing shelved',
    ])
    expect(line.map((status) => status.worry)).toEqual([
      undefined,
      '2 things wrong',
      '1 load not safe',
      undefined,
      undefined,
      undefined,
      undefined,
    ])
  })

  it('says of the copies how far the second best of each load has come', () => {
    const figure = (marks: LoadFacts['marks']) =>
      lineOf({ ...filmed, loads: [{ ...load, marks }] }).find(({ station }) => station === 'copies')?.figure
    expect([figure([2, 0]), figure([2, 1]), figure([2, 2]), figure([3, 3])]).toEqual([
      ...['not copied twice', 'twice copied', 'twice verified', 'twice spot-played'],
    ])
  })
})
