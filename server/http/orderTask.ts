import type { Request } from 'express'
import type { TaskKind } from '../../contract/taskKinds'
import { TaskOpen, type NewTask } from '../db/queries/tasks'
import { startTask } from '../enqueue/enqueue'
import type { Context } from './context'
import { conflict, invalid } from './problem'

/** The key with which a browser names one press of a button, so that sending it twice is one order. */
function keyOf(req: Request): string | null {
  const key = req.headers['idempotency-key']
  if (key === undefined) return null
  if (typeof key !== 'string' || key.length === 0 || key.length > 200)
    throw invalid('The Idempotency-Key must have 1 to 200 characters.')
  return key
}

/** Starts a task that a person ordered; `busy` is what they read when one of that kind is under way on the same thing. */
export async function orderTask<K extends TaskKind>(
  { db, boss }: Context,
  req: Request,
  values: Omit<NewTask<K>, 'host' | 'idempotencyKey'>,
  busy: string,
  keySuffix = '',
): Promise<string> {
  const key = keyOf(req)
  try {
    return await startTask(db, boss, {
      ...values,
      idempotencyKey: key === null ? null : `${req.path} ${key}${keySuffix}`,
    })
  } catch (error) {
    if (error instanceof TaskOpen) throw conflict(busy)
    throw error
  }
}
