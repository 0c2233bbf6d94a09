import { filmedBetween } from '../../core/cards/files/belongs'
import { habitsOf } from '../../core/cards/files/habit'
import { TOUCHED, type KnownHow } from '../../core/cards/load/stay'
import { counted } from '../../core/units/quantity'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import type { ReaderRow, SeenReader } from '../db/queries/readers'
import { lastCardScan } from '../db/queries/seen'
import {
  doubtCard,
  filesInCopies,
  forgetStay,
  isCardDoubted,
  knowStay,
  lastReadWhole,
  readWhole,
  seeCardOf,
  tryOnce,
  type StayRow,
} from '../db/queries/stays'
import { seeBackupCardAgain } from '../db/queries/backupCards'
import { listCard, mountedInside, type Listing } from '../media/listing'
import { cardFiles, readerContent, type CardFiles, type Medium, type ReaderContent } from '../media/mediumOf'
import { compareCard, isBorneOut, isWithCopies } from '../media/compareCard'
import { CardStamps } from './cardStamps'
import { recognise, type Recognised } from './recognise'
import type { Stays } from './stays'

/** What speaks for a card being the one that it seems to be. */
interface BorneOut {
  readonly seen: Recognised
  /**
   * It is known in this stay, equals a proved copy, or has the ends that were read at its scan; or its files are others
   * by now.
   */
  readonly by?: 'known' | 'copies' | 'ends' | 'rewritten'
}

/**
 * What was made of a card once; asked again in another stay, when it lists something else, was read whole, or a scan
 * was taken.
 */
interface Known {
  readonly key: string
  readonly seen: Recognised
  readonly habits: readonly string[]
  /** Until when it holds that it is unlike a load; a rotten copy that misled may be found out meanwhile. */
  readonly unlikeUntil: number
}

const NOTHING = {
  ...{ cardName: null, loadId: null, same: false, twinId: null, difference: null, device: undefined, stayId: null },
  ...{ capacityBytes: null, freeBytes: null, volumeUid: null, habits: [], print: null },
  ...{ filmedFrom: null, filmedTo: null },
} as const

/** Scans readers and says which card lies there; listing is left out while nothing seems to have changed. */
export class ReaderScan {
  readonly #known = new Map<string, Known>()
  readonly #files = new Map<string, { readonly stayId: string; readonly files: CardFiles }>()
  readonly #stamps: CardStamps
  /**
   * By stay: how many files could be compared with copies when it was compared last, and when it is tried again all the
   * same.
   */
  readonly #compared = new Map<string, { readonly files: number; readonly againAt: number }>()
  readonly #listed = new Map<string, { place: string; freeBytes: number; againAt: number; listing: Listing }>()

  constructor(
    readonly db: Db,
    readonly host: string,
    readonly stays: Stays,
  ) {
    this.#stamps = new CardStamps(db)
  }

  /** `afresh` lists the card and reads its samples whatever is known. */
  async look(row: ReaderRow, afresh: boolean): Promise<SeenReader> {
    const content = await readerContent(this.db, row)
    if (typeof content === 'string') {
      this.#known.delete(row.id)
      this.#listed.delete(row.id)
      this.#endFiles(row.id)
      await this.stays.left(row.id, content === 'empty' ? 'empty' : 'gone')
      return { state: content, ...NOTHING }
    }
    try {
      const { medium } = content
      const [device, room] = await Promise.all([medium.device(), medium.room()])
      const stay = await this.stays.of(row, content)
      const listing = await this.#listing(row.id, content, afresh)
      const key = `${stay.id} ${listing.print} ${await lastCardScan(this.db)} ${await lastReadWhole(this.db, stay.id)}`
      if (await this.#stamps.wasTouched(stay.id, listing, medium)) {
        // One place in each clip would not see it: only reading the card whole tells what it is now.
        const loadId = loadIn(row, stay)
        if (loadId !== null) await doubtCard(this.db, loadId)
        await tryOnce(this.db, stay.id, TOUCHED)
        await forgetStay(this.db, stay.id)
        Object.assign(stay, { loadId: null, twinId: null, knownHow: null, tried: [...stay.tried, TOUCHED] })
      }
      const known = this.#known.get(row.id)
      const holds =
        known?.key === key &&
        ((!afresh && isKnown(stay, known.seen) && !(await this.#maySayMore(stay))) ||
          performance.now() < known.unlikeUntil)
      const seen = holds ? known.seen : await this.#recognise(row, content, listing, stay)
      const habits =
        known?.key === key ? known.habits : habitsOf(listing.files.map((file) => file.pathText)).slice(0, MOST_HABITS)
      // A scan that is under way may end at any moment.
      if (!seen.settled) this.#known.delete(row.id)
      else if (seen !== known?.seen)
        this.#known.set(row.id, { key, seen, habits, unlikeUntil: isUnlike(seen) ? performance.now() + UNLIKE_MS : 0 })
      const { loadId, same, twinId, difference } = seen
      if (loadId !== null && seen.kind === 'own' && same && isKnown(stay, seen) && stay.knownHow !== 'ends')
        await this.#stamps.keep(stay.id, loadId)
      if (twinId !== null && twinId !== row.twinId) await seeBackupCardAgain(this.db, twinId)
      return {
        ...{ state: 'card', cardName: content.cardName, device, loadId, same, twinId, difference },
        ...{ volumeUid: stay.mark.volumeUid, habits, print: listing.print, stayId: stay.id },
        ...writtenOn(listing),
        ...room,
      }
    } catch {
      // It went away in the middle of the scan.
      return { state: 'unreachable', ...NOTHING }
    }
  }

  /** Whether a stay that is known by ends alone could be compared with more copies than before. */
  async #maySayMore(stay: StayRow): Promise<boolean> {
    if (stay.knownHow !== 'ends' || stay.loadId === null) return false
    const files = await filesInCopies(this.db, this.host, stay.loadId)
    const before = this.#compared.get(stay.id)
    return !before || files > before.files || (files > 0 && performance.now() > before.againAt)
  }

  /** What reads the files of a card; another one in each stay. */
  #filesOf(row: ReaderRow, content: ReaderContent, stayId: string): Medium {
    const known = this.#files.get(row.id)
    if (known?.stayId === stayId) return known.files.medium
    this.#endFiles(row.id)
    const files = cardFiles(row, content)
    this.#files.set(row.id, { stayId, files })
    return files.medium
  }

