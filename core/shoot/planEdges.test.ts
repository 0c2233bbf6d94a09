import { describe, expect, it } from 'vitest'
import { assignCards, withCard, withoutCard } from './assign'
import type { Camera, GearCard } from './gear'
import { modesForDay, planBudget, secondsLeft, type PlannedTakes, type RecordingPlan } from './plan'
import { changeCards, changeTakes, withoutTakes, withTakes } from './planChanges'
import { camera, card, coded, on, takes } from './testGear'

const RULES = { fillLimit: 0.9, spareCards: 0 }
/** Modes of 10, 50 and 75 MB/s: of the first 100 s are 1 GB, of the last 40 s are 3 GB. */
const MODES = [coded('80', 80), coded('400', 400), coded('600', 600)]
const curlew = camera('Curlew', MODES)
const heron = camera('Heron', MODES, { spans: false })
const gigabytes = (cameraId: string, size: number, count = 1): PlannedTakes => takes(cameraId, '80', size * 100, count)

const budgetOf = (plan: RecordingPlan, cards: readonly GearCard[], cameras: readonly Camera[], rules = RULES) =>
  planBudget(plan, { cameras, cards }, rules)
const one = (plan: RecordingPlan, cards: readonly GearCard[], cameras: readonly Camera[] = [curlew], rules = RULES) => {
  const [first] = budgetOf(plan, cards, cameras, rules).cameras
  if (!first) throw new Error('nothing is planned')
  return first
}

