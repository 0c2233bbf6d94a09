import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assignCards } from './assign'
import { effort, fitTakes } from './fit'
import type { Camera, GearCard } from './gear'
import { leastRooms } from './need'
import { planBudget, type RecordingPlan } from './plan'
import { planAnswer } from './sentence'
import { camera as anyCamera, card as anyCard, coded } from './testGear'

/**
 * Whether takes fit on cards, by trying everything: each take whole on any card, or over any empty ones that are all
 * too small for it, in any order of filling. Written without a thought of speed, as a truth of another kind.
 */
function fitsAnyhow(takes: readonly number[], cards: readonly number[], spans: boolean): boolean {
  const isLikeOneBefore = (rooms: readonly number[], empty: readonly boolean[], card: number) =>
    rooms.some((room, each) => each < card && room === rooms[card] && empty[each] === empty[card])
  const place = (at: number, rooms: readonly number[], empty: readonly boolean[]): boolean => {
    const bytes = takes[at]
    if (bytes === undefined) return true
    const whole = rooms.some(
      (room, card) =>
        room >= bytes &&
        !isLikeOneBefore(rooms, empty, card) &&
        place(
          at + 1,
          rooms.map((one, each) => (each === card ? one - bytes : one)),
          empty.map((one, each) => one && each !== card),
        ),
    )
    const goOn = (left: number, now: readonly number[], still: readonly boolean[]): boolean =>
      now.some((room, card) => {
        if (!still[card] || room >= bytes || room <= 0 || isLikeOneBefore(now, still, card)) return false
        const part = Math.min(room, left)
        const rest = now.map((one, each) => (each === card ? one - part : one))
        const others = still.map((one, each) => one && each !== card)
        return left > part ? goOn(left - part, rest, others) : place(at + 1, rest, others)
      })
    return whole || (spans && goOn(bytes, rooms, empty))
  }
  return place(
    0,
    cards,
    cards.map(() => true),
  )
}

const one = (bytes: number) => ({ bytes, count: 1 })
const sorted = (takes: readonly number[]) => [...takes].sort((a, b) => b - a)
const RUNS = Number(process.env.YENDRA_RUNS ?? 400)

/** Every choice of up to so many of these, each as often as one likes, the order left aside. */
function some(of: readonly number[], most: number, from = 0): number[][] {
  if (most === 0) return [[]]
  return [[], ...of.slice(from).flatMap((one, at) => some(of, most - 1, from + at).map((rest) => [one, ...rest]))]
}
/** As a plan lists them: each length once with its count, the shortest first, and rows that say nothing. */
const rowsOf = (takes: readonly number[]) => [
  { bytes: 0, count: 3 },
  ...[...new Set(takes)].map((bytes) => ({ bytes, count: takes.filter((other) => other === bytes).length })),
  { bytes: 50, count: 0 },
]
const sum = (numbers: readonly number[]) => numbers.reduce((all, each) => all + each, 0)

describe('whether takes fit on cards', () => {
  it('is answered right in every small case: up to four takes on up to three cards', () => {
    for (const takes of some([2, 3, 5, 7], 4))
      for (const cards of some([3, 4, 6, 9], 3))
        for (const spans of [false, true]) {
          const name = `${takes.join()} on ${cards.join()}${spans ? ', going on' : ''}`
          const found = fitTakes(rowsOf(takes), cards, spans)
          expect(typeof found === 'object', name).toBe(fitsAnyhow(sorted(takes), cards, spans))
          if (typeof found !== 'object') continue
          expect(found.length, name).toBe(cards.length)
          expect(
            found.every((bytes, at) => bytes >= 0 && bytes <= (cards[at] ?? 0)),
            name,
          ).toBe(true)
          expect(sum(found), name).toBe(sum(takes))
        }
  })

  it('is answered as trying everything answers it, up to eight takes on four cards', () => {
    let unknown = 0
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 8 }),
        fc.array(fc.constantFrom(9, 16, 18, 25, 36), { minLength: 1, maxLength: 4 }),
        fc.boolean(),
        (takes, cards, spans) => {
          const found = fitTakes(takes.map(one), cards, spans)
          if (found === 'unknown') unknown += 1
          else expect(typeof found === 'object').toBe(fitsAnyhow(sorted(takes), cards, spans))
          if (typeof found !== 'object') return
          found.forEach((bytes, at) => expect(bytes).toBeLessThanOrEqual(cards[at] ?? 0))
          expect(found.reduce((sum, bytes) => sum + bytes, 0)).toBe(takes.reduce((sum, bytes) => sum + bytes, 0))
        },
      ),
      { numRuns: RUNS },
    )
    expect(unknown).toBe(0)
  })

  it('is answered for many takes of few lengths', () => {
    // 40 takes of 7 and 40 of 5 on cards of 24: 7 + 7 + 5 + 5 fills one, so that 20 are needed and do.
    const takes = [
      { bytes: 7, count: 40 },
      { bytes: 5, count: 40 },
    ]
    const of = (count: number) =>
      fitTakes(
        takes,
        Array.from({ length: count }, () => 24),
        false,
      )
    expect(of(20)).toEqual(Array.from({ length: 20 }, () => 24))
    expect(of(19)).toBe('none')
  })

  it('is left open where the search gives up', () => {
    expect(fitTakes([one(5), one(4), one(3), one(3), one(3)], [9, 9], false, effort(1))).toBe('unknown')
  })
})

