import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameRate } from '../units/frameRate'
import { assignCards, withCard } from './assign'
import { batteriesFor, carryList, carrySentence } from './carry'
import type { CardState, GearCard } from './gear'
import { bitsPerSecondOf, nominalBitsPerSecond, rawBytesPerSecond } from './mode'
import { MOST_CARDS, packTakes } from './pack'
import { changeTakes, withTakes, withoutTakes } from './planChanges'
import { modesForDay, planBudget, secondsLeft, type RecordingPlan } from './plan'
import { planAnswer } from './sentence'
import { camera, card, coded, on, takes } from './testGear'

const RULES = { fillLimit: 0.9, spareCards: 0 }

const curlew = camera('Curlew', [coded('100', 100), coded('600', 600)], { slots: 2 })
const one = (plan: RecordingPlan, cards: readonly GearCard[], cameras = [curlew], rules = RULES) => {
  const [first] = planBudget(plan, { cameras, cards }, rules).cameras
  if (!first) throw new Error('nothing is planned')
  return first
}

describe('a recording mode', () => {
  it('of raw frames takes width × height × bits × frames', () => {
    // Common practice, no source: UHD, 12 bit, 25 frames are 311.04 MB/s, and 414.72 MB/s in words of 16 bit.
    const uhd = { widthPx: 3840, heightPx: 2160 }
    expect(rawBytesPerSecond(uhd, frameRate(25), { bitsPerSample: 12, headerBytes: 0 })).toBe(311.04e6)
    expect(rawBytesPerSecond(uhd, frameRate(25), { bitsPerSample: 16, headerBytes: 0 })).toBe(414.72e6)
    expect(rawBytesPerSecond(uhd, frameRate(25), { bitsPerSample: 12, headerBytes: 1000 })).toBe(311.04e6 + 25_000)
  })

  it('counts its sound and its camera proxy, and is reckoned with as it was measured', () => {
    const mode = coded('m', 100, { audioBitsPerSecond: 256_000, proxyBitsPerSecond: 6e6 })
    expect(nominalBitsPerSecond(mode)).toBe(106.256e6)
    expect(bitsPerSecondOf({ ...mode, measuredBitsPerSecond: 109e6 })).toBe(109e6)
  })
})

describe('takes on cards', () => {
  it('are never cut to fill a card', () => {
    // Source: the arithmetic; two takes of 5 000 s do not fit into the 9 216 s that 128 GB hold up to 90 % at 100 Mb/s.
    expect(one({ takes: [takes('Curlew', '100', 5000, 3)], cameras: [on('Curlew')] }, []).needed).toBe(3)
    expect(one({ takes: [takes('Curlew', '100', 3072, 3)], cameras: [on('Curlew')] }, []).needed).toBe(1)
    // Longer than a card: each goes on on the next.
    expect(one({ takes: [takes('Curlew', '100', 10_000, 1)], cameras: [on('Curlew')] }, []).needed).toBe(2)
  })

  it('of several rows share cards', () => {
    const plan = { takes: [takes('Curlew', '100', 4000, 2), takes('Curlew', '100', 1000, 1)], cameras: [on('Curlew')] }
    expect(one(plan, []).needed).toBe(1)
  })

  it('longer than a card are said of a camera that stops there', () => {
    const heron = camera('Curlew', curlew.modes, { spans: false })
    const budget = one({ takes: [takes('Curlew', '100', 10_000, 1)], cameras: [on('Curlew')] }, [], [heron])
    expect(budget.longerThanCard).toBe(true)
  })

  it('never put more on a card than it holds, and lose none', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ bytes: fc.integer({ min: 1, max: 50 }), count: fc.integer({ min: 1, max: 20 }) }), {
          maxLength: 5,
        }),
        fc.array(fc.integer({ min: 1, max: 80 }), { maxLength: 6 }),
        fc.boolean(),
        (wanted, cards, spans) => {
          const { filled, open } = packTakes(wanted, cards, spans)
          filled.forEach((bytes, at) => expect(bytes).toBeLessThanOrEqual(cards[at] ?? 0))
          const sum = (some: readonly { bytes: number; count: number }[]) =>
            some.reduce((all, each) => all + each.bytes * each.count, 0)
          expect(filled.reduce((all, bytes) => all + bytes, 0) + sum(open)).toBe(sum(wanted))
          // What is open fits nowhere any more, unless it would have to be cut.
          for (const { bytes } of open) expect(filled.every((used, at) => (cards[at] ?? 0) - used < bytes)).toBe(true)
        },
      ),
    )
  })

  it('that nobody can mean are not counted to the end', () => {
    const { filled } = packTakes([{ bytes: 9e15, count: 1000 }], [], true, 1e9)
    expect(filled.length).toBeLessThanOrEqual(MOST_CARDS)
  })
})