describe('what a plan comes to', () => {
  it('is its takes by angles and by what they may run over, of known cameras and modes', () => {
    const row = takes('Curlew', '400', 100, 3, { angles: 2, factor: 1.5 })
    const strange = [takes('Curlew', 'gone', 100, 1), takes('Heron', '80', 100, 1)]
    const budget = one({ takes: [row, ...strange], cameras: [on('Curlew')] }, [])
    expect(budget.rows).toHaveLength(1)
    expect(budget.rows[0]).toMatchObject({
      takeSeconds: 150,
      count: 6,
      seconds: 900,
      takeBytes: 7.5e9,
      sizeBytes: 45e9,
    })
    expect(budget).toMatchObject({ seconds: 900, sizeBytes: 45e9, bytesPerSecond: 50e6 })
    expect(budgetOf({ takes: [row], cameras: [on('gone')] }, [], [curlew]).cameras).toEqual([])
    const two = [gigabytes('Curlew', 1), takes('Curlew', '600', 40, 1)]
    expect(one({ takes: two, cameras: [on('Curlew')] }, [])).toMatchObject({ sizeBytes: 4e9, bytesPerSecond: 75e6 })
  })

  it('counts cards by what speaks against them, and minutes of tape', () => {
    const cards = [
      card('slow', 128, 5),
      card('full', 128, 90, 'full'),
      { ...card('theirs', 128, 90), promisedTo: 'Dusk' },
    ]
    const deck = camera('Deck', MODES, { media: 'tape' })
    const plan = { takes: [gigabytes('Curlew', 9), gigabytes('Deck', 2, 3)], cameras: [on('Curlew', 'slow', 'full', 'theirs', 'unknown'), on('Deck')] } // prettier-ignore
    const budget = budgetOf(plan, cards, [curlew, deck])
    const names = (some: readonly { readonly card: GearCard }[]) => some.map((each) => each.card.id)
    expect([names(budget.tooSlow), names(budget.notClear), names(budget.promised)]).toEqual([['slow'], ['full'], ['theirs']]) // prettier-ignore
    expect(budget).toMatchObject({ tapeSeconds: 600, sizeBytes: 15e9, cards: 1 })
    expect(budget.cameras[1]).toMatchObject({ cards: [], openTakes: [], needed: 0, internalShort: 0, sure: true })
    // A card that is just as fast as the stream is fast enough.
    expect(one({ takes: [gigabytes('Curlew', 9)], cameras: [on('Curlew', 'even')] }, [card('even', 128, 10)]).cards[0]?.trouble).toBeUndefined() // prettier-ignore
    const inside = camera('Curlew', MODES, { media: 'internal', internalBytes: 8e9 })
    expect(one({ takes: [gigabytes('Curlew', 9)], cameras: [on('Curlew')] }, [], [inside]).internalShort).toBe(1e9)
    expect(one({ takes: [gigabytes('Curlew', 7)], cameras: [on('Curlew')] }, [], [inside]).internalShort).toBe(0)
  })

  it('keeps spares of cards that hold the shortest take, and lacks what they lack', () => {
    const cards = [card('a', 64, 90), card('b', 64, 90), card('c', 16, 90)]
    const plan = (...ids: string[]) => ({ takes: [gigabytes('Heron', 50)], cameras: [on('Heron', ...ids)] })
    const of = (spareCards: number, ...ids: string[]) => {
      const budget = one(plan(...ids), cards, [heron], { ...RULES, spareCards })
      return [budget.needed, budget.missing, budget.cards.map((each) => each.spare)]
    }
    expect(of(1, 'a', 'b')).toEqual([1, 0, [false, true]])
    expect(of(1, 'a', 'c')).toEqual([1, 1, [false, false]])
    expect(of(2, 'a', 'b')).toEqual([1, 1, [false, true]])
    expect(of(0, 'c')).toEqual([1, 1, [false]])
    // Just as large as the shortest take is large enough.
    const even = one({ takes: [gigabytes('Heron', 50), gigabytes('Heron', 14.4)], cameras: [on('Heron', 'a', 'c')] }, cards, [heron]) // prettier-ignore
    expect(even.cards.map((each) => each.filledBytes)).toEqual([50e9, 14.4e9])
    expect(one({ takes: [gigabytes('Heron', 14.4)], cameras: [on('Heron', 'a', 'c')] }, cards, [heron], { ...RULES, spareCards: 1 }).missing).toBe(0) // prettier-ignore
    // Where nothing is planned, nothing is spared for.
    expect(one({ takes: [], cameras: [on('Heron')] }, [], [heron], { ...RULES, spareCards: 2 })).toMatchObject({ needed: 0, missing: 0 }) // prettier-ignore
    // A card that may not be used is exchanged, not added.
    const full = [card('x', 128, 90, 'full')]
    expect(one({ takes: [gigabytes('Heron', 50)], cameras: [on('Heron', 'x')] }, full, [heron])).toMatchObject({ needed: 1, missing: 0, openBytes: 50e9 }) // prettier-ignore
  })

  it('goes in by pairs where both slots are written', () => {
    const pair = camera('Curlew', MODES, { slots: 2 })
    const both = (...ids: string[]) => ({ ...on('Curlew', ...ids), bothSlots: true })
    const cards = [card('a', 128, 90), card('b', 64, 90), card('c', 128, 90), card('d', 64, 90)]
    const plan = { takes: [gigabytes('Curlew', 100)], cameras: [both('a', 'b', 'c', 'd')] }
    const budget = one(plan, cards, [pair])
    expect(budget).toMatchObject({ needed: 2, missing: 0 })
    // What is left is reckoned of the same pairs: 15.2 GB on the large ones, 57.6 GB on the small ones.
    expect(secondsLeft(budget, coded('80', 80), RULES)).toBe(1520 + 5760)
    expect(one({ takes: [gigabytes('Curlew', 100)], cameras: [both()] }, [], [pair])).toMatchObject({
      needed: 2,
      missing: 2,
    })
    expect(one({ takes: [gigabytes('Curlew', 100)], cameras: [both('a')] }, cards, [pair])).toMatchObject({
      needed: 2,
      missing: 2,
    })
    // One slot writes once whatever was said.
    expect(one({ takes: [gigabytes('Curlew', 100)], cameras: [both()] }, [], [curlew])).toMatchObject({
      needed: 1,
      missing: 1,
    })
    expect(secondsLeft(one({ takes: [], cameras: [both('a', 'c')] }, cards, [curlew]), coded('80', 80), RULES)).toBe(
      2 * 11_520,
    )
    expect(secondsLeft(one({ takes: [], cameras: [both('a', 'c', 'b')] }, cards, [pair]), coded('80', 80), RULES)).toBe(
      11_520,
    )
  })

  it('names the card that is missing: the usual one, or one that holds the take', () => {
    const short = (size: number, more: Camera) => one({ takes: [gigabytes(more.id, size)], cameras: [on(more.id)] }, [], [more]) // prettier-ignore
    expect(short(50, heron)).toMatchObject({
      missingBytes: 128e9,
      openBytes: 50e9,
      openTakes: [50e9],
      longerThanCard: false,
    })
    expect(short(180, heron)).toMatchObject({ missingBytes: 200e9, missing: 1, longerThanCard: true })
    expect(short(180, { ...curlew })).toMatchObject({ missingBytes: 128e9, missing: 2, longerThanCard: false })
  })

  it('leaves seconds of a mode: on usable cards that are fast enough, inside, and none on tape', () => {
    const cards = [card('a', 100, 90), card('b', 100, 9), card('c', 100, 90, 'in-use')]
    const budget = one({ takes: [gigabytes('Curlew', 40)], cameras: [on('Curlew', 'a', 'c')] }, cards)
    expect(secondsLeft(budget, coded('80', 80), RULES)).toBe(5000)
    expect(secondsLeft(budget, coded('0', 0), RULES)).toBe(0)
    const slow = one({ takes: [], cameras: [on('Curlew', 'b')] }, cards)
    expect([72, 80].map((megabits) => secondsLeft(slow, coded('m', megabits), RULES))).toEqual([10_000, 0])
    const inside = camera('Curlew', MODES, { media: 'internal', internalBytes: 50e9 })
    expect(
      secondsLeft(
        one({ takes: [gigabytes('Curlew', 40)], cameras: [on('Curlew')] }, [], [inside]),
        coded('80', 80),
        RULES,
      ),
    ).toBe(1000)
    expect(
      secondsLeft(
        one({ takes: [gigabytes('Curlew', 60)], cameras: [on('Curlew')] }, [], [inside]),
        coded('80', 80),
        RULES,
      ),
    ).toBe(0)
    const tape = camera('Curlew', MODES, { media: 'tape' })
    expect(secondsLeft(one({ takes: [], cameras: [on('Curlew')] }, [], [tape]), coded('80', 80), RULES)).toBe(0)
  })
})

