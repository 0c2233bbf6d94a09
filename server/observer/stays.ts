import { isSameStay, type LeftHow, type StayMark } from '../../core/cards/load/stay'
import type { Db } from '../db/connection'
import type { ReaderRow } from '../db/queries/readers'
import { beginStay, endStay, endStays, seeStay, stay, type StayRow } from '../db/queries/stays'
import type { MountNews } from '../media/mountNews'
import type { ReaderContent } from '../media/mediumOf'
import { stayPlace, tellsSwaps } from '../media/stayMark'

interface Open {
  readonly id: string
  readonly mark: StayMark
  /** Up to which news of mounts it is known to have been there. */
  heard: number
  seenAt: number
}

const SEEN_EVERY_MS = 20_000

/**
 * Knows which stay of a card is the one that lies in a reader now. A stay ends with its medium: what comes after it in
 * the same place is another card until it was compared.
 */
export class Stays {
  readonly #open = new Map<string, Open>()

  constructor(
    readonly db: Db,
    readonly host: string,
    readonly news: MountNews,
  ) {}

  /** Nobody watched before: whatever lay in the readers may have been changed. */
  async begin(): Promise<void> {
    await endStays(this.db, this.host, 'restarted')
    this.#open.clear()
  }

  /** The computer slept: nobody saw what was put in meanwhile. */
  async slept(): Promise<void> {
    await endStays(this.db, this.host, 'slept')
    this.#open.clear()
  }

  async left(readerId: string, how: LeftHow): Promise<void> {
    const open = this.#open.get(readerId)
    this.#open.delete(readerId)
    if (open) await endStay(this.db, open.id, how)
  }

  /** The stay of what lies in a reader now; a new one when anything tells it from the one before. */
  async of(row: ReaderRow, content: ReaderContent): Promise<StayRow> {
    const { root } = content.medium
    const heard = this.news.now
    const seen = await stayPlace(row, content)
    const open = this.#open.get(row.id)
    const remounted = open !== undefined && !row.simulated && this.news.changedSince(open.heard, root)
    if (open && !remounted && isSameStay(open.mark, { ...seen, volumeUid: open.mark.volumeUid })) {
      open.heard = heard
      const known = await this.#seen(open)
      if (known) return known
    }
    if (open) await this.left(row.id, remounted ? 'remounted' : 'other')
    const volumeUid = (await content.volumeUid()) ?? null
    const swapsSeen = (await tellsSwaps(row, content)) && (row.simulated || this.news.hears)
    const mark = { ...seen, volumeUid }
    const begun = await beginStay(this.db, { readerId: row.id, host: this.host, mark, swapsSeen })
    this.#open.set(row.id, { id: begun.id, mark, heard, seenAt: performance.now() })
    return begun
  }

  async #seen(open: Open): Promise<StayRow | undefined> {
    if (performance.now() - open.seenAt > SEEN_EVERY_MS) {
      await seeStay(this.db, open.id)
      open.seenAt = performance.now()
    }
    const row = await stay(this.db, open.id)
    return row?.leftAt === null ? row : undefined
  }
}