describe('the cards of a camera', () => {
  const plan = { takes: [takes('Curlew', '600', 600, 2)], cameras: [on('Curlew', 'slow', 'held', 'good')] }

  it('that are too slow or hold what is not safe are not used', () => {
    // Source: SD Association: 600 Mb/s is 75 MB/s and needs V90.
    const budget = one(plan, [card('slow', 512, 60), card('held', 512, 90, 'full'), card('good', 128, 90)])
    expect(budget.neededClass).toBe('V90')
    expect(budget.cards.map((each) => each.trouble)).toEqual(['too-slow', 'not-clear', undefined])
    expect(budget.cards.map((each) => each.filledBytes)).toEqual([0, 0, 90e9])
    expect(budget).toMatchObject({ needed: 1, missing: 0, openBytes: 0 })
  })

  it('that another shoot of that day counts on are said, and not used', () => {
    const rows = { takes: [takes('Curlew', '100', 600, 2)], cameras: [on('Curlew', 'a')] }
    const cards = [{ ...card('a', 128, 60), promisedTo: 'Mast day' }]
    const budget = planBudget(rows, { cameras: [curlew], cards }, RULES)
    expect(planAnswer(budget)).toMatchObject({
      sentence: 'One card is planned for another shoot of that day.',
      why: 'a is planned for Mast day on the same day.',
    })
    expect(budget.cameras[0]?.openBytes).toBe(15e9)
  })

  it('are planned to the fill limit, with the spare', () => {
    const rows = { takes: [takes('Curlew', '100', 600, 15)], cameras: [on('Curlew', 'a')] }
    // 15 takes of 7.5 GB are 112.5 GB, and 115.2 GB fit.
    expect(one(rows, [card('a', 128, 60)], [curlew], { ...RULES, spareCards: 1 })).toMatchObject({
      needed: 1,
      missing: 1,
    })
    expect(one(rows, [card('a', 128, 60)], [curlew], { ...RULES, fillLimit: 0.8 })).toMatchObject({
      needed: 2,
      missing: 1,
    })
  })

  it('go in by pairs where both slots are written, and a pair holds what its smaller card holds', () => {
    const both = { takes: [takes('Curlew', '100', 600, 15)], cameras: [{ ...on('Curlew', 'a', 'b'), bothSlots: true }] }
    expect(one(both, [card('a', 128, 60), card('b', 128, 60)])).toMatchObject({
      needed: 2,
      missing: 0,
      sizeBytes: 112.5e9,
    })
    expect(one(both, [card('a', 128, 60), card('b', 64, 60)]).openBytes).toBeGreaterThan(0)
  })

  it('say how many minutes the day still allows, and which mode fits it', () => {
    const rows = { takes: [takes('Curlew', '100', 600, 6)], cameras: [on('Curlew', 'a', 'b')] }
    const cards = [card('a', 128, 90), card('b', 128, 90)]
    const budget = one(rows, cards)
    // Two cards hold 230.4 GB up to the limit, 45 GB are planned: 185.4 GB at 12.5 MB/s are 14 832 s.
    expect(secondsLeft(budget, curlew.modes[0] ?? coded('', 1), RULES)).toBe(14_832)
    expect(modesForDay(budget, { cameras: [curlew], cards }, RULES).map((fit) => [fit.mode.id, fit.fits])).toEqual([
      ['100', true],
      ['600', false],
    ])
  })

  it('are not needed by what records inside or on tape', () => {
    const teal = camera('Teal', [coded('17', 17)], { media: 'internal', internalBytes: 16e9 })
    const inside = one({ takes: [takes('Teal', '17', 3600, 3)], cameras: [on('Teal')] }, [], [teal])
    expect(inside).toMatchObject({ needed: 0, internalShort: 3 * 7.65e9 - 16e9 })
    const deck = camera('Deck', [coded('4', 4.4)], { media: 'tape', kind: 'deck' })
    const tape = planBudget(
      { takes: [takes('Deck', '4', 1800, 2)], cameras: [on('Deck')] },
      { cameras: [deck], cards: [] },
      RULES,
    )
    // Common practice, no source: half an hour of tape captured to H.264 is about 1 GB.
    expect(tape).toMatchObject({ tapeSeconds: 3600, sizeBytes: 2 * 0.99e9 })
  })
})

