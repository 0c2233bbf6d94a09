import { execFileSync } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startPostgres, type Cluster } from '../scripts/lib/postgres.mjs'
import { openDatabase } from '../server/db/connection'

/** The database of a prepared cluster that is at the newest schema, and empty. */
const NEWEST = 'yendra_newest'

/**
 * Before all tests: one cluster is made, and its database brought to the newest schema; each test file begins with a
 * copy.
 */
export default async function prepare(): Promise<() => void> {
  const home = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-prepared-'))
  chmodSync(home, 0o755)
  const cluster = await startPostgres(home, { tests: true })
  await (await openDatabase(cluster.database(NEWEST))).destroy()
  await cluster.stop()
  process.env.YENDRA_PREPARED = home
  return () => rmSync(home, { recursive: true, force: true })
}

/**
 * A cluster of the test's own, in a folder of its own. `newest` makes a database at the newest schema and returns its
 * address.
 */
export async function startCluster(home: string): Promise<Cluster & { readonly newest: (name: string) => string }> {
  const prepared = process.env.YENDRA_PREPARED ?? ''
  // Where the database's account may not enter a folder, its files lie elsewhere, and are made there.
  const isThere = existsSync(join(prepared, 'pg/data/PG_VERSION'))
  if (isThere) execFileSync('cp', ['-a', join(prepared, 'pg'), join(prepared, 'database-secret'), home])
  const cluster = await startPostgres(home, { tests: true })
  return { ...cluster, newest: (name) => cluster.database(name, isThere ? NEWEST : undefined) }
}
