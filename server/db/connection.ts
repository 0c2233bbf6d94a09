import { CamelCasePlugin, Kysely, Migrator, PostgresDialect } from 'kysely'
import pg from 'pg'
import { migrations } from './migrations'
import type { Database } from './schema'

export type Db = Kysely<Database>

// 8-byte integers fit a JavaScript number up to 9 PB; larger ones do not occur here.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)
// Days stay text: they have no zone.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text)

/** Opens the database and brings it to the newest schema. */
export async function openDatabase(url: string): Promise<Db> {
  const pool = new pg.Pool({ connectionString: url, max: 8 })
  // A database that goes away is met by the next question, and by those who listen to it.
  pool.on('error', () => undefined)
  const db = new Kysely<Database>({
    dialect: new PostgresDialect({ pool }),
    plugins: [new CamelCasePlugin({ maintainNestedObjectKeys: true })],
  })
  const { error } = await new Migrator({
    db,
    provider: { getMigrations: () => Promise.resolve(migrations) },
  }).migrateToLatest()
  if (error) throw error instanceof Error ? error : new Error('The database could not be brought to the newest schema.')
  return db
}

/** How often writes are tried that others were in the way of. */
const TRIES = 5

/**
 * Several writes as one; within a transaction that is open already they belong to it. Writes that waited for each other
 * in a circle are made anew, so that `write` must do nothing but ask and write. Source: PostgreSQL documentation,
 * appendix A: 40P01 is deadlock_detected.
 */
export async function inTransaction<T>(db: Db, write: (tx: Db) => Promise<T>): Promise<T> {
  if (db.isTransaction) return write(db)
  for (let turn = 1; ; turn += 1)
    try {
      return await db.transaction().execute(write)
    } catch (error) {
      if (turn === TRIES || !isCircle(error)) throw error
    }
}

const isCircle = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === '40P01'