describe('cards that Yendra chooses', () => {
  const plover = camera('Plover', [coded('60', 60)])
  const cameras = [curlew, plover]
  const cards = [card('s1', 64, 30), card('s2', 64, 30), card('r1', 256, 90), card('dirty', 256, 90, 'in-use')]

  it('are clear, fast enough and each in one camera', () => {
    const plan = {
      takes: [takes('Plover', '60', 600, 4), takes('Curlew', '600', 600, 4)],
      cameras: [on('Plover', 'dirty', 'r1'), on('Curlew', 's1')],
    }
    const chosen = assignCards(plan, { cameras, cards }, RULES)
    expect(chosen.cameras.map((each) => each.cardIds)).toEqual([['r1'], []])
    // The one fast card stays where it was; out of it, the camera that needs it gets it.
    const freed = assignCards({ ...plan, cameras: [on('Plover'), on('Curlew', 's1')] }, { cameras, cards }, RULES)
    expect(freed.cameras.map((each) => each.cardIds)).toEqual([['s1'], ['r1']])
    expect(planAnswer(planBudget(freed, { cameras, cards }, RULES)).sentence).toMatch(
      /^Every take has its card: 2 cards/,
    )
  })

  it('leave nothing short that any choice could fill, of equal cards', () => {
    const speeds = [30, 60, 90]
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...speeds), { maxLength: 6 }),
        fc.array(fc.tuple(fc.constantFrom(...speeds), fc.integer({ min: 1, max: 3 })), { minLength: 1, maxLength: 3 }),
        (held, wanted) => {
          const all = held.map((speed, at) => card(`c${at}`, 100, speed))
          const cams = wanted.map(([speed], at) => camera(`k${at}`, [coded(`m${at}`, speed * 8)]))
          // One take fills one card.
          const plan = {
            takes: wanted.map(([speed, count], at) =>
              takes(`k${at}`, `m${at}`, Math.floor(80e9 / (speed * 1e6)), count),
            ),
            cameras: wanted.map((_, at) => ({ ...on(`k${at}`), cardBytes: 100e9 })),
          }
          const gear = { cameras: cams, cards: all }
          const { missing } = planBudget(assignCards(plan, gear, RULES), gear, RULES)
          // By Hall: what cameras from a speed up want beyond the cards of that speed is short at least.
          const least = Math.max(
            0,
            ...speeds.map(
              (speed) =>
                wanted.filter(([needs]) => needs >= speed).reduce((sum, [, count]) => sum + count, 0) -
                held.filter((has) => has >= speed).length,
            ),
          )
          expect(missing).toBe(least)
        },
      ),
    )
  })

  it('are moved, not doubled, when they are put into another camera', () => {
    const plan = { takes: [], cameras: [on('Curlew', 'a'), on('Plover')] }
    expect(withCard(plan, 'Plover', 'a').cameras.map((each) => each.cardIds)).toEqual([[], ['a']])
  })
})

describe('the answer', () => {
  it('counts what is too slow and what is too few in one sentence', () => {
    const cameras = [curlew]
    const cards = [card('slow', 128, 30)]
    const plan = { takes: [takes('Curlew', '600', 600, 4)], cameras: [on('Curlew', 'slow')] }
    const answer = planAnswer(planBudget(plan, { cameras, cards }, { ...RULES, spareCards: 1 }))
    expect(answer.sentence).toBe('One card is too slow and two more cards are needed.')
    expect(answer.why).toContain('75.0 MB/s need V90')
  })
})

