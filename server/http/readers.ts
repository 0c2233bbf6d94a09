import { lstat, statfs } from 'node:fs/promises'
import type { Db } from '../db/connection'
import { readers } from '../db/queries/cards'
import { latestLooks } from '../db/queries/events'
import { listingPrint, walk } from '../engine/walk'
import { readerContent, type ReaderContent } from '../places'
import { Observed } from './observed'

type ReaderRow = Awaited<ReturnType<typeof readers>>[number]

export interface ReaderState {
  readonly row: ReaderRow
  readonly state: 'card' | 'empty' | 'unreachable'
  readonly cardName: string | undefined
  /** The load on the card, when it was looked at since it was put in and lists the same files still. */
  readonly loadId: string | undefined
}

interface KnownPrint {
  /** Changes when another file system or folder stands at the reader's path. */
  readonly place: string
  readonly freeBlocks: number
  /** When it may be listed again, though only the free space has changed. */
  againAt: number
  readonly print: Promise<string>
}

export const readersSeen = new Observed()
const known = new Map<string, KnownPrint>()
/** A folder on a busy file system sees its free space change all the time: listing it may take a tenth of the time at most. */
const LEAST_PAUSE_MS = 5_000
const PAUSE_FOR_LISTING = 10

/** The print of a card's listing. Listed anew when another card lies there or something was written to it. */
async function cardPrint(readerId: string, { medium }: ReaderContent): Promise<string> {
  const [stats, room] = await Promise.all([lstat(medium.root), statfs(medium.root)])
  const place = `${medium.root} ${stats.dev} ${stats.ino} ${stats.mtimeMs}`
  const earlier = known.get(readerId)
  if (earlier?.place === place && (earlier.freeBlocks === room.bfree || performance.now() < earlier.againAt))
    return earlier.print
  const begun = performance.now()
  const print = walk(medium).then(listingPrint)
  const mine: KnownPrint = { place, freeBlocks: room.bfree, againAt: Infinity, print }
  known.set(readerId, mine)
  print.then(
    () => (mine.againAt = begun + Math.max(LEAST_PAUSE_MS, PAUSE_FOR_LISTING * (performance.now() - begun))),
    () => known.delete(readerId),
  )
  return print
}

/** Readers with what lies in them, and the load that a card is known to hold. */
export async function readerStates(db: Db): Promise<ReaderState[]> {
  const [rows, looks] = await Promise.all([readers(db), latestLooks(db)])
  const states = await Promise.all(
    rows.map(async (row): Promise<ReaderState> => {
      const content = await readerContent(db, row)
      if (typeof content === 'string') {
        known.delete(row.id)
        return { row, state: content, cardName: undefined, loadId: undefined }
      }
      const look = looks.find((one) => one.readerId === row.id)
      const print = look && (await cardPrint(row.id, content).catch(() => undefined))
      const same = look !== undefined && look.print === print && (!content.insertedAt || look.at >= content.insertedAt)
      return { row, state: 'card', cardName: content.cardName, loadId: same ? look.loadId : undefined }
    }),
  )
  readersSeen.see(states.map(({ row, state, cardName, loadId }) => [row.id, state, cardName, loadId]))
  return states
}
