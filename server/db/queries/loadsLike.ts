import { sql } from 'kysely'
import type { Db } from '../connection'

/** Files of loads as a card would list them, to know a card again: only loads that share a path with what it lists. */
export async function loadsLike(db: Db, paths: readonly string[]) {
  const rows = await db
    .with('likely', (from) =>
      from
        .selectFrom('loadEntry')
        .select('loadId')
        .distinct()
        .where('kind', '=', 'file')
        .where('state', '=', 'on-card')
        .where(sql<boolean>`path_text = any(${[...paths]}::text[])`),
    )
    .selectFrom('loadEntry')
    .innerJoin('likely', 'likely.loadId', 'loadEntry.loadId')
    .select(['loadEntry.loadId', 'pathText', 'sizeBytes', 'modifiedMs'])
    .where('kind', '=', 'file')
    .where('state', '=', 'on-card')
    .execute()
  const byLoad = new Map<string, { path: string; sizeBytes: number; modifiedMs: number }[]>()
  for (const { loadId, pathText, ...row } of rows) {
    const files = byLoad.get(loadId) ?? []
    files.push({ path: pathText, ...row })
    byLoad.set(loadId, files)
  }
  return [...byLoad].map(([id, files]) => ({ id, files }))
}
