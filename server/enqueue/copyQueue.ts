import type PgBoss from 'pg-boss'
import type { Db } from '../db/connection'
import { copyQueue, isCopying, leaveQueue } from '../db/queries/copyQueue'
import { tellChanged, TaskOpen } from '../db/queries/tasks'
import { volumes } from '../db/queries/volumes'
import { hostName } from '../home'
import { startTask } from './enqueue'

/**
 * Starts the copy that waits longest, unless one is under way: drives are fastest with one at a time, and the most
 * endangered card is safe soonest. May be called at any time, by several at once.
 */
export async function startNextCopy(db: Db, boss: PgBoss): Promise<void> {
  const host = hostName()
  for (const { loadId, label, productionId, volumeIds, plan, orderId } of await copyQueue(db, host)) {
    if (await isCopying(db, host)) return
    const known = await volumes(db, host)
    const names = volumeIds.map((id) => known.find((row) => row.id === id)?.name ?? 'a volume')
    await startTask(db, boss, {
      kind: 'copy',
      title: `Copy “${label}” to ${names.join(' and ')}`,
      productionId,
      loadId,
      input: { loadId, volumeIds, setAside: false, ...(plan && { plan }) },
      // Whoever else starts it at this moment starts the same task.
      idempotencyKey: `queue ${orderId}`,
    }).catch((error: unknown) => {
      if (!(error instanceof TaskOpen)) throw error
    })
    await leaveQueue(db, orderId)
    await tellChanged(db, 'copies')
  }
}
