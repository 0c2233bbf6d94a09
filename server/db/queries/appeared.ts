import type { Selectable } from 'kysely'
import type { Db } from '../connection'
import type { Database } from '../schema'

export type AppearedRow = Selectable<Database['appeared']>

/** File systems that appeared on a computer and are not registered, the newest first. */
export const appeared = (db: Db, host: string) =>
  db.selectFrom('appeared').selectAll().where('host', '=', host).orderBy('appearedAt', 'desc').execute()

/** One of them; `undefined` when it is gone. */
export const appearedOne = (db: Db, host: string, id: string) =>
  db.selectFrom('appeared').selectAll().where('host', '=', host).where('id', '=', id).executeTakeFirst()

export type NewAppeared = Pick<AppearedRow, 'path' | 'node' | 'name' | 'capacityBytes' | 'freeBytes'> & {
  readonly topNames: readonly string[]
  readonly volumeUid: string | undefined
  readonly marker: string | undefined
}

/** Writes down what appeared; another file system at the same place is asked about anew. */
export async function putAppeared(db: Db, host: string, seen: NewAppeared): Promise<void> {
  const { topNames, volumeUid, marker, ...rest } = seen
  const values = {
    ...rest,
    topNames: JSON.stringify(topNames),
    volumeUid: volumeUid ?? null,
    marker: marker ?? null,
    leftAlone: false,
    appearedAt: new Date(),
  }
  await db
    .insertInto('appeared')
    .values({ host, ...values })
    .onConflict((at) => at.columns(['host', 'path']).doUpdateSet(values))
    .execute()
}

/** Forgets what was taken out, or registered. */
export const dropAppeared = (db: Db, host: string, paths: readonly string[]) =>
  db.deleteFrom('appeared').where('host', '=', host).where('path', 'in', paths).execute()

/** A person does not want to be asked about it. False when it is gone. */
export async function leaveAlone(db: Db, host: string, id: string): Promise<boolean> {
  const row = await db
    .updateTable('appeared')
    .set({ leftAlone: true })
    .where('host', '=', host)
    .where('id', '=', id)
    .returning('id')
    .executeTakeFirst()
  return row !== undefined
}
