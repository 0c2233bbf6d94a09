import { sql } from 'kysely'
import type { Db } from '../connection'
import type { Database } from '../schema'

/** Something that was done, for later reading; no judgement hangs on it. */
export interface NewNote {
  readonly kind: Database['journal']['kind']
  readonly productionId?: string
  readonly loadId?: string
  readonly volumeId?: string
  readonly mediaFileId?: string
  readonly detail?: object
}

/** What a task wrote down before it did it, newest first: an attempt that was cut in between is told by it. */
export const notesOfTask = (db: Db, kind: Database['journal']['kind'], taskId: string) =>
  db
    .selectFrom('journal')
    .select('detail')
    .where('kind', '=', kind)
    .where(sql<boolean>`detail->>'taskId' = ${taskId}`)
    .orderBy('id', 'desc')
    .execute()

/** What was done, for the record; nothing is judged by it. */
export const addNote = (db: Db, { detail, ...note }: NewNote) =>
  db
    .insertInto('journal')
    .values({ ...note, detail: JSON.stringify(detail ?? {}) })
    .execute()

/** When this computer slept since a moment, and for how long in milliseconds. */
export const sleptLately = async (db: Db, since: Date): Promise<{ at: Date; ms: number }[]> =>
  (
    await db
      .selectFrom('journal')
      .select(['at', 'detail'])
      .where('kind', '=', 'slept')
      .where('at', '>', since)
      .orderBy('at')
      .execute()
  ).map(({ at, detail }) => ({ at, ms: Number((detail as { ms?: number }).ms ?? 0) }))
