import { basename, join } from 'node:path'
import type { Db } from '../db/connection'
import { putMount } from '../db/queries/volumes'
import { benchFolder, hostName } from '../home'

/** Cards and drives of the bench lie in a folder of ours, which may have been moved or copied since. */
export async function findBench(db: Db): Promise<void> {
  const drives = await db
    .selectFrom('benchDevice')
    .innerJoin('mount', 'mount.volumeId', 'benchDevice.id')
    .select(['mount.volumeId', 'mount.path'])
    .execute()
  for (const { volumeId, path } of drives)
    await putMount(db, volumeId, hostName(), join(benchFolder(), 'volumes', basename(path)))
  for (const { name, folder } of await db.selectFrom('benchCard').select(['name', 'folder']).execute())
    await db
      .updateTable('benchCard')
      .set({ folder: join(benchFolder(), 'cards', basename(folder)) })
      .where('name', '=', name)
      .execute()
}
