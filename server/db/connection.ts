import { CamelCasePlugin, Kysely, Migrator } from 'kysely'
import pg from 'pg'
import { giveFunctions } from './functions'
import { migrations } from './migrations'
import { DeadlockRetryDialect, retryDeadlocks } from './deadlockRetry'
import { poolWithTimeout } from './pool'
import type { Database } from './schema'

export type Db = Kysely<Database>

// 8-byte integers fit a JavaScript number up to 9 PB; larger ones do not occur here.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)
// Days stay text: they have no zone.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text)

const MOST_CONNECTIONS = 8

/** Opens the database and brings it to the newest schema. Migrations and work take the time that they need. */
export async function openDatabase(url: string): Promise<Db> {
  const db = databaseOn(new pg.Pool({ connectionString: url, max: MOST_CONNECTIONS }))
  const { error } = await new Migrator({
    db,
    provider: { getMigrations: () => Promise.resolve(migrations) },
  }).migrateToLatest()
  if (error) throw error instanceof Error ? error : new Error('The database could not be brought to the newest schema.')
  await giveFunctions(db)
  return db
}

/**
 * Opens a database that is at the newest schema, for whoever answers a person: nothing is waited for longer than that.
 */
export const openForAnswers = (url: string, timeoutMs: number): Db =>
  databaseOn(poolWithTimeout({ connectionString: url, max: MOST_CONNECTIONS }, timeoutMs))

function databaseOn(pool: pg.Pool): Db {
  // A database that goes away is met by the next question, and by those who listen to it.
  pool.on('error', () => undefined)
  // Also between two questions of a transaction: the next one fails, and is told.
  pool.on('connect', (client) => client.on('error', () => undefined))
  return new Kysely<Database>({
    dialect: new DeadlockRetryDialect({ pool }),
    plugins: [new CamelCasePlugin({ maintainNestedObjectKeys: true })],
  })
}

/** Several writes as one; within a transaction that is open already they belong to it. `write` may be called again. */
export const inTransaction = <T>(db: Db, write: (tx: Db) => Promise<T>): Promise<T> =>
  db.isTransaction ? write(db) : retryDeadlocks(() => db.transaction().execute(write))
