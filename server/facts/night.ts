import { openStops } from '../../core/cards/findings/findings'
import { markOf } from '../../core/copies/mark'
import { nightPlan, type Night, type NightCard } from '../../core/copies/night'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import { readers } from '../db/queries/readers'
import { volumes } from '../db/queries/volumes'
import { copyRows, planFrom } from './copyPlan'
import { loadStates } from './loadStates'

/** What copying every card of a production that lies in a reader would do, the most endangered first. */
export async function nightOf(
  db: Db,
  { host, now }: { readonly host: string; readonly now: number },
  productionId: string,
  volumeIds: readonly string[],
): Promise<Night> {
  const [inReaders, known] = await Promise.all([readers(db), volumes(db, host)])
  // Of a card and its backup card the card itself is read.
  const held = inReaders
    .filter((row) => row.host === host && row.state === 'card' && row.same && row.loadId !== null)
    .sort((a, b) => Number(a.twinId !== null) - Number(b.twinId !== null))
  const loads = (
    await loadsById(
      db,
      held.flatMap((row) => row.loadId ?? []),
    )
  ).filter((load) => load.productionId === productionId && load.lookDone)
  const states = await loadStates(db, loads, { host, now, looked: true })
  const rows = new Map(await Promise.all(loads.map(async (load) => [load.id, await copyRows(db, host, load)] as const)))
  const cards = states
    .filter((state) => state.formattedAt === undefined || state.returned)
    .map(({ load, copies, rule, findings }): NightCard => ({
      loadId: load.id,
      label: load.label,
      readerName: held.find((row) => row.loadId === load.id)?.name ?? '',
      verified: copies.filter((copy) => markOf(copy, rule) >= 2).length,
      wrong: openStops(findings),
      clips: load.clips,
      sizeBytes: load.sizeBytes,
      filmedSeconds: load.lengthMs / 1000,
    }))
  const wanted = known.filter((row) => volumeIds.includes(row.id))
  const rooms = wanted.map(({ id, name, connected, freeBytes }) => ({
    ...{ volumeId: id, name, connected: connected === true },
    freeBytes: freeBytes ?? undefined,
  }))
  return nightPlan(cards, rooms, (card, taken) => {
    const own = rows.get(card.loadId)
    return own
      ? planFrom(
          own,
          wanted.map((row) => row.id),
          { taken },
        )
      : { volumes: [], seconds: 0, bottleneck: undefined }
  })
}
