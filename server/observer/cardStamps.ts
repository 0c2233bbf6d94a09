import { contentOf } from '../../core/cards/load/load'
import type { Db } from '../db/connection'
import { cardStamps, putCardStamps, type CardStamp } from '../db/queries/stays'
import { stampOf, type Listing } from '../media/listing'
import type { Medium } from '../media/mediumOf'

type Stamps = Exclude<Awaited<ReturnType<Medium['stamps']>>, 'none'>

type Entry = Listing['walked'][number]

/** What a card listed, on a file system that tells a file from another of its size and time. */
interface Seen {
  readonly listing: Listing
  readonly stamps: Stamps
}

/** Files of a card by path, one byte a character. */
type Stamped = ReadonlyMap<string, CardStamp>

/**
 * Notices that files of a card were rewritten with size and time kept, where its file system tells one from another.
 */
export class CardStamps {
  readonly #seen = new Map<string, Seen>()
  readonly #kept = new Map<string, Seen>()

  constructor(readonly db: Db) {}

  /** Since the last listing in the same stay. */
  async wasTouched(stayId: string, listing: Listing, medium: Medium): Promise<boolean> {
    const before = this.#seen.get(stayId)
    if (before?.listing === listing) return false
    const now = await seenNow(listing, medium)
    if (now === undefined) return false
    this.#seen.set(stayId, now)
    return before !== undefined && !listsTheSame(before, now) && isOtherFile(stampsOf(before), stampsOf(now))
  }

  /** Since the card was last known as that of a load, in whatever stay. */
  async isWrittenAnew(loadId: string, listing: Listing, medium: Medium): Promise<boolean> {
    const now = await seenNow(listing, medium)
    return now !== undefined && isOtherFile(await cardStamps(this.db, loadId), stampsOf(now))
  }

  /** Keeps what was seen of a card that is known, for the stays to come. */
  async keep(stayId: string, loadId: string): Promise<void> {
    const now = this.#seen.get(stayId)
    const key = `${stayId} ${loadId}`
    const kept = this.#kept.get(key)
    if (now === undefined || kept === now) return
    if (!kept || !listsTheSame(kept, now)) await putCardStamps(this.db, loadId, stampsOf(now))
    this.#kept.set(key, now)
  }
}

/** `undefined` where the file system does not tell a file from another of its size and time. */
async function seenNow(listing: Listing, medium: Medium): Promise<Seen | undefined> {
  const stamps = await medium.stamps()
  return stamps === 'none' ? undefined : { listing, stamps }
}

function stampsOf({ listing, stamps }: Seen): Stamped {
  const files = listing.walked.filter((entry) => entry.kind === 'file')
  return new Map(
    files.map((entry) => [
      entry.path.toString('latin1'),
      { listed: contentOf(entry), stamp: textOf(stampOf(stamps, entry)) },
    ]),
  )
}

const textOf = ({ inode, changedMs }: ReturnType<typeof stampOf>) => `${inode} ${changedMs}`

/** Whether a file lists as before and is another one. */
const isOtherFile = (before: Stamped, now: Stamped): boolean =>
  [...before].some(([path, { listed, stamp }]) => {
    const file = now.get(path)
    return file !== undefined && file.listed === listed && file.stamp !== stamp
  })

/** Whether two listings are of the same files: of a large card, without a table of either. */
function listsTheSame(before: Seen, now: Seen): boolean {
  const [a, b] = [before.listing.walked, now.listing.walked]
  return (
    before.stamps === now.stamps && a.length === b.length && a.every((one, at) => isSameEntry(one, b[at], now.stamps))
  )
}

function isSameEntry(a: Entry, b: Entry | undefined, stamps: Stamps): boolean {
  if (b?.kind !== a.kind || !a.path.equals(b.path)) return false
  if (a.kind !== 'file') return true
  const hasSameNode = stamps !== 'inode-and-change' || a.node === b.node
  return a.sizeBytes === b.sizeBytes && a.modifiedMs === b.modifiedMs && a.changedMs === b.changedMs && hasSameNode
}
