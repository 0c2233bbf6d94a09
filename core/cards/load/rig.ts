import { counted, formatLength } from '../../units/quantity'
import { findingKeyOf, type Finding } from '../findings/findings'
import { habitOf } from '../files/habit'

/** A clip of one lens, in the order in which it was filmed. */
export interface LensClip {
  readonly id: string
  readonly name: string
  readonly seconds: number
  /** By its camera’s clock, in milliseconds since 1970. */
  readonly startMs: number | undefined
}

/** The card of one lens. */
export interface LensCard {
  readonly loadId: string
  readonly label: string
  readonly clips: readonly LensClip[]
}

/** One take as all lenses filmed it, in their order; `undefined` where a lens has none. */
export type RigTake = readonly (LensClip | undefined)[]

export interface Rig {
  readonly takes: readonly RigTake[]
  /** How far the lengths of a take differ at most, in seconds, odd lenses left out. */
  readonly spreadSeconds: number
  /** What is odd about a lens, by the id of its load. */
  readonly odd: ReadonlyMap<string, readonly RigOddity[]>
}

export type RigOddity =
  | { readonly kind: 'missing'; readonly beside: string }
  | { readonly kind: 'length'; readonly name: string; readonly seconds: number; readonly others: number }

/** Cameras of a rig start and stop on one signal, within a second of each other. Common practice, no source. */
const EQUAL_SECONDS = 1
/** Leaving a take out is likelier than that two lenses filmed one take at different lengths. */
const GAP = 0.75

const MOST_CELLS = 4_000_000

const isEqual = (a: LensClip, b: LensClip) => Math.abs(a.seconds - b.seconds) <= EQUAL_SECONDS

/** Lays the clips of two lenses side by side, in order, so that lengths agree as far as they can. */
function sideBySide(
  left: readonly LensClip[],
  right: readonly LensClip[],
): [LensClip | undefined, LensClip | undefined][] {
  // As many as this are laid side by side one by one.
  if (left.length * right.length > MOST_CELLS)
    return Array.from({ length: Math.max(left.length, right.length) }, (_, at) => [left[at], right[at]])
  const costs = Array.from({ length: left.length + 1 }, (_, row) =>
    Array.from({ length: right.length + 1 }, (__, column) => (row === 0 ? column : column === 0 ? row : 0) * GAP),
  )
  const at = (row: number, column: number) => costs[row]?.[column] ?? 0
  const match = (row: number, column: number) => {
    const [a, b] = [left[row - 1], right[column - 1]]
    return a && b && isEqual(a, b) ? 0 : 1
  }
  for (let row = 1; row <= left.length; row += 1)
    for (let column = 1; column <= right.length; column += 1) {
      const line = costs[row]
      if (line)
        line[column] = Math.min(
          at(row - 1, column - 1) + match(row, column),
          at(row - 1, column) + GAP,
          at(row, column - 1) + GAP,
        )
    }
  const pairs: [LensClip | undefined, LensClip | undefined][] = []
  for (let [row, column] = [left.length, right.length]; row > 0 || column > 0;) {
    const isPair = row > 0 && column > 0 && at(row, column) === at(row - 1, column - 1) + match(row, column)
    const isLeft = !isPair && row > 0 && at(row, column) === at(row - 1, column) + GAP
    pairs.push([isPair || isLeft ? left[row - 1] : undefined, isLeft ? undefined : right[column - 1]])
    if (isPair || isLeft) row -= 1
    if (!isLeft) column -= 1
  }
  return pairs.reverse()
}

const middle = (numbers: readonly number[]): number => {
  const sorted = [...numbers].sort((a, b) => a - b)
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? 0
}

/**
 * Which clips of the lenses of a rig are one take, and which lens is the odd one: with a take less, or of another
 * length.
 */
