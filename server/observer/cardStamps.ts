import { contentOf } from '../../core/cards/load'
import type { Db } from '../db/connection'
import { cardStamps, putCardStamps, type CardStamp } from '../db/queries/stays'
import { stampOf, type Listing } from '../media/listing'
import type { Medium } from '../media/mediumOf'

/** Files of a card by path, one byte a character. */
type Stamped = ReadonlyMap<string, CardStamp>

/** Notices that files of a card were written anew with size and time kept, where its file system tells one from another. */
export class CardStamps {
  readonly #seen = new Map<string, { readonly listing: Listing; readonly files: Stamped }>()
  readonly #kept = new Map<string, Stamped>()

  constructor(readonly db: Db) {}

  /** Since the last listing in the same stay. */
  async wasTouched(stayId: string, listing: Listing, medium: Medium): Promise<boolean> {
    const before = this.#seen.get(stayId)
    if (before?.listing === listing) return false
    const files = await stampsOf(listing, medium)
    if (files === undefined) return false
    this.#seen.set(stayId, { listing, files })
    return before !== undefined && isOtherFile(before.files, files)
  }

  /** Since the card was last known as that of a load, in whatever stay. */
  async isWrittenAnew(loadId: string, listing: Listing, medium: Medium): Promise<boolean> {
    const now = await stampsOf(listing, medium)
    return now !== undefined && isOtherFile(await cardStamps(this.db, loadId), now)
  }

  /** Keeps what was seen of a card that is known, for the stays to come. */
  async keep(stayId: string, loadId: string): Promise<void> {
    const files = this.#seen.get(stayId)?.files
    const key = `${stayId} ${loadId}`
    const kept = this.#kept.get(key)
    if (files === undefined || (kept && areSame(kept, files))) return
    await putCardStamps(this.db, loadId, files)
    this.#kept.set(key, files)
  }
}

/** `undefined` where the file system does not tell a file from another of its size and time. */
async function stampsOf(listing: Listing, medium: Medium): Promise<Stamped | undefined> {
  const stamps = await medium.stamps()
  if (stamps === 'none') return undefined
  return new Map(
    listing.walked.flatMap((entry) => {
      if (entry.kind !== 'file') return []
      const { inode, changedMs } = stampOf(stamps, entry)
      return [[entry.path.toString('latin1'), { listed: contentOf(entry), stamp: `${inode} ${changedMs}` }] as const]
    }),
  )
}

/** Whether a file lists as before and is another one. */
const isOtherFile = (before: Stamped, now: Stamped): boolean =>
  [...before].some(([path, { listed, stamp }]) => {
    const file = now.get(path)
    return file !== undefined && file.listed === listed && file.stamp !== stamp
  })

const areSame = (before: Stamped, now: Stamped): boolean =>
  before.size === now.size &&
  [...now].every(([path, { listed, stamp }]) => {
    const file = before.get(path)
    return file !== undefined && file.listed === listed && file.stamp === stamp
  })
