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
  if (liesAt(handle.fd, path)) return handle
  await handle.close()
  throw linkOnTheWay()
}

/** Whether an open file lies just where the path says, by what the system knows from memory: no drive is waited for. */
export const liesAt = (fd: number, path: Buffer): boolean =>
  readlinkSync(`/proc/self/fd/${fd}`, { encoding: 'buffer' }).equals(absolute(path))

export const linkOnTheWay = (): Error => deviceError('ELOOP', LINK)

const absolute = (path: Buffer): Buffer => (path[0] === 0x2f ? path : Buffer.from(resolve(path.toString())))
