import type { ReaderView } from '../../contract/cards'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import { titlesOf } from '../db/queries/productions'
import { readers } from '../db/queries/readers'
import { readersScanned } from '../db/queries/tasks'
import { waitingCards, type WaitingCard } from './waiting'

/** Every reader that is not put away, what lies in it, and for which production its card seems to be. */
export async function readersView(db: Db, host: string): Promise<ReaderView[]> {
  const [rows, looking, waiting] = await Promise.all([
    readers(db),
    readersScanned(db),
    waitingCards(db, { host, now: Date.now(), looked: true }),
  ])
  const [titles, loads] = await Promise.all([
    titlesOf(
      db,
      waiting.flatMap(({ belongs }) => belongs?.productionId ?? []),
    ),
    loadsById(
      db,
      rows.flatMap((row) => (row.same ? (row.loadId ?? []) : [])),
    ),
  ])
  const here = rows.filter((row) => row.putAwayAt === null)
  return here.map((row): ReaderView => ({
    id: row.id,
    name: row.name,
    path: row.rootPath ?? '',
    simulated: row.simulated,
    state: row.state,
    cardName: row.cardName,
    stay: row.stayId,
    loadId: row.same ? row.loadId : null,
    productionId: loads.find((load) => row.same && load.id === row.loadId)?.productionId ?? null,
    isTwin: row.twinId !== null,
    difference: row.difference,
    writeProtected: row.device?.writeProtected === true,
    looking: looking.has(row.id),
    proposed: proposed(
      waiting.find(({ reader }) => reader.id === row.id),
      titles,
    ),
    room:
      row.capacityBytes === null || row.freeBytes === null
        ? null
        : { capacityBytes: row.capacityBytes, freeBytes: row.freeBytes },
  }))
}

/** How a card that waits would be called, and the production that it seems to be for. */
function proposed(card: WaitingCard | undefined, titles: ReadonlyMap<string, string>): ReaderView['proposed'] {
  if (!card) return null
  const { label, belongs } = card
  const title = titles.get(belongs?.productionId ?? '')
  return {
    label,
    production: belongs && title !== undefined ? { id: belongs.productionId, title, why: belongs.why } : null,
  }
}