export function rigOf(cards: readonly LensCard[]): Rig {
  const counts = cards.map((card) => card.clips.length)
  const most = [...counts].sort(
    (a, b) => counts.filter((count) => count === b).length - counts.filter((count) => count === a).length || b - a,
  )[0]
  const reference = cards.find((card) => card.clips.length === most)
  if (!reference) return { takes: [], spreadSeconds: 0, odd: new Map() }
  const laid = cards.map((card) => (card === reference ? [] : sideBySide(reference.clips, card.clips)))
  const beside = (card: number, clip: LensClip) =>
    cards[card] === reference ? clip : laid[card]?.find(([left]) => left === clip)?.[1]
  const takes: RigTake[] = reference.clips.map((clip) => cards.map((_, card) => beside(card, clip)))
  const odd = new Map<string, RigOddity[]>()
  const say = (card: LensCard | undefined, oddity: RigOddity) => {
    if (card) odd.set(card.loadId, [...(odd.get(card.loadId) ?? []), oddity])
  }
  let spreadSeconds = 0
  for (const [at, take] of takes.entries()) {
    const filmed = take.flatMap((clip) => clip ?? [])
    const usual = middle(filmed.map((clip) => clip.seconds))
    const equal = filmed.map((clip) => clip.seconds).filter((length) => Math.abs(length - usual) <= EQUAL_SECONDS)
    spreadSeconds = Math.max(spreadSeconds, Math.max(...equal) - Math.min(...equal))
    for (const [card, clip] of take.entries()) {
      if (!clip) say(cards[card], { kind: 'missing', beside: reference.clips[at]?.name ?? '' })
      else if (Math.abs(clip.seconds - usual) > EQUAL_SECONDS)
        say(cards[card], { kind: 'length', name: clip.name, seconds: clip.seconds, others: usual })
    }
  }
  // What one lens alone filmed more than the others.
  for (const [card, pairs] of laid.entries())
    for (const [left, right] of pairs)
      if (!left && right) say(cards[card], { kind: 'length', name: right.name, seconds: right.seconds, others: 0 })
  return { takes, spreadSeconds, odd }
}

function oddityWords(oddity: RigOddity): string {
  if (oddity.kind === 'missing') return `nothing beside ${oddity.beside}`
  const { name, seconds, others } = oddity
  if (others === 0) return `${name} is on no other lens`
  const more = seconds - others
  return `${name} is ${formatLength(Math.abs(more))} ${more < 0 ? 'shorter' : 'longer'} than on the others`
}

const SHOWN = 3
const listed = (words: readonly string[]) =>
  words.length <= SHOWN ? words.join('; ') : `${words.slice(0, SHOWN).join('; ')}; and ${words.length - SHOWN} more`

/** The rig in one sentence, the odd lens first. */
export function rigSentence(name: string, cards: readonly LensCard[], { takes, spreadSeconds, odd }: Rig): string {
  const wrong = cards.filter((card) => odd.has(card.loadId))
  const all = `${counted(cards.length, 'card')}, ${counted(takes.length, 'take')}`
  if (wrong.length === 0)
    return (
      `“${name}”: ${all} on each, of equal ` +
      `length${spreadSeconds >= 0.1 ? ` within ${spreadSeconds.toFixed(1)} s` : ''}.`
    )
  const words = wrong.map((card) => `“${card.label}” is odd (${listed((odd.get(card.loadId) ?? []).map(oddityWords))})`)
  return `“${name}”: ${all}; ${words.join(', and ')}.`
}

/** What is asked at the card of the odd lens, before anybody formats it. */
export function rigFinding(name: string, label: string, oddities: readonly RigOddity[]): Finding | undefined {
  if (oddities.length === 0) return undefined
  const words = oddities.map(oddityWords)
  return {
    kind: 'rig',
    weight: 'ask',
    paths: [],
    files: oddities.length,
    key: findingKeyOf('rig', [name, ...words]),
    sentence:
      `In the rig “${name}”, “${label}” is the odd one: ${listed(words)}. Did this lens not run, or is ` +
      'the rest on another card?',
  }
}

/** One lens may have missed a take, or stopped too soon. */
const LEAST_SHARE = 0.6
const LEAST_TAKES = 2

/**
 * Two cards may be lenses of one rig: called alike, with takes of equal length that began within a minute, as far as
 * clocks go.
 */
function isAlike(a: LensCard, b: LensCard): boolean {
  const habit = (card: LensCard) => [...new Set(card.clips.map((clip) => habitOf(clip.name)))].sort().join()
  const most = Math.max(a.clips.length, b.clips.length)
  // What is far from as many takes needs no laying side by side.
  if (habit(a) !== habit(b) || Math.min(a.clips.length, b.clips.length) < LEAST_SHARE * most) return false
  const equal = sideBySide(a.clips, b.clips).filter(([left, right]) => {
    if (!left || !right || !isEqual(left, right)) return false
    return left.startMs === undefined || right.startMs === undefined || Math.abs(left.startMs - right.startMs) < 60_000
  })
  return equal.length >= LEAST_TAKES && equal.length >= LEAST_SHARE * most
}

/** The largest set of cards that may be lenses of one rig, three at least; a person says whether they are. */
export function likelyRig(cards: readonly LensCard[]): readonly LensCard[] | undefined {
  const sets = cards.map((card) => cards.filter((other) => other === card || isAlike(card, other)))
  const [best] = sets.sort((a, b) => b.length - a.length)
  return best && best.length >= 3 ? best : undefined
}