  #endFiles(readerId: string): void {
    this.#files.get(readerId)?.files.end()
    this.#files.delete(readerId)
  }

  /** Ends the programs that read cards. */
  end(): void {
    for (const readerId of [...this.#files.keys()]) this.#endFiles(readerId)
  }

  /**
   * A folder on a busy file system sees its free space change all the time: listing takes a tenth of the time at most.
   */
  async #listing(readerId: string, { medium }: ReaderContent, afresh: boolean): Promise<Listing> {
    const [place, { freeBytes }, root] = await Promise.all([
      medium.place(),
      medium.room(),
      medium.list(Buffer.alloc(0)),
    ])
    const rootKey =
      `${place} ${medium.mounted().join('/')} ` +
      `${root.map((entry) => `${entry.name.toString('latin1')} ${entry.modifiedMs}`).join('/')}`
    const earlier = this.#listed.get(readerId)
    const begun = performance.now()
    const unchanged = earlier?.place === rootKey && (earlier.freeBytes === freeBytes || begun < earlier.againAt)
    if (unchanged && !afresh) return earlier.listing
    const listing = await listCard(medium)
    const againAt = begun + Math.max(LEAST_PAUSE_MS, PAUSE_FOR_LISTING * (performance.now() - begun))
    this.#listed.set(readerId, { place: rootKey, freeBytes, againAt, listing })
    return listing
  }

  /**
   * Which load lies there by listing and samples; in a new stay also by comparing it, before anything counts. Of cards
   * that list the same it is the one that it equals.
   */
  async #recognise(row: ReaderRow, content: ReaderContent, listing: Listing, stay: StayRow): Promise<Recognised> {
    const files = this.#filesOf(row, content, stay.id)
    const held = { ...content, medium: files }
    const not = new Set<string>()
    let unlike: Recognised | undefined
    let likely: Recognised | undefined
    let written: Recognised | undefined
    for (;;) {
      const found = await recognise(this.db, row, held, listing, stay, not)
      const { seen, by } = await this.#borneOut(row, content, listing, stay, found, files)
      // Known ends bear out less than a copy does, but more than a listing that is another one by now; against files
      // that were rewritten they say nothing.
      if (found.loadId === null || ((likely ?? written) && !found.same)) {
        if (written) return this.#doubted(stay, written)
        return this.#settle(stay, likely ?? unlike ?? seen, likely && 'ends')
      }
      if (by === 'known' || by === 'copies') return this.#settle(stay, seen, by === 'copies' ? 'compared' : undefined)
      if (isUnlike(seen)) unlike ??= seen
      else if (by === 'ends') likely ??= seen
      else if (by === 'rewritten') written ??= seen
      else return this.#settle(stay, seen)
      not.add(found.loadId)
    }
  }

  /** Files of it were rewritten while nobody scanned it: one place in each clip would not see that. */
  async #doubted(stay: StayRow, seen: Recognised): Promise<Recognised> {
    if (seen.loadId !== null && (await tryOnce(this.db, stay.id, TOUCHED))) await doubtCard(this.db, seen.loadId)
    return seen
  }

  /** Writes down what a stay is known as, and how the card differs from what was scanned. */
  async #settle(stay: StayRow, seen: Recognised, knownHow?: KnownHow): Promise<Recognised> {
    const { loadId, twinId, difference, kind } = seen
    if (loadId === null || kind === 'unlike' || kind === 'hidden') return seen
    if (knownHow) await knowStay(this.db, stay.id, { loadId, twinId, knownHow })
    const how = knownHow ?? (isKnown(stay, seen) ? stay.knownHow : null)
    // Another card with the same ends says nothing of what was last seen of this one.
    const isIts = kind === 'own' && seen.settled && (!seen.same || (how !== null && how !== 'ends'))
    if (isIts) await seeCardOf(this.db, loadId, difference)
    return seen
  }

  /** What was found of a card, unlike where comparing it in this stay speaks against that, and what bears it out. */
  async #borneOut(
    row: ReaderRow,
    content: ReaderContent,
    listing: Listing,
    stay: StayRow,
    found: Recognised,
    files: Medium,
  ): Promise<BorneOut> {
    const [mounted] = mountedInside(content.medium, Buffer.alloc(0))
    if (mounted !== undefined)
      return {
        seen: {
          ...found,
          kind: 'hidden',
          loadId: found.loadId ?? stay.loadId,
          same: false,
          difference:
            `Another file system is mounted on the card in ${row.name}, at “${mounted}”: what the card ` +
            'itself holds there cannot be seen. Unmount it, and scan again.',
        },
      }
    const { db } = this
    const { loadId, twinId } = found
    if (loadId === null) return { seen: found }
    const unlike = async (compared: Unlike): Promise<BorneOut> => {
      const difference = otherContent(row.name, await labelOf(db, loadId), compared)
      return { seen: { ...found, kind: 'unlike', same: false, twinId: null, difference } }
    }
    const touched = stay.tried.includes(TOUCHED)
    let doubted = false
    if (twinId === null) {
      const whole = await readWhole(db, stay.id, loadId)
      if (whole && whole.differing > 0) return unlike({ ...whole, what: 'file' })
      // Of a card that only looks like it nothing is known by that.
      doubted = !isUnlike(found) && (await isCardDoubted(db, loadId))
      if (doubted && stay.loadId === loadId) await forgetStay(db, stay.id)
      if (doubted && touched) return { seen: found, by: 'rewritten' }
    } else if (touched) return { seen: found }
    if (!doubted && isKnown(stay, found) && !(await this.#maySayMore(stay))) return { seen: found, by: 'known' }
    const inCopies = await filesInCopies(db, this.host, loadId)
    this.#compared.set(stay.id, { files: inCopies, againAt: performance.now() + UNLIKE_MS })
    const compared = await compareCard(db, this.host, { medium: files, stayId: stay.id, loadId, print: listing.print })
    if (compared.differing > 0) {
      if (stay.loadId === loadId) await forgetStay(db, stay.id)
      return unlike({ ...compared, what: 'clip' })
    }
    if (doubted) return { seen: found, by: 'rewritten' }
    if (isUnlike(found) || !isBorneOut(compared)) return { seen: found }
    if (twinId === null && (await this.#stamps.isWrittenAnew(loadId, listing, files)))
      return { seen: found, by: 'rewritten' }
    return { seen: found, by: isWithCopies(compared) ? 'copies' : 'ends' }
  }
}

function writtenOn({ files }: Listing): Pick<SeenReader, 'filmedFrom' | 'filmedTo'> {
  const filmed = filmedBetween(files)
  return filmed
    ? { filmedFrom: new Date(filmed.from), filmedTo: new Date(filmed.to) }
    : { filmedFrom: null, filmedTo: null }
}

/** The load whose own card a stay is, or was taken for while it is doubted. */
const loadIn = (row: ReaderRow, stay: StayRow): string | null => {
  if (stay.loadId !== null) return stay.twinId === null ? stay.loadId : null
  return row.stayId === stay.id && row.same && row.twinId === null ? row.loadId : null
}

const labelOf = async (db: Db, loadId: string) => (await loadsById(db, [loadId]))[0]?.label ?? ''

/** Whether a stay is known to be of the card that it was recognised as. */
const isKnown = (stay: Pick<StayRow, 'loadId' | 'twinId' | 'knownHow'>, seen: Pick<Recognised, 'loadId' | 'twinId'>) =>
  stay.knownHow !== null && stay.loadId === seen.loadId && stay.twinId === seen.twinId

/** A card has a handful; more of them tell no camera. */
const MOST_HABITS = 60
const LEAST_PAUSE_MS = 5_000
const PAUSE_FOR_LISTING = 10

/** How many of its files are not what was copied. */
interface Unlike {
  readonly what: 'clip' | 'file'
  readonly clips: number
  readonly differing: number
}

/** How long it holds that a card is unlike a load. */
const UNLIKE_MS = 60_000
const isUnlike = ({ kind }: Recognised) => kind === 'unlike'

const otherContent = (reader: string, label: string, { what, clips, differing }: Unlike) =>
  `The card in ${reader} has the names, sizes and times of “${label}”, but ${differing} of ` +
  `${counted(clips, what)} ${differing === 1 ? 'differs' : 'differ'}: it is not the card that was copied.`
