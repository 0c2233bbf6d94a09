import { constants, readlinkSync } from 'node:fs'
import { open, type FileHandle } from 'node:fs/promises'
import { resolve } from 'node:path'
import { deviceError } from './medium'

const LINK = 'A link stands where a folder or a file is expected. Links are not followed.'

/**
 * Opens what lies just where its path says. A link anywhere on the way is refused (`ELOOP`), also one that is put there
 * in the very moment: the system is asked where the open file really lies.
 */
export async function openHere(path: Buffer, flags: number, mode?: number): Promise<FileHandle> {
  const handle = await open(path, flags | constants.O_NOFOLLOW, mode)
  // What the system answers from memory: no drive is waited for.
  if (readlinkSync(`/proc/self/fd/${handle.fd}`, { encoding: 'buffer' }).equals(absolute(path))) return handle
  await handle.close()
  throw linkOnTheWay()
}

export const linkOnTheWay = (): Error => deviceError('ELOOP', LINK)

const absolute = (path: Buffer): Buffer => (path[0] === 0x2f ? path : Buffer.from(resolve(path.toString())))
