import type { Db } from '../connection'
import type { Database } from '../schema'

export interface NewNote {
  readonly kind: Database['journal']['kind']
  readonly productionId?: string
  readonly loadId?: string
  readonly volumeId?: string
  readonly clipId?: string
  readonly detail?: object
}

/** What was done, for the record; nothing is judged by it. */
export const addNote = (db: Db, { detail, ...note }: NewNote) =>
  db
    .insertInto('journal')
    .values({ ...note, detail: JSON.stringify(detail ?? {}) })
    .execute()
