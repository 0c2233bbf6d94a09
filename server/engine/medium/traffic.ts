import { readFile } from 'node:fs/promises'
import { mediumNumber } from './device'

/** Source: Documentation/admin-guide/iostats.rst of Linux: fields 3 and 7 after the name count sectors of 512 bytes. */
const SECTOR = 512

/** Bytes that disks have read and written since the system began, by their names, as `/proc/diskstats` tells. */
export function bytesMoved(table: string, disks: ReadonlySet<string>): number {
  let sectors = 0
  for (const line of table.split('\n')) {
    const [, , name = '', , , read = '', , , , written = ''] = line.trim().split(/\s+/)
    if (disks.has(name)) sectors += Number(read) + Number(written)
  }
  return sectors * SECTOR
}

/**
 * What the disks below a folder have read and written, by whomever; `undefined` where the system does not tell which
 * they are.
 */
export async function movedBelow(root: string): Promise<number | undefined> {
  const disks = new Set((await mediumNumber(root)).split('+').flatMap((one) => one.split('#')[0] || []))
  return disks.size === 0 ? undefined : bytesMoved(await readFile('/proc/diskstats', 'utf8'), disks)
}
