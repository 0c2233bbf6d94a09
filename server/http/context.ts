import type PgBoss from 'pg-boss'
import type { Db } from '../db/connection'
import type { ScanDesk } from './scanDesk'

/** What every route gets. */
export interface Context {
  readonly db: Db
  readonly boss: PgBoss
  readonly host: string
  readonly looks: ScanDesk
}