describe('which mode fits the day', () => {
  const cards = [card('a', 128, 90), card('b', 128, 60)]
  const fits = (seconds: number, of: Camera, ids = ['a', 'b']) => {
    const plan = { takes: [takes(of.id, '80', seconds, 2)], cameras: [on(of.id, ...ids)] }
    return modesForDay(one(plan, cards, [of]), { cameras: [of], cards }, RULES).map((fit) => [
      fit.mode.id,
      fit.fits,
      fit.sentence,
    ])
  }

  it('is the one with the most data that fits, then those that do not', () => {
    // Source: the arithmetic: 115.2 GB a card, 2 000 s at 50 MB/s are 100 GB, at 75 MB/s 150 GB each.
    expect(fits(2000, curlew)).toEqual([
      ['400', true, 'fits, 10 min 8 s to spare'],
      ['80', true, 'fits, 5 h 17 min 20 s to spare'],
      ['600', false, '1 h 6 min 40 s too long for the cards, 1 card too slow'],
    ])
    expect(fits(3000, heron)[0]).toEqual(['80', true, 'fits, 4 h 44 min to spare'])
    expect(fits(3000, heron)[2]?.[1]).toBe(false)
  })

  it('leaves out modes that are away, but for the one that is planned', () => {
    const away = (...ids: string[]) => ({
      ...curlew,
      modes: MODES.map((mode) => ({ ...mode, away: ids.includes(mode.id) })),
    })
    expect(fits(10, away('600')).map(([id]) => id)).toEqual(['400', '80'])
    expect(fits(10, away('80', '600')).map(([id]) => id)).toEqual(['400', '80'])
  })

  it('is said plainly of tape and of what is kept inside', () => {
    expect(fits(100, camera('Deck', MODES, { media: 'tape' }), [])[0]).toEqual(['600', true, 'fits'])
    const inside = camera('Plover', MODES, { media: 'internal', internalBytes: 12e9 })
    expect(fits(100, inside, [])).toEqual([
      ['400', true, 'fits, 40 s to spare'],
      ['80', true, 'fits, 16 min 40 s to spare'],
      ['600', false, '40 s too long for the cards'],
    ])
    const gone = modesForDay({ camera: curlew, planned: on('gone'), rows: [] }, { cameras: [curlew], cards }, RULES)
    expect(gone.map((fit) => [fit.fits, fit.sentence])).toEqual(
      MODES.map(() => [false, 'nothing is known of this camera']),
    )
  })
})

