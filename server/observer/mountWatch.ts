import type { Db } from '../db/connection'
import { appeared, dropAppeared, putAppeared } from '../db/queries/appeared'
import { readers } from '../db/queries/readers'
import { readNoticed } from '../db/queries/settings'
import { tellChanged } from '../db/queries/tasks'
import { putMount, volumes } from '../db/queries/volumes'
import { newMounts, readMount, type MountRead } from '../media/appeared'

/**
 * Notices file systems that were mounted, on one computer: a known volume’s marker makes it that volume, anything else
 * is written down and asked about.
 */
export async function findMounts(db: Db, host: string): Promise<void> {
  const [known, all, { folders }] = await Promise.all([volumes(db, host), readers(db), readNoticed(db)])
  // What was put away is asked about again, as what nobody knows.
  const taken = [
    ...known.filter((row) => row.connected && row.putAwayAt === null),
    ...all.filter((row) => row.putAwayAt === null && row.host === host),
  ].map((row) => row.rootPath)
  const [mounts, before] = await Promise.all([newMounts(taken, folders), appeared(db, host)])
  const gone = before.filter((row) => !mounts.some((mount) => mount.path === row.path))
  if (gone.length > 0)
    await dropAppeared(
      db,
      host,
      gone.map((row) => row.path),
    )
  let changed = gone.length > 0
  for (const mount of mounts) {
    if (before.some((row) => row.path === mount.path && row.node === mount.node)) continue
    const read = await readMount(mount)
    if (!read) continue
    if (!(await isKnownVolume(db, host, read, known))) await putAppeared(db, host, read)
    changed = true
  }
  if (changed) await tellChanged(db, 'cards', 'storage')
}

/** Two drives with one marker are a drive and its copy: the one that is there already stays what it is. */
async function isKnownVolume(
  db: Db,
  host: string,
  { marker, path }: MountRead,
  known: Awaited<ReturnType<typeof volumes>>,
): Promise<boolean> {
  const volume = known.find((row) => row.id === marker)
  if (!volume || volume.connected || volume.simulated || volume.putAwayAt !== null) return false
  await putMount(db, volume.id, host, path)
  return true
}
