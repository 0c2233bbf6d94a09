import { clockShifts } from '../../core/cards/load/clock'
import { takesThatGoOn } from '../../core/cards/files/spans'
import type { Db } from '../db/connection'
import { clipStarts, loadEdges, putClocks, putSeams } from '../db/queries/clocks'

/** Finds anew which takes of a production go on from one card to the next, and keeps it. */
export const renewSpans = async (db: Db, productionId: string): Promise<void> =>
  putSeams(db, productionId, takesThatGoOn(await loadEdges(db, productionId)))

/** Estimates anew by how much each load of a production is off against what other cameras filmed, and keeps it. */
export async function renewClocks(db: Db, productionId: string): Promise<void> {
  const loads = await clipStarts(db, productionId)
  const found = clockShifts(loads)
  await putClocks(
    db,
    loads.map(({ id }) => ({ id, clock: found.get(id) ?? null })),
  )
}
