import { habitsOf } from '../../core/cards/habit'
import { cardChanges, differenceSentence, recogniseLoads } from '../../core/cards/load'
import type { Db } from '../db/connection'
import { entriesOf, load as loadRow, samplesOf } from '../db/queries/cards'
import { loadsLike } from '../db/queries/loadsLike'
import type { ReaderRow, SeenReader } from '../db/queries/readers'
import { lastCardLook, loadsWithPrint } from '../db/queries/seen'
import { seeTwinAgain } from '../db/queries/twins'
import { CARD_ROOT, listCard, samplesEqual, type Listing } from '../media/listing'
import { readerContent, type ReaderContent } from '../media/mediumOf'
import { sameCards, twinAmong, twinOf } from './twins'

/** Which load a card holds. Not settled while the look at it is under way. */
interface Recognised extends Pick<SeenReader, 'loadId' | 'same' | 'twinId' | 'difference'> {
  readonly settled: boolean
}

/** What was made of a card once; asked again when another lies there, it lists something else, or a look was taken. */
interface Known {
  readonly key: string
  readonly seen: Recognised
  readonly volumeUid: string | null
  readonly habits: readonly string[]
}

const NOTHING = {
  cardName: null,
  loadId: null,
  same: false,
  twinId: null,
  difference: null,
  device: undefined,
  capacityBytes: null,
  freeBytes: null,
  volumeUid: null,
  habits: [],
  print: null,
} as const

/** Looks into readers and says which card lies there; listing is left out while nothing seems to have changed. */
export class ReaderLook {
  readonly #known = new Map<string, Known>()
  readonly #listed = new Map<string, { place: string; freeBytes: number; againAt: number; listing: Listing }>()

  constructor(readonly db: Db) {}

  /** `afresh` lists the card and reads its samples whatever is known. */
  async look(row: ReaderRow, afresh: boolean): Promise<SeenReader> {
    const content = await readerContent(this.db, row)
    if (typeof content === 'string') {
      this.#known.delete(row.id)
      this.#listed.delete(row.id)
      return { state: content, ...NOTHING }
    }
    try {
      const [device, room] = await Promise.all([content.medium.device(), content.medium.room()])
      const listing = await this.#listing(row.id, content, afresh)
      const key = `${await content.medium.place()} ${listing.print} ${await lastCardLook(this.db)}`
      const known = this.#known.get(row.id)
      const volumeUid = known?.key === key ? known.volumeUid : ((await content.volumeUid()) ?? null)
      const seen =
        known?.key === key && !afresh ? known.seen : await recognise(this.db, { row, content, listing, volumeUid })
      const habits =
        known?.key === key ? known.habits : habitsOf(listing.files.map((file) => file.pathText)).slice(0, MOST_HABITS)
      // A look that is under way may end at any moment.
      if (seen.settled) this.#known.set(row.id, { key, seen, volumeUid, habits })
      else this.#known.delete(row.id)
      const { loadId, same, twinId, difference } = seen
      if (twinId !== null && twinId !== row.twinId) await seeTwinAgain(this.db, twinId)
      return {
        state: 'card',
        cardName: content.cardName,
        device,
        loadId,
        same,
        twinId,
        difference,
        volumeUid,
        habits,
        print: listing.print,
        ...room,
      }
    } catch {
      // It went away in the middle of the look.
      return { state: 'unreachable', ...NOTHING }
    }
  }

  /** A folder on a busy file system sees its free space change all the time: listing takes a tenth of the time at most. */
  async #listing(readerId: string, { medium }: ReaderContent, afresh: boolean): Promise<Listing> {
    const [place, { freeBytes }, root] = await Promise.all([
      medium.place(),
      medium.room(),
      medium.list(Buffer.alloc(0)),
    ])
    const rootKey = `${place} ${root.map((entry) => `${entry.name.toString('latin1')} ${entry.modifiedMs}`).join('/')}`
    const earlier = this.#listed.get(readerId)
    const begun = performance.now()
    const unchanged = earlier?.place === rootKey && (earlier.freeBytes === freeBytes || begun < earlier.againAt)
    if (unchanged && !afresh) return earlier.listing
    const listing = await listCard(medium)
    const againAt = begun + Math.max(LEAST_PAUSE_MS, PAUSE_FOR_LISTING * (performance.now() - begun))
    this.#listed.set(readerId, { place: rootKey, freeBytes, againAt, listing })
    return listing
  }
}

/** A card has a handful; more of them tell no camera. */
const MOST_HABITS = 60
const LEAST_PAUSE_MS = 5_000
const PAUSE_FOR_LISTING = 10

interface Held {
  readonly row: ReaderRow
  readonly content: ReaderContent
  readonly listing: Listing
  readonly volumeUid: string | null
}

/** Which load a card holds, by what it lists and by samples of its content, and how it differs from the latest look. */
async function recognise(db: Db, { row, content, listing, volumeUid }: Held): Promise<Recognised> {
  const { medium } = content
  const held = { readerId: row.id, volumeUid: volumeUid ?? undefined, name: content.cardName, medium }
  const whole = { same: true, twinId: null, difference: null, settled: true }
  const other = { same: false, twinId: null, settled: true }
  const equal = async (loadId: string, shiftMs = 0) =>
    samplesEqual(medium, await samplesOf(db, loadId), CARD_ROOT, shiftMs)
  let impostor: Recognised | undefined
  for (const load of await loadsWithPrint(db, listing.print)) {
    if (await equal(load.id)) {
      const difference = `The look at “${load.label}” did not come to its end: look at it again.`
      if (!load.lookDone) return { ...other, loadId: load.id, difference, settled: false }
      return { ...whole, loadId: load.id, twinId: (await twinOf(db, held, load, 'equal')) ?? null }
    }
    const difference = `The card in ${row.name} has the names, sizes and times of “${load.label}”, but other content: it is not the card that was copied.`
    impostor ??= { ...other, loadId: load.id, difference }
  }
  if (impostor) return impostor
  const files = listing.files.map((file) => ({ ...file, path: file.pathText }))
  const known = await loadsLike(
    db,
    files.map((file) => file.path),
  )
  const twin = await twinAmong(db, held, files, known)
  if (twin) return { ...whole, loadId: twin.load.id, twinId: twin.id }
  for (const { id, shiftMs } of recogniseLoads(files, await sameCards(db, held, known))) {
    if (!(await equal(id, shiftMs))) continue
    const load = await loadRow(db, id)
    const before = (await entriesOf(db, id)).filter((entry) => entry.kind === 'file')
    const changes = cardChanges(
      before.map((entry) => ({
        path: entry.pathText,
        sizeBytes: entry.sizeBytes,
        modifiedMs: entry.modifiedMs + shiftMs,
      })),
      files,
    )
    return { ...other, loadId: id, difference: differenceSentence(load?.label ?? '', changes, shiftMs) }
  }
  return { ...other, loadId: null, difference: null }
}
