import { clockShifts } from '../../core/cards/clock'
import type { Db } from '../db/connection'
import { clipStarts, putClocks } from '../db/queries/clocks'

/** Estimates anew by how much each load of a production is off against what other cameras filmed, and keeps it. */
export async function renewClocks(db: Db, productionId: string): Promise<void> {
  const loads = await clipStarts(db, productionId)
  const found = clockShifts(loads)
  await putClocks(
    db,
    loads.map(({ id }) => ({ id, clock: found.get(id) ?? null })),
  )
}
