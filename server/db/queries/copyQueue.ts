import type { CopyPlan } from '../../../core/copies/plan'
import { inTransaction, type Db } from '../connection'
import { lock } from '../lock'

export interface QueuedCopy {
  readonly loadId: string
  readonly volumeIds: readonly string[]
  /** What the person saw when it was ordered. */
  readonly plan: CopyPlan | null
}

/**
 * Puts copies into the queue of a machine, in this order, behind those that wait; a load that waits already gets this
 * order.
 */
export const putInQueue = (db: Db, host: string, copies: readonly QueuedCopy[]): Promise<void> =>
  inTransaction(db, async (tx) => {
    await lock(tx, `queue ${host}`)
    for (const { loadId, volumeIds, plan } of copies) {
      await tx.deleteFrom('copyQueue').where('loadId', '=', loadId).execute()
      await tx
        .insertInto('copyQueue')
        .values({ loadId, host, volumeIds: JSON.stringify(volumeIds), plan: plan && JSON.stringify(plan) })
        .execute()
    }
  })

/** Loads that wait to be copied on a machine, the next one first. */
export const copyQueue = (db: Db, host: string) =>
  db
    .selectFrom('copyQueue')
    .innerJoin('load', 'load.id', 'copyQueue.loadId')
    .select(['copyQueue.loadId', 'copyQueue.volumeIds', 'copyQueue.plan', 'copyQueue.orderId'])
    .select(['load.label', 'load.productionId'])
    .where('copyQueue.host', '=', host)
    .orderBy('place')
    .execute()

/** Takes one order out of the queue. */
export const leaveQueue = (db: Db, orderId: string) =>
  db.deleteFrom('copyQueue').where('orderId', '=', orderId).execute()

/** Takes everything of a production out of the queue. */
export const emptyQueue = (db: Db, productionId: string) =>
  db
    .deleteFrom('copyQueue')
    .where('loadId', 'in', (from) => from.selectFrom('load').select('id').where('productionId', '=', productionId))
    .execute()

/** Whether a copy is under way on a machine. */
export const isCopying = async (db: Db, host: string): Promise<boolean> =>
  (await db
    .selectFrom('task')
    .select('id')
    .where('kind', '=', 'copy')
    .where('host', '=', host)
    .where('state', 'in', ['queued', 'running', 'paused'])
    .limit(1)
    .executeTakeFirst()) !== undefined