/** The fewest cards of ten more, where each take that is longer and may not go on has one of its own length. */
function fewestMore(takes: readonly number[], cards: readonly number[], spans: boolean): { more: number; own: number } {
  const long = spans ? [] : sorted(takes).filter((bytes) => bytes > 10)
  for (let more = 0; ; more += 1)
    for (let own = 0; own <= Math.min(more, long.length); own += 1) {
      const tens = Array.from({ length: more - own }, () => 10)
      if (fitsAnyhow(sorted(takes).slice(own), [...cards, ...tens], spans)) return { more, own }
    }
}

describe('cards that are lacking', () => {
  it('are counted right in every small case, and what is in use is as little as the spares want', () => {
    for (const takes of some([3, 5, 8, 14], 3))
      for (const cards of some([6, 9, 14], 3))
        for (const spans of [false, true]) {
          const name = `${takes.join()} on ${cards.join()}${spans ? ', going on' : ''}`
          const { more, own } = fewestMore(takes, cards, spans)
          for (const mostUsed of [-1, 0, 1, 3]) {
            const need = leastRooms(rowsOf(takes), { rooms: cards, spans, nominal: 10, mostUsed })
            expect({ more: need.more, tooLong: need.tooLong.length, sure: need.sure }, name).toEqual({
              ...{ more, tooLong: own, sure: true },
            })
            expect(need.filled.length, name).toBe(cards.length)
            expect(
              need.filled.every((bytes, at) => bytes <= (cards[at] ?? 0)),
              name,
            ).toBe(true)
            expect(sum(need.filled) + sum(need.open.map((one) => one.bytes * one.count)), name).toBe(sum(takes))
            if (more > 0) continue
            const largest = sorted(cards)
            const fewest = cards.findIndex((_, at) => fitsAnyhow(sorted(takes), largest.slice(0, at), spans))
            const used = need.filled.filter((bytes) => bytes > 0).length
            expect(used, name).toBeLessThanOrEqual(Math.max(mostUsed, fewest < 0 ? cards.length : fewest))
          }
        }
  })

  const rooms = (some: readonly number[], more: object = {}) => ({
    ...{ rooms: some, spans: false, nominal: 10, mostUsed: some.length },
    ...more,
  })

  it('are as few as there can be, and none where a fit exists', () => {
    let unsure = 0
    let tooMany = 0
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 24 }), { minLength: 1, maxLength: 5 }),
        fc.array(fc.constantFrom(9, 12, 18), { maxLength: 3 }),
        fc.boolean(),
        fc.integer({ min: 0, max: 3 }),
        (takes, cards, spans, mostUsed) => {
          const need = leastRooms(takes.map(one), rooms(cards, { spans, mostUsed }))
          if (!need.sure) unsure += 1
          const fits = (added: number) =>
            fitsAnyhow(sorted(takes), [...cards, ...Array.from({ length: added }, () => 10)], spans)
          if (need.more === 0) {
            expect(fits(0)).toBe(true)
            const largest = [...cards].sort((a, b) => b - a)
            const used = need.filled.filter((bytes) => bytes > 0).length
            // As few cards as the spares want, or as there can be.
            if (used > mostUsed && need.sure)
              expect(fitsAnyhow(sorted(takes), largest.slice(0, used - 1), spans)).toBe(false)
          } else if (spans || takes.every((bytes) => bytes <= 10)) {
            expect(fits(need.more)).toBe(true)
            if (need.sure) expect(fits(0)).toBe(false)
            if (fits(need.more - 1)) tooMany += 1
          } else if (need.sure) expect(fits(0)).toBe(false)
        },
      ),
      { numRuns: RUNS },
    )
    // Where the search gives up, one card more than needed is said at times; never that something is short which is
    // not.
    expect(unsure).toBeLessThan(RUNS / 50)
    expect(tooMany).toBeLessThan(RUNS / 50)
  })

  it('leave a spare where the takes can lie closer', () => {
    // One after the other they take three cards; 6 + 4 and 5 + 5 take two.
    const need = leastRooms([one(6), one(5), one(5), one(4)], rooms([10, 10, 10], { mostUsed: 2 }))
    expect(need.filled.filter((bytes) => bytes > 0)).toEqual([10, 10])
  })
})

const camera = (id: string, megabits: number, more: Partial<Camera> = {}): Camera =>
  anyCamera(id, [coded(`${megabits}`, megabits)], more)
