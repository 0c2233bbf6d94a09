import { execFile } from 'node:child_process'
import { stat } from 'node:fs/promises'
import { mountOf } from './device'

const PATIENCE_MS = 2000

/** What the first bytes of a file system say of it. */
export interface Superblock {
  /** As blkid calls it: `vfat`, `exfat`, `ext4` … */
  readonly type: string
  readonly uid: string | undefined
}

/**
 * What lies on the device that a folder is mounted from, whatever program serves it; read from the device itself, never
 * from a cache, where that is allowed. `undefined` without a device, or without the right to read it. Source: blkid(8)
 * of util-linux.
 */
export async function superblockOf(root: string): Promise<Superblock | undefined> {
  const { source } = await mountOf(root)
  if (!source.startsWith('/dev/') || !(await stat(source).catch(() => undefined))?.isBlockDevice()) return undefined
  return new Promise((resolve) => {
    execFile('/sbin/blkid', ['-p', '-o', 'export', source], { timeout: PATIENCE_MS }, (error, out) => {
      const field = (name: string) => new RegExp(`^${name}=(.+)$`, 'm').exec(out)?.[1]
      const [type, uid] = [error ? undefined : field('TYPE'), field('UUID')]
      resolve(type ? { type, uid: uid && /^[\w-]{4,64}$/.test(uid) ? uid : undefined } : undefined)
    })
  })
}

/**
 * File systems that keep the time of day without a zone, so that all times move with the clock. From memory: the
 * specifications of FAT and exFAT.
 */
const LOCAL_TIME = new Set(['vfat', 'exfat'])

/** Whether all times of a file system may move by whole hours together: said by its superblock alone. */
export const keepsLocalTime = async (root: string): Promise<boolean> =>
  LOCAL_TIME.has((await superblockOf(root).catch(() => undefined))?.type ?? '')