describe('cards that are chosen', () => {
  const chosen = (plan: RecordingPlan, cards: readonly GearCard[], cameras: readonly Camera[], rules = RULES) =>
    assignCards(plan, { cameras, cards }, rules).cameras.map((each) => each.cardIds)
  const empty = (...ids: string[]) => ids.map((id) => on(id))

  it('are the smallest that holds what is left, else the largest; of two alike the slower', () => {
    const cards = [card('c', 128, 90), card('a', 32, 90), card('b', 64, 90), card('b2', 64, 20)]
    const of = (size: number, ...held: GearCard[]) => chosen({ takes: [gigabytes('Curlew', size)], cameras: empty('Curlew') }, held.length > 0 ? held : cards, [curlew])[0] // prettier-ignore
    expect([of(28), of(28.8), of(29), of(57.6), of(58), of(120)]).toEqual([['a'], ['a'], ['b2'], ['b2'], ['c'], ['c', 'b']]) // prettier-ignore
    expect(of(29, card('b', 64, 90), card('b2', 64, 10))).toEqual(['b2'])
    expect(of(29, card('b', 64, 90), card('b2', 64, 9))).toEqual(['b'])
  })

  it('keep a camera that stops at a full card from one that is too small, as a spare too', () => {
    const cards = [card('a', 32, 90), card('b', 64, 90), card('c', 64, 90)]
    const plan = { takes: [gigabytes('Heron', 50), gigabytes('Heron', 30)], cameras: empty('Heron') }
    expect(chosen({ ...plan, takes: [gigabytes('Heron', 50)] }, cards, [heron], { ...RULES, spareCards: 1 })).toEqual([
      ['b', 'c'],
    ])
    expect(chosen(plan, cards, [heron])).toEqual([['c', 'b']])
    expect(chosen({ ...plan, takes: [gigabytes('Heron', 28.8)] }, cards, [heron])).toEqual([['a']])
    expect(
      chosen({ takes: [gigabytes('Curlew', 50)], cameras: empty('Curlew') }, cards, [curlew], {
        ...RULES,
        spareCards: 1,
      }),
    ).toEqual([['b', 'a']])
  })

  it('leave in what fits, take out what does not, and belong to one camera', () => {
    const cards = [card('good', 64, 90), card('slow', 64, 9), card('full', 64, 90, 'full'), card('new', 128, 90)]
    const plan = { takes: [gigabytes('Curlew', 100)], cameras: [on('Curlew', 'slow', 'good', 'full', 'unknown')] }
    expect(chosen(plan, cards, [curlew])).toEqual([['good', 'new']])
    expect(chosen({ ...plan, cameras: [on('gone', 'good')] }, cards, [curlew])).toEqual([[]])
    const two = { takes: [], cameras: [on('Curlew', 'a', 'b'), on('Heron', 'c')] }
    expect(withCard(two, 'Heron', 'a').cameras.map((each) => each.cardIds)).toEqual([['b'], ['c', 'a']])
    expect(withoutCard(two, 'a').cameras.map((each) => each.cardIds)).toEqual([['b'], ['c']])
    expect(withoutCard(two, 'c').cameras.map((each) => each.cardIds)).toEqual([['a', 'b'], []])
  })

  it('go to the faster camera first, and are shared otherwise where that leaves something short', () => {
    const cameras = [camera('Slow', MODES), camera('Fast', MODES)]
    const fastFirst = { takes: [gigabytes('Slow', 50), takes('Fast', '600', 600, 1)], cameras: empty('Slow', 'Fast') }
    expect(chosen(fastFirst, [card('a', 64, 90), card('b', 64, 20)], cameras)).toEqual([['b'], ['a']])
    // The largest would go to two takes that lie as well on two small ones, and the long one has none.
    const stops = cameras.map((each) => ({ ...each, spans: false }))
    const long = { takes: [takes('Fast', '400', 1000, 2), gigabytes('Slow', 110)], cameras: empty('Slow', 'Fast') }
    const cards = [card('a', 64, 90), card('b', 64, 90), card('c', 128, 90)]
    expect(chosen(long, cards, stops)).toEqual([['c'], ['a', 'b']])
    // What the person has put in stays where it is.
    expect(chosen({ ...long, cameras: [on('Slow'), on('Fast', 'c')] }, cards, stops)).toEqual([[], ['c']])
  })
})