const card = (id: string, gigabytes: number, megabytes = 90) => anyCard(id, gigabytes, megabytes)
/** Takes of whole gigabytes at 80 Mb/s, of which 100 s are 1 GB. */
const gigabytes = (cameraId: string, size: number, megabits = 80) => ({
  ...{ cameraId, modeId: `${megabits}`, secondsPerTake: (size * 8000) / megabits, takes: 1, angles: 1, factor: 1 },
})
const on = (cameraId: string, cardIds: readonly string[], bothSlots = false) => ({
  ...{ cameraId, bothSlots, cardBytes: 64e9, cardBytesPerSecond: 90e6, cardIds },
})
const RULES = { fillLimit: 0.9, spareCards: 0 }

describe('a camera whose takes fit', () => {
  it('is not told that it lacks cards because the largest one is full', () => {
    const cards = [card('a', 64), card('b', 128), card('c', 64)]
    const plan = {
      takes: [gigabytes('Curlew', 60), gigabytes('Curlew', 110)],
      cameras: [on('Curlew', ['a', 'b', 'c'])],
    }
    const budget = planBudget(plan, { cameras: [camera('Curlew', 80)], cards }, RULES)
    expect(planAnswer(budget).sentence).toMatch(/^Every take has its card: 3 cards/)
    expect(budget.cameras[0]?.cards.map((each) => Math.round(each.filledBytes / 1e8))).toEqual([576, 1100, 24])
  })

  it('has its cards paired by what they hold, not by the order of the list', () => {
    const cards = [card('a', 128), card('b', 32), card('c', 128), card('d', 32)]
    const plan = { takes: [gigabytes('Curlew', 50)], cameras: [on('Curlew', ['a', 'b', 'c', 'd'], true)] }
    const budget = planBudget(plan, { cameras: [camera('Curlew', 80, { slots: 2 })], cards }, RULES)
    expect(planAnswer(budget).sentence).toMatch(/^Every take has its card: 2 cards/)
    expect(budget.cameras[0]?.cards.map((each) => each.filledBytes / 1e9)).toEqual([50, 0, 50, 0])
  })

  it('is told “perhaps” where nobody knows', () => {
    const unsure = planBudget(
      { takes: [gigabytes('Curlew', 60)], cameras: [on('Curlew', [])] },
      { cameras: [camera('Curlew', 80)], cards: [] },
      RULES,
    )
    const budget = { ...unsure, cameras: unsure.cameras.map((each) => ({ ...each, sure: false })) }
    expect(planAnswer(budget).sentence).toBe('Perhaps two more cards are needed.')
    expect(planAnswer(budget).why).toMatch(/^Curlew perhaps lacks 2 cards of 64.0 GB/)
  })
})

describe('cards that are shared out', () => {
  /** The fewest cards missing over every way to give each card to a camera or to none. */
  function leastMissing(plan: RecordingPlan, cameras: readonly Camera[], cards: readonly GearCard[]): number {
    const ways = (cameras.length + 1) ** cards.length
    let least = Infinity
    for (let way = 0; way < ways; way += 1) {
      const to = cards.map((_, at) => Math.floor(way / (cameras.length + 1) ** at) % (cameras.length + 1))
      const given = plan.cameras.map((each, at) => ({
        ...each,
        cardIds: cards.filter((_, card) => to[card] === at).map((each) => each.id),
      }))
      const budget = planBudget({ ...plan, cameras: given }, { cameras, cards }, RULES)
      // A card that is too slow is exchanged, not added: such a way is none.
      if (budget.tooSlow.length === 0) least = Math.min(least, budget.missing)
    }
    return least
  }

  it('leave as little missing as any way to share them out, in every small case', () => {
    const kinds = [card('s', 32, 20), card('m', 64), card('l', 128)]
    const days = [
      [gigabytes('A', 50, 400), gigabytes('A', 50, 400), gigabytes('B', 110)],
      [gigabytes('A', 28), gigabytes('B', 57), gigabytes('B', 30)],
      [gigabytes('A', 22, 600), ...Array.from({ length: 3 }, () => gigabytes('B', 20))],
      [...Array.from({ length: 3 }, () => gigabytes('A', 30, 400)), gigabytes('B', 60, 600)],
    ]
    for (const spans of [false, true])
      for (const [day, takes] of days.entries())
        for (const held of some([0, 1, 2], 4)) {
          const cards = held.flatMap((kind, at) =>
            kinds.slice(kind, kind + 1).map((one) => ({ ...one, id: `${kind}/${at}` })),
          )
          const cameras = ['A', 'B'].map((id) => anyCamera(id, [80, 400, 600].map((rate) => coded(`${rate}`, rate)), { spans })) // prettier-ignore
          const plan = { takes, cameras: [on('A', []), on('B', [])] }
          const given = assignCards(plan, { cameras, cards }, RULES)
          const ids = given.cameras.flatMap((each) => each.cardIds)
          expect(new Set(ids).size).toBe(ids.length)
          const found = planBudget(given, { cameras, cards }, RULES)
          expect(found.tooSlow).toEqual([])
          expect(found.missing, `day ${day} on ${held.join()}, ${spans}`).toBe(leastMissing(plan, cameras, cards))
        }
  })
})
