/** So many takes of so many bytes each. */
export interface Takes {
  readonly bytes: number
  readonly count: number
}

export interface Packed {
  /** Bytes on each card, in the order of the cards. */
  readonly filled: readonly number[]
  /** Takes that found no card. */
  readonly open: readonly Takes[]
}

/** No more cards than this are added: whoever needs more has mistyped, and nobody waits for the count. */
export const MOST_CARDS = 2000

/**
 * Puts whole takes on cards, the longest first, each on the first card with room: no take is cut to fill a card. A take
 * for which no card has room goes on over empty ones where the camera does that (`spans`). With `more`, cards of that
 * many bytes are added until everything has room, up to `MOST_CARDS`. Quick, and at times short of the best: see
 * `fitTakes`.
 *
 * `packTakes([{ bytes: 5, count: 3 }], [9, 9], false)` fills `[5, 5]` and leaves one take open.
 */
export function packTakes(takes: readonly Takes[], cards: readonly number[], spans: boolean, more = 0): Packed {
  const rooms = [...cards]
  const filled = cards.map(() => 0)
  const canAdd = () => rooms.length < cards.length + MOST_CARDS
  const add = () => {
    rooms.push(more)
    filled.push(0)
    return rooms.length - 1
  }
  const put = (at: number, bytes: number) => {
    filled[at] = (filled[at] ?? 0) + bytes
    rooms[at] = (rooms[at] ?? 0) - bytes
  }
  /**
   * Takes of this length that the card has room for; a take that fits to the last byte must not be lost to rounding.
   */
  const fit = (at: number, bytes: number) => Math.floor((rooms[at] ?? 0) / bytes)
  /** Spreads one long take over cards that hold nothing yet; false, with nothing changed, when they do not suffice. */
  const spread = (bytes: number): boolean => {
    const empty = rooms.map((_, at) => at).filter((at) => filled[at] === 0)
    const there = empty.reduce((sum, at) => sum + (rooms[at] ?? 0), 0)
    if (there + more * (cards.length + MOST_CARDS - rooms.length) < bytes) return false
    let left = bytes
    for (const at of empty) {
      const part = Math.min(left, rooms[at] ?? 0)
      put(at, part)
      left -= part
    }
    while (left > 0) {
      const part = Math.min(left, more)
      put(add(), part)
      left -= part
    }
    return true
  }
  const open: Takes[] = []
  for (const { bytes, count } of [...takes].sort((a, b) => b.bytes - a.bytes)) {
    if (bytes <= 0) continue
    let left = count
    for (let at = 0; at < rooms.length && left > 0; at += 1) {
      const here = Math.min(left, fit(at, bytes))
      if (here > 0) put(at, here * bytes)
      left -= here
    }
    while (left > 0 && more >= bytes && canAdd()) {
      const at = add()
      const here = Math.min(left, fit(at, bytes))
      put(at, here * bytes)
      left -= here
    }
    while (left > 0 && spans && bytes > more && spread(bytes)) left -= 1
    if (left > 0) open.push({ bytes, count: left })
  }
  return { filled, open }
}