describe('a plan that is changed', () => {
  const before: RecordingPlan = { takes: [gigabytes('Curlew', 1), gigabytes('Heron', 2)], cameras: [on('Curlew', 'a'), on('Heron', 'b')] } // prettier-ignore
  const plover = camera('Plover', MODES)
  const rules = { ...RULES, factor: 1.2 }

  it('takes over the mode and the cards of last time, else what is usual', () => {
    const added = (more: Partial<Parameters<typeof withTakes>[1]>) => {
      const plan = withTakes(before, { camera: plover, seconds: 90.4, cards: [], ...more }, rules)
      return { row: plan.takes[2], cards: plan.cameras[2] }
    }
    expect(added({})).toEqual({
      row: takes('Plover', '80', 90, 1, { factor: 1.2 }),
      cards: { ...on('Plover'), cardBytes: 128e9, cardBytesPerSecond: 30e6 },
    })
    expect(added({ seconds: 0.2 }).row?.secondsPerTake).toBe(1)
    const last = takes('Plover', '600', 5, 9, { factor: 2, angles: 3 })
    expect(added({ before: last }).row).toEqual(takes('Plover', '600', 90, 1, { factor: 2 }))
    const away = { ...plover, modes: MODES.map((mode) => ({ ...mode, away: mode.id !== '400' })) }
    expect(added({ before: last, camera: away }).row?.modeId).toBe('400')
    // Of several cards the one in the middle by size.
    const cards = [card('l', 256, 90), card('s', 32, 20), card('m', 64, 60)]
    expect(added({ cards }).cards).toMatchObject({ cardBytes: 64e9, cardBytesPerSecond: 60e6, bothSlots: false, cardIds: [] }) // prettier-ignore
    const cardsBefore = { ...on('Plover', 'x'), bothSlots: true, cardBytes: 1e9, cardBytesPerSecond: 2e6 }
    expect(added({ cards, cardsBefore }).cards).toEqual({ ...cardsBefore, cardIds: [] })
    const again = withTakes(before, { camera: curlew, seconds: 5, cards: [] }, rules)
    expect([again.takes.length, again.cameras]).toEqual([3, before.cameras])
  })

  it('changes one row or one camera, and loses the cards of a camera with its last row', () => {
    expect(changeTakes(before, 1, { takes: 7 }).takes.map((row) => row.takes)).toEqual([1, 7])
    expect(changeCards(before, 'Heron', { bothSlots: true }).cameras.map((each) => each.bothSlots)).toEqual([
      false,
      true,
    ])
    expect(changeCards(before, 'Heron', { bothSlots: true }).takes).toBe(before.takes)
    expect(withoutTakes(before, 0)).toEqual({ takes: [before.takes[1]], cameras: [before.cameras[1]] })
    const twice = { ...before, takes: [...before.takes, gigabytes('Curlew', 3)] }
    expect(withoutTakes(twice, 0).cameras.map((each) => each.cameraId)).toEqual(['Curlew', 'Heron'])
  })
})