describe('a plan that says yes', () => {
  const gigabytes = fc.constantFrom(16, 32, 64, 128)
  const anyCard = fc.record({
    size: gigabytes,
    speed: fc.constantFrom(10, 30, 90),
    state: fc.constantFrom<CardState>('empty', 'full'),
  })
  const anyRow = fc.record({
    mode: fc.constantFrom('100', '600'),
    seconds: fc.integer({ min: 60, max: 9000 }),
    count: fc.integer({ min: 1, max: 9 }),
  })

  it('has room for every take, on cards that are fast enough and clear', () => {
    fc.assert(
      fc.property(
        fc.array(anyCard, { maxLength: 8 }),
        fc.array(anyRow, { minLength: 1, maxLength: 3 }),
        gigabytes,
        fc.boolean(),
        fc.boolean(),
        fc.integer({ min: 0, max: 2 }),
        (held, rows, nominal, spans, bothSlots, spareCards) => {
          const cards = held.map(({ size, speed, state }, at) => card(`c${at}`, size, speed, state))
          const cam = { ...curlew, spans }
          const plan = {
            takes: rows.map(({ mode, seconds, count }) => takes('Curlew', mode, seconds, count)),
            cameras: [{ ...on('Curlew', ...cards.map((one) => one.id)), bothSlots, cardBytes: nominal * 1e9 }],
          }
          const gear = { cameras: [cam], cards }
          const rules = { ...RULES, spareCards }
          for (const asked of [plan, assignCards(plan, gear, rules)]) {
            const budget = planBudget(asked, gear, rules)
            if (!planAnswer(budget).sentence.startsWith('Every take')) continue
            const [one] = budget.cameras
            const filled = one?.cards.reduce((sum, each) => sum + each.filledBytes, 0) ?? 0
            expect(one?.openBytes).toBe(0)
            expect(filled).toBe((one?.sizeBytes ?? 0) * (bothSlots ? 2 : 1))
            expect(one?.cards.filter((each) => each.spare).length).toBeGreaterThanOrEqual(spareCards)
          }
        },
      ),
      { numRuns: Number(process.env.YENDRA_RUNS ?? 500) },
    )
  })

  it('is not given for cards that are many and too small', () => {
    const heron = camera('Curlew', curlew.modes, { spans: false })
    // Five cards of 16 GB hold no take of 22.5 GB.
    const small = ['a', 'b', 'c', 'd', 'e'].map((id) => card(id, 16, 90))
    const plan = { takes: [takes('Curlew', '100', 1800, 1)], cameras: [on('Curlew', 'a', 'b', 'c', 'd', 'e')] }
    const answer = planAnswer(planBudget(plan, { cameras: [heron], cards: small }, RULES))
    expect(answer.sentence).toBe('One more card is needed.')
    expect(answer.why).toBe('Curlew lacks 1 card of 128 GB for 22.5 GB.')
    // Nor is one that is too small chosen for it.
    const [chosen] = assignCards(
      { ...plan, cameras: [on('Curlew')] },
      { cameras: [heron], cards: small },
      RULES,
    ).cameras
    expect(chosen?.cardIds).toEqual([])
  })
})

describe('a plan under the fingers', () => {
  it('is as it was when what was added is taken out', () => {
    const before: RecordingPlan = { takes: [takes('Curlew', '100', 60, 1)], cameras: [on('Curlew')] }
    const plover = camera('Plover', [coded('60', 60)])
    const more = withTakes(before, { camera: plover, seconds: 600, cards: [] }, { ...RULES, factor: 1.2 })
    expect(more.takes[1]).toMatchObject({ cameraId: 'Plover', secondsPerTake: 600, factor: 1.2 })
    expect(withoutTakes(more, 1)).toEqual(before)
    expect(changeTakes(before, 0, { takes: 3 }).takes[0]?.takes).toBe(3)
    // A camera without a mode cannot be planned.
    expect(
      withTakes(before, { camera: { ...plover, modes: [] }, seconds: 600, cards: [] }, { ...RULES, factor: 1 }),
    ).toBe(before)
  })
})

describe('the carry list', () => {
  it('names cards, what is still to be found, and batteries', () => {
    const plan = { takes: [takes('Curlew', '600', 1200, 3)], cameras: [on('Curlew', 'good', 'slow')] }
    const cards = [card('good', 128, 90), card('slow', 128, 30)]
    const charged = { ...curlew, batteryMinutes: 40 }
    const groups = carryList(planBudget(plan, { cameras: [charged], cards }, { ...RULES, spareCards: 1 }))
    expect(groups[0]?.lines.map((line) => [line.what, line.open])).toEqual([
      ['good', false],
      ['slow', true],
      ['2 cards of 128 GB', true],
    ])
    expect(groups[1]?.lines[0]?.more).toBe('600; 3 batteries')
    expect(carrySentence(groups)).toBe('2 things on the list are not ready.')
    // An hour on batteries of 40 minutes needs two, and one more.
    expect(batteriesFor(3600, 40)).toBe(3)
    expect(batteriesFor(2400, 40)).toBe(2)
  })
})
