import { execFile } from 'node:child_process'
import { readdir, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { mountOf } from './device'

const BY_UUID = '/dev/disk/by-uuid'
const PATIENCE_MS = 2000

/**
 * What the system calls the file system that a folder lies on: its UUID or serial number, which a format changes.
 * `undefined` where there is none, the system does not tell, or the folder is only a part of it. Sources: udev(7), blkid(8) of util-linux.
 */
export async function volumeUidOf(root: string): Promise<string | undefined> {
  const { dev } = await stat(root)
  if ((await stat(dirname(root))).dev === dev) return undefined
  for (const name of await readdir(BY_UUID).catch(() => []))
    if ((await stat(join(BY_UUID, name)).catch(() => undefined))?.rdev === dev) return name
  const { source } = await mountOf(dev)
  return source.startsWith('/dev/') ? askBlkid(source) : undefined
}

/** Where nobody keeps links by UUID: it reads the device itself, where that is allowed. */
const askBlkid = (device: string): Promise<string | undefined> =>
  new Promise((resolve) => {
    execFile('/sbin/blkid', ['-o', 'value', '-s', 'UUID', device], { timeout: PATIENCE_MS }, (error, out) => {
      const uuid = error ? '' : out.trim()
      resolve(/^[\w-]{4,64}$/.test(uuid) ? uuid : undefined)
    })
  })
