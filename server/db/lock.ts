import { sql } from 'kysely'
import type { Db } from './connection'

/** Waits until no other transaction holds what is named, and holds it until this one ends. */
export const lock = (tx: Db, what: string) =>
  sql`select pg_advisory_xact_lock(hashtextextended(${what}, 0))`.execute(tx)

/** Facts about one copy are written one after the other, so that what is counted with them stays right. */
export const lockCopy = (tx: Db, loadId: string, volumeId: string) => lock(tx, `${loadId} ${volumeId}`)
