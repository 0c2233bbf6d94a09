import type { Fault } from '../../../contract/bench'
import { inTransaction, type Db } from '../connection'

/** All simulated devices. */
export const benchDevices = (db: Db) => db.selectFrom('benchDevice').selectAll().execute()

/** Whether there is any simulated device. */
export const hasBench = async (db: Db): Promise<boolean> =>
  (await db.selectFrom('benchDevice').select('id').limit(1).executeTakeFirst()) !== undefined

/** A simulated device with the fault that waits in it; `undefined` when there is none. */
export async function benchDevice(db: Db, id: string) {
  const row = await db.selectFrom('benchDevice').selectAll().where('id', '=', id).executeTakeFirst()
  return row && { ...row, fault: row.fault ?? undefined }
}

/** Cards that can be put into a reader, by name. */
export const benchCards = (db: Db) => db.selectFrom('benchCard').selectAll().orderBy('name').execute()

/** The card of that name, if there is one. */
export const benchCard = (db: Db, name: string) =>
  db.selectFrom('benchCard').selectAll().where('name', '=', name).executeTakeFirst()

/** Puts a card into a simulated reader, or takes it out with `undefined`; a card lies in one reader at most. */
export async function putCard(db: Db, readerId: string, card: string | undefined): Promise<void> {
  await inTransaction(db, async (tx) => {
    if (card)
      await tx.updateTable('benchDevice').set({ card: null, insertedAt: null }).where('card', '=', card).execute()
    await tx
      .updateTable('benchDevice')
      .set({ card: card ?? null, insertedAt: card ? new Date() : null })
      .where('id', '=', readerId)
      .execute()
  })
}

/** Whether a simulated device is plugged in. */
export const setPlugged = (db: Db, id: string, plugged: boolean) =>
  db.updateTable('benchDevice').set({ plugged }).where('id', '=', id).execute()

/** Puts a fault into a simulated device, or takes it out with `undefined`. */
export const armFault = (db: Db, id: string, fault: Fault | undefined) =>
  db
    .updateTable('benchDevice')
    .set({ fault: fault ? JSON.stringify(fault) : null })
    .where('id', '=', id)
    .execute()

/** A fault that has struck is spent; an unplugged device stays unplugged until somebody plugs it in. */
export const clearFault = (db: Db, id: string, kind: Fault['kind']) =>
  db
    .updateTable('benchDevice')
    .set({ fault: null, ...(kind === 'unplug' ? { plugged: false } : {}) })
    .where('id', '=', id)
    .execute()
