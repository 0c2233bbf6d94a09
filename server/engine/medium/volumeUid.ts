import { readdir, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { superblockOf } from './superblock'

const BY_UUID = '/dev/disk/by-uuid'

/**
 * What the system calls the file system that a folder lies on: its UUID or serial number, which a format changes.
 * `undefined` where there is none, the system does not tell, or the folder is only a part of it. Source: udev(7).
 */
export async function volumeUidOf(root: string): Promise<string | undefined> {
  const { dev } = await stat(root)
  if ((await stat(dirname(root))).dev === dev) return undefined
  for (const name of await readdir(BY_UUID).catch(() => []))
    if ((await stat(join(BY_UUID, name)).catch(() => undefined))?.rdev === dev) return name
  return (await superblockOf(root))?.uid
}
