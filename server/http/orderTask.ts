import type { Request } from 'express'
import type { TaskKind } from '../../contract/taskKinds'
import { TaskOpen, type NewTask } from '../db/queries/tasks'
import { startTask } from '../enqueue/enqueue'
import type { Context } from './context'
import { conflict } from './problem'
import { idempotencyKey } from './sentOnce'

/**
 * Starts a task that a person ordered; `busy` is what they read when one of that kind is under way on the same thing.
 */
export async function orderTask<K extends TaskKind>(
  { db, boss }: Context,
  req: Request,
  values: Omit<NewTask<K>, 'host' | 'bossId' | 'idempotencyKey'>,
  busy: string,
  keySuffix = '',
): Promise<string> {
  const key = idempotencyKey(req)
  try {
    return await startTask(db, boss, {
      ...values,
      idempotencyKey: key === null ? null : `${key}${keySuffix}`,
    })
  } catch (error) {
    if (error instanceof TaskOpen) throw conflict(busy)
    throw error
  }
}
