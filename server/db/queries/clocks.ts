import { sql } from 'kysely'
import type { ClockShift, LoadStarts } from '../../../core/cards/load/clock'
import type { EdgeClip, LoadEdges, Seam } from '../../../core/cards/files/spans'
import { inTransaction, type Db } from '../connection'
import { joinTakes, partTakesOf } from './takes'

/** When the clips of each load of a production began, by the clocks of their cameras, in milliseconds. */
export async function clipStarts(db: Db, productionId: string): Promise<LoadStarts[]> {
  const loads = await db
    .selectFrom('load')
    .select(['id', 'label', 'cameraId'])
    .where('productionId', '=', productionId)
    .orderBy('createdAt')
    .execute()
  const { rows } = await sql<{ loadId: string; recordedAt: string }>`
    select load_id, probe->>'recordedAt' as recorded_at from media_file join load on load.id = media_file.load_id
    where load.production_id = ${productionId} and shown and not media_file.goes_on and probe->>'recordedAt' is not null
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

/**
 * Shows the times of a load’s clips moved by so many milliseconds; what the files say stays. False when there is none.
 */
export const moveClock = (db: Db, loadId: string, shiftMs: number): Promise<boolean> =>
  inTransaction(db, async (tx) => {
    const load = await tx
      .updateTable('load')
      .set({ clockShiftMs: shiftMs })
      .where('id', '=', loadId)
      .returning('id')
      .executeTakeFirst()
    if (!load) return false
    await tx.updateTable('mediaFile').set({ shiftMs }).where('loadId', '=', loadId).execute()
    return true
  })

/** The first and the last clip of each load of a production, by when they were recorded. */
export async function loadEdges(db: Db, productionId: string): Promise<LoadEdges[]> {
  const { rows } = await sql<{
    id: string
    label: string
    clipId: string
    name: string
    at: string
    seconds: number
    mode: string
    isFirst: boolean
  }>`
    select load.id, load.label, edge.clip_id, edge.name, edge.at, edge.seconds, edge.mode, edge.is_first
    from load cross join lateral (
      select id as clip_id, name, probe->>'recordedAt' as at, seconds, frame_px || ' ' || rate || ' ' || codec as mode,
        row_number() over (order by probe->>'recordedAt', path_text) = 1 as is_first,
        row_number() over (order by probe->>'recordedAt' desc, path_text desc) = 1 as is_last
      from media_file file where file.load_id = load.id and shown and has_video and probe->>'recordedAt' is not null
    ) edge
    where load.production_id = ${productionId} and (edge.is_first or edge.is_last)`.execute(db)
  const edges = new Map<string, { label: string; first?: EdgeClip; last?: EdgeClip }>()
  for (const { id, label, clipId, name, at, seconds, mode, isFirst } of rows) {
    const startMs = Date.parse(at)
    if (Number.isNaN(startMs)) continue
    const clip = { id: clipId, name, startMs, endMs: startMs + seconds * 1000, mode }
    const known = edges.get(id) ?? { label }
    // The only clip of a load is its first and its last.
    edges.set(id, isFirst ? { last: clip, ...known, first: clip } : { first: clip, ...known, last: clip })
  }
  return [...edges].flatMap(([id, { label, first, last }]) => (first && last ? [{ id, label, first, last }] : []))
}

/**
 * Keeps which loads begin with a take that another one began: both are one take from then on, and two again once they
 * are not.
 */
export const putSeams = (db: Db, productionId: string, seams: readonly Seam[]): Promise<void> =>
  inTransaction(db, async (tx) => {
    const rows = seams.map(({ loadId, goesOn }) => ({ id: loadId, goes_on: goesOn }))
    await sql`update load set goes_on = f.goes_on
      from load now left join jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as f(id uuid, goes_on jsonb) on f.id = now.id
      where load.id = now.id and now.production_id = ${productionId} and load.goes_on is distinct from f.goes_on`.execute(
      tx,
    )
    await partTakesOf(tx, productionId)
    for (const seam of seams) await joinTakes(tx, seam)
  })
