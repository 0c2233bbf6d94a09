import type { Takes } from './pack'

/** How many choices are tried before the search gives up: some hundredths of a second. */
export const MOST_CHOICES = 2000

/** Counts the choices of one search. */
export interface Effort {
  left: number
}

export const effort = (choices = MOST_CHOICES): Effort => ({ left: choices })

/** How many takes of each size are still to be placed, the longest first. */
type Left = readonly number[]

/**
 * What a search returns: bytes on each card, `none` where it was shown that there is no way, `unknown` where it gave
 * up.
 */
export type Fit = readonly number[] | 'none' | 'unknown'

/**
 * Puts every take on the cards, or shows that they cannot be put there: whole, or, where the camera goes on over
 * several cards (`spans`), over cards that are empty and each too small for it, of which the last has room for more.
 * Exact: a search by branch and bound, card by card from the largest, that remembers what led nowhere.
 *
 * `fitTakes([{ bytes: 4, count: 1 }, { bytes: 3, count: 2 }], [6, 4], false)` is `[6, 4]`.
 */
export function fitTakes(takes: readonly Takes[], cards: readonly number[], spans: boolean, work = effort()): Fit {
  const wanted = takes.filter((one) => one.bytes > 0 && one.count > 0).sort((a, b) => b.bytes - a.bytes)
  const sizes = wanted.map((one) => one.bytes)
  const order = cards.map((room, at) => ({ room, at })).sort((a, b) => b.room - a.room)
  const filled = cards.map(() => 0)
  const search = { sizes, work, filled, deadEnds: new Set<string>() }
  const all = wanted.map((one) => one.count)
  const found = spans ? spreadThen(search, order, all, 0) : fillCards(search, order, all)
  if (found) return filled
  return work.left > 0 ? 'none' : 'unknown'
}

interface Card {
  readonly room: number
  readonly at: number
}

/** Cards over which a take goes on: full ones, and a last one with what is left over on it. */
interface Run {
  readonly used: readonly Card[]
  readonly tail: Card
  readonly over: number
}

interface Search {
  readonly sizes: readonly number[]
  readonly work: Effort
  readonly filled: number[]
  /** States of which it is known that they lead nowhere. */
  readonly deadEnds: Set<string>
}

const isEmpty = (left: Left) => left.every((count) => count === 0)

/** Whether so many takes cannot lie on the cards by count alone: of each size and above, and in all. */
function isHopeless(sizes: readonly number[], cards: readonly Card[], left: Left): boolean {
  let bytes = 0
  let count = 0
  let smallest = 0
  for (const [at, size] of sizes.entries()) {
    const here = left[at] ?? 0
    if (here === 0) continue
    smallest = size
    bytes += size * here
    count += here
    if (cards.reduce((sum, card) => sum + Math.floor(card.room / size), 0) < count) return true
  }
  // What is smaller than the shortest take is lost.
  return cards.reduce((sum, card) => sum + (card.room >= smallest ? card.room : 0), 0) < bytes
}

/** Whether all cards together are too small. */
function isTooMuch(sizes: readonly number[], cards: readonly Card[], left: Left): boolean {
  const bytes = left.reduce((sum, count, at) => sum + count * (sizes[at] ?? 0), 0)
  return cards.reduce((sum, card) => sum + card.room, 0) < bytes
}

/** Puts whole takes on the cards, one card after the other; a card takes as much as it can of each choice. */
function fillCards(search: Search, cards: readonly Card[], left: Left): boolean {
  if (isEmpty(left)) return true
  const [card, ...rest] = cards
  if (!card || search.work.left <= 0) return false
  const { sizes, work, filled, deadEnds } = search
  const state = `${cards.map((one) => one.room).join()}:${left.join()}`
  if (deadEnds.has(state)) return false
  work.left -= 1
  if (!isHopeless(sizes, cards, left))
    for (const choice of choices(sizes, card.room, left)) {
      const after = left.map((count, at) => count - (choice[at] ?? 0))
      if (fillCards(search, rest, after)) {
        for (const [at, count] of choice.entries()) filled[card.at] = (filled[card.at] ?? 0) + count * (sizes[at] ?? 0)
        return true
      }
      if (work.left <= 0) return false
    }
  deadEnds.add(state)
  return false
}

/** What a card may hold of what is left, so that nothing else of it fits; most of the longest first. */
function* choices(sizes: readonly number[], room: number, left: Left, from = 0): Generator<number[]> {
  if (from >= sizes.length) {
    yield []
    return
  }
  const size = sizes[from] ?? 0
  const here = left[from] ?? 0
  const most = Math.min(here, Math.floor(room / size))
  for (let count = most; count >= 0; count -= 1)
    for (const more of choices(sizes, room - count * size, left, from + 1)) {
      const used = more.reduce((sum, each, at) => sum + each * (sizes[from + 1 + at] ?? 0), count * size)
      // With room for one more of this size, the choice with one more is as good.
      if (count < here && room - used >= size) continue
      yield [count, ...more]
    }
}

/**
 * Decides size by size, the longest first, how many takes go on over several cards; the rest lies whole on what is
 * left.
 */
function spreadThen(search: Search, cards: readonly Card[], left: Left, size: number): boolean {
  const { sizes, work, filled, deadEnds } = search
  const bytes = sizes[size]
  if (bytes === undefined) return fillCards(search, cards, left)
  // A tail holds less than its card, so that a state is more than its rooms.
  const state = `${size}/${cards.map((card) => (filled[card.at] === 0 ? card.room : -card.room)).join()}:${left.join()}`
  if (deadEnds.has(state)) return false
  work.left -= 1
  if (isTooMuch(sizes, cards, left)) return false
  // As many whole as there are: nothing is cut that need not be.
  if (spreadThen(search, cards, left, size + 1)) return true
  if (left[size] === 0) return false
  const fewer = left.map((count, at) => (at === size ? count - 1 : count))
  for (const { used, tail, over } of runs(cards, bytes, filled)) {
    work.left -= 1
    if (work.left <= 0) return false
    const rest = [...cards.filter((card) => !used.includes(card) && card !== tail), { room: over, at: tail.at }]
    for (const card of used) filled[card.at] = card.room
    filled[tail.at] = tail.room - over
    if (
      spreadThen(
        search,
        rest.sort((a, b) => b.room - a.room),
        fewer,
        size,
      )
    )
      return true
    for (const card of [...used, tail]) filled[card.at] = 0
  }
  deadEnds.add(state)
  return false
}

/**
 * All ways in which a take can go on over cards that are empty and too small for it. Equal cards stand for each other.
 */
function* runs(cards: readonly Card[], bytes: number, filled: readonly number[]): Generator<Run> {
  const empty = cards.filter((card) => filled[card.at] === 0 && card.room > 0 && card.room < bytes)
  function* pick(from: number, used: readonly Card[], sum: number): Generator<Run> {
    const seen = new Set<number>()
    for (const tail of empty) {
      if (used.length === 0 || used.includes(tail) || seen.has(tail.room)) continue
      seen.add(tail.room)
      if (sum + tail.room >= bytes) yield { used, tail, over: sum + tail.room - bytes }
    }
    for (let at = from; at < empty.length; at += 1) {
      const card = empty[at]
      if (!card || (at > from && empty[at - 1]?.room === card.room) || sum + card.room >= bytes) continue
      yield* pick(at + 1, [...used, card], sum + card.room)
    }
  }
  yield* pick(0, [], 0)
}
