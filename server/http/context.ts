import type PgBoss from 'pg-boss'
import type { Db } from '../db/connection'

/** What every route gets. */
export interface Context {
  readonly db: Db
  readonly boss: PgBoss
}
