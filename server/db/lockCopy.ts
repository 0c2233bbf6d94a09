import { sql } from 'kysely'
import type { Db } from './connection'

/** Facts about one copy are written one after the other, so that what is counted with them stays right. */
export const lockCopy = (tx: Db, loadId: string, volumeId: string) =>
  sql`select pg_advisory_xact_lock(hashtextextended(${`${loadId} ${volumeId}`}, 0))`.execute(tx)
