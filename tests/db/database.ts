import { randomUUID } from 'node:crypto'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDatabase, type Db } from '../../server/db/connection'
import { addVolume } from '../../server/db/queries/volumes'
import { startCluster } from '../prepared'

/** A cluster of the test's own. */
export async function testCluster() {
  const home = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-db-'))
  chmodSync(home, 0o755)
  const cluster = await startCluster(home)
  return {
    /** Empty, when it is asked for first. */
    url: (name: string) => cluster.database(name),
    open: (name: string) => openDatabase(cluster.newest(name)),
    async stop() {
      await cluster.stop()
      rmSync(home, { recursive: true, force: true })
    },
  }
}

export async function newVolume(db: Db, name: string, kind: 'archive' | 'edit' = 'archive'): Promise<string> {
  const id = randomUUID()
  await addVolume(db, { id, name: `${name} ${id}`, kind, site: 'house', simulated: false, capacityBytes: 1e12 })
  return id
}
