import { effort, fitTakes, type Effort, type Fit } from './fit'
import { packTakes, type Takes } from './pack'

/** What takes are recorded on: rooms in bytes up to the limit. With two slots that both write, a pair is one room. */
export interface Rooms {
  readonly rooms: readonly number[]
  readonly spans: boolean
  /** Of a card that is added. */
  readonly nominal: number
  /** So many of the rooms may be used; the others are kept as spares. */
  readonly mostUsed: number
}

export interface Need {
  /** Bytes in each room. */
  readonly filled: readonly number[]
  /** Takes that the rooms have no place for. */
  readonly open: readonly Takes[]
  /** Rooms to be added for them. */
  readonly more: number
  /** Takes that are longer than an added card, of those for which there is no room, the longest first. */
  readonly tooLong: readonly number[]
  /** False when the search gave up before it was shown that something is short. */
  readonly sure: boolean
}

/** Up to so many rooms the fewest that do are searched for. */
const MOST_ROOMS = 24

/** The fewest cards that the takes need beyond those that are there, and of these as few as the spares want. */
export function leastRooms(takes: readonly Takes[], asked: Rooms, work = effort()): Need {
  const quick = packTakes(takes, asked.rooms, asked.spans)
  if (quick.open.length === 0) return withSpares(takes, asked, quick.filled, work)
  const added = packTakes(quick.open, [], asked.spans, asked.nominal)
  const each = added.open.flatMap(({ bytes, count }) => Array.from({ length: Math.min(count, 1000) }, () => bytes))
  const lacking = added.filled.length + added.open.reduce((sum, one) => sum + one.count, 0)
  const lacks = (more: number, tooLong: readonly number[], sure = true): Need => ({
    ...{ filled: quick.filled, open: quick.open, more, tooLong, sure },
  })
  const least = leastByBytes(takes, asked)
  // Whoever lacks that many need not know them to the last one.
  if (least > 0 && asked.rooms.length + lacking > MOST_ROOMS) return lacks(lacking, each)
  for (let more = least; more < lacking; more += 1) {
    const found = withMore(takes, asked, more, work)
    // That it is short is known from here on; how many fewer would do is not worth the time.
    if (found === 'unknown') return lacks(lacking, each, more > 0)
    if (found === 'none') continue
    return more === 0 ? withSpares(takes, asked, found.filled, work) : lacks(more, found.tooLong)
  }
  return lacks(lacking, each)
}

/** Fewer rooms than these cannot do, by their bytes alone. */
function leastByBytes(takes: readonly Takes[], { rooms, nominal }: Rooms): number {
  const bytes = takes.reduce((sum, one) => sum + one.bytes * one.count, 0)
  const largest = Math.max(nominal, ...takes.map((one) => one.bytes))
  const over = bytes - rooms.reduce((sum, room) => sum + room, 0)
  return over > 0 && largest > 0 ? Math.ceil(over / largest) : 0
}

/** With so many rooms more, of which a take that is longer than an added card has one of its own length. */
function withMore(
  takes: readonly Takes[],
  { rooms, spans, nominal }: Rooms,
  more: number,
  work: Effort,
): { filled: readonly number[]; tooLong: readonly number[] } | 'none' | 'unknown' {
  const long = spans ? [] : longest(takes, nominal, more)
  let unknown = false
  for (let own = 0; own <= long.length; own += 1) {
    const cards = [...rooms, ...Array.from({ length: more - own }, () => nominal)]
    const tooLong = long.slice(0, own)
    const filled = fitTakes(without(takes, tooLong), cards, spans, work)
    if (typeof filled === 'object') return { filled: filled.slice(0, rooms.length), tooLong }
    unknown ||= filled === 'unknown'
  }
  return unknown ? 'unknown' : 'none'
}

/** The longest takes above a length, one by one, at most so many. */
function longest(takes: readonly Takes[], above: number, most: number): number[] {
  const found: number[] = []
  for (const { bytes, count } of [...takes].sort((a, b) => b.bytes - a.bytes))
    for (let at = 0; at < count && found.length < most && bytes > above; at += 1) found.push(bytes)
  return found
}

function without(takes: readonly Takes[], some: readonly number[]): Takes[] {
  const left = takes.map((one) => ({ ...one }))
  for (const bytes of some) {
    const one = left.find((each) => each.bytes === bytes && each.count > 0)
    if (one) one.count -= 1
  }
  return left
}

const inUse = (filled: readonly number[]) => filled.filter((bytes) => bytes > 0).length

/** Everything has room: if more rooms are in use than the spares allow, as few as there can be, the largest ones. */
function withSpares(takes: readonly Takes[], asked: Rooms, filled: readonly number[], work: Effort): Need {
  const done = (bytes: readonly number[], sure: boolean): Need => ({
    ...{ filled: bytes, open: [], more: 0, tooLong: [], sure },
  })
  let sure = true
  const largest = asked.rooms.map((room, at) => ({ room, at })).sort((a, b) => b.room - a.room)
  for (let used = Math.max(0, asked.mostUsed); used < inUse(filled); used += 1) {
    const some = largest.slice(0, used)
    const fit: Fit = fitTakes(
      takes,
      some.map((one) => one.room),
      asked.spans,
      work,
    )
    if (fit === 'unknown') sure = false
    if (typeof fit !== 'object') continue
    const bytes = asked.rooms.map(() => 0)
    for (const [at, one] of some.entries()) bytes[one.at] = fit[at] ?? 0
    return done(bytes, sure)
  }
  return done(filled, sure)
}
