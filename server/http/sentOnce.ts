import type { Request } from 'express'
import { invalid } from './problem'

const KEPT_MS = 10 * 60_000

const answers = new Map<string, Promise<unknown>>()

/** The key with which a browser names one press of a button, so that sending it twice is one order. */
export function idempotencyKey(req: Request): string | null {
  const key = req.headers['idempotency-key']
  if (key === undefined) return null
  if (typeof key !== 'string' || key.length === 0 || key.length > 200)
    throw invalid('The Idempotency-Key must have 1 to 200 characters.')
  return `${req.path} ${key}`
}

/**
 * Carries an order out once, however often it is sent with its key in ten minutes; one that failed may be sent again.
 */
export async function sentOnce<T>(req: Request, carryOut: () => Promise<T>): Promise<T> {
  const key = idempotencyKey(req)
  if (key === null) return carryOut()
  const name = `${req.method} ${key}`
  const standing = answers.get(name)
  if (standing) return standing as Promise<T>
  const answer = carryOut()
  answers.set(name, answer)
  setTimeout(() => answers.delete(name), KEPT_MS).unref()
  answer.catch(() => answers.delete(name))
  return answer
}
