import { basename } from 'node:path'
import { belongsTo, cardTitle, type Belongs } from '../../core/cards/files/belongs'
import { cameraByHabits } from '../../core/cards/files/habit'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import { readers, type ReaderRow } from '../db/queries/readers'
import { cameraHabits } from './cameraHabits'
import { gearNames, mayHold } from '../db/queries/waiting'
import { once, type Asked } from './asked'

/** A card that nobody has scanned, with the production that it is most likely for and what it would be called there. */
export interface WaitingCard {
  readonly reader: ReaderRow
  readonly belongs: Belongs | undefined
  readonly label: string
}

/** A card lies there, and is not known as one that was scanned. */
export const isWaiting = ({ putAwayAt, state, same }: ReaderRow): boolean =>
  putAwayAt === null && state === 'card' && !same

/** Every card that waits in a reader of this computer. */
export async function waitingCards(db: Db, asked: Asked): Promise<WaitingCard[]> {
  const waiting = (await once(db, asked, readers)).filter((row) => isWaiting(row) && row.host === asked.host)
  return waiting.length === 0 ? [] : proposedFor(db, waiting)
}

async function proposedFor(db: Db, waiting: readonly ReaderRow[]): Promise<WaitingCard[]> {
  const [productions, habits, gear, loads] = await Promise.all([
    mayHold(db),
    cameraHabits(db),
    gearNames(db),
    loadsById(
      db,
      waiting.flatMap((row) => row.loadId ?? []),
    ),
  ])
  return waiting.map((reader) => {
    const load = loads.find((one) => one.id === reader.loadId)
    const clues = cluesOf(reader, habits, gear)
    // What was scanned before, and is otherwise by now, stays where it is.
    const belongs = load
      ? { productionId: load.productionId, why: `“${load.label}” was taken in for it` }
      : belongsTo(clues, productions)
    const labels = productions.find((one) => one.id === belongs?.productionId)?.labels ?? []
    return { reader, belongs, label: load?.label ?? titleOf(reader, clues, gear, labels) }
  })
}

/** What a card would be called in a production, where nobody says. */
export async function waitingTitle(db: Db, reader: ReaderRow, labels: readonly string[]): Promise<string> {
  const [habits, gear] = await Promise.all([cameraHabits(db), gearNames(db)])
  return titleOf(reader, cluesOf(reader, habits, gear), gear, labels)
}

type Gear = Awaited<ReturnType<typeof gearNames>>

/**
 * How the card calls itself: a folder that somebody chose bears the name of the reader, which says nothing of the card.
 */
const ownNameOf = ({ simulated, cardName, name, rootPath }: ReaderRow): string | undefined =>
  simulated || (rootPath !== null && basename(rootPath) === name) ? (cardName ?? undefined) : undefined

function cluesOf(reader: ReaderRow, habits: Awaited<ReturnType<typeof cameraHabits>>, { cards }: Gear) {
  const own = ownNameOf(reader)?.toLowerCase()
  const card =
    cards.find((one) => reader.volumeUid !== null && one.uids.includes(reader.volumeUid)) ??
    cards.find((one) => one.name.toLowerCase() === own)
  return {
    cardId: card?.id,
    cameraId: cameraByHabits(reader.habits, habits),
    filmed:
      reader.filmedFrom && reader.filmedTo
        ? { from: reader.filmedFrom.getTime(), to: reader.filmedTo.getTime() }
        : undefined,
  }
}

const titleOf = (
  reader: ReaderRow,
  { cardId, cameraId }: { cardId: string | undefined; cameraId: string | undefined },
  { cards, cameras }: Gear,
  labels: readonly string[],
) => {
  const [gearName, cameraName] = [
    cards.find((one) => one.id === cardId)?.name,
    cameras.find((one) => one.id === cameraId)?.name,
  ]
  const ownName = ownNameOf(reader)
  return cardTitle(
    {
      ...(gearName !== undefined && { gearName }),
      ...(cameraName !== undefined && { cameraName }),
      ...(ownName !== undefined && { ownName }),
    },
    labels,
  )
}
