import { sql } from 'kysely'
import type { ClockShift, LoadStarts } from '../../../core/cards/clock'
import type { Db } from '../connection'

/** When the clips of each load of a production began, by the clocks of their cameras, in milliseconds. */
export async function clipStarts(db: Db, productionId: string): Promise<LoadStarts[]> {
  const loads = await db
    .selectFrom('load')
    .select(['id', 'label', 'cameraId'])
    .where('productionId', '=', productionId)
    .orderBy('createdAt')
    .execute()
  const { rows } = await sql<{ loadId: string; recordedAt: string }>`
    select load_id, probe->>'recordedAt' as recorded_at from clip
    where production_id = ${productionId} and shown and coalesce(part, 1) = 1 and probe->>'recordedAt' is not null
    order by load_id, recorded_at`.execute(db)
  const starts = new Map<string, number[]>()
  for (const { loadId, recordedAt } of rows) {
    const at = Date.parse(recordedAt)
    if (Number.isNaN(at)) continue
    const known = starts.get(loadId)
    if (known) known.push(at)
    else starts.set(loadId, [at])
  }
  return loads.map((load) => ({ ...load, starts: starts.get(load.id) ?? [] }))
}

/** Keeps what was estimated of each load. */
export async function putClocks(
  db: Db,
  clocks: readonly { readonly id: string; readonly clock: ClockShift | null }[],
): Promise<void> {
  for (const { id, clock } of clocks)
    await db
      .updateTable('load')
      .set({ clock: clock && JSON.stringify(clock) })
      .where('id', '=', id)
      .where(sql<boolean>`clock is distinct from ${clock && JSON.stringify(clock)}::jsonb`)
      .execute()
}

/** Shows the times of a load’s clips moved by so many milliseconds; what the files say stays. False when there is none. */
export const moveClock = (db: Db, loadId: string, shiftMs: number): Promise<boolean> =>
  db.transaction().execute(async (tx) => {
    const load = await tx
      .updateTable('load')
      .set({ clockShiftMs: shiftMs })
      .where('id', '=', loadId)
      .returning('id')
      .executeTakeFirst()
    if (!load) return false
    await tx.updateTable('clip').set({ shiftMs }).where('loadId', '=', loadId).execute()
    return true
  })
