import type { Db } from '../db/connection'

/** By whom, when, and with or without a fresh scan it is asked. Made anew for each answer. */
export interface Asked {
  readonly host: string
  readonly now: number
  /** False when the observer was asked for a scan and did not answer. */
  readonly looked: boolean
}

const known = new WeakMap<Asked, Map<unknown, Promise<unknown>>>()

/**
 * What several parts of one answer need of the whole house: read for the first of them, and the same for the others.
 */
export function once<T>(db: Db, asked: Asked, read: (db: Db, host: string) => Promise<T>): Promise<T> {
  const reads = known.get(asked) ?? new Map<unknown, Promise<unknown>>()
  known.set(asked, reads)
  const made = (reads.get(read) as Promise<T> | undefined) ?? read(db, asked.host)
  reads.set(read, made)
  return made
}
