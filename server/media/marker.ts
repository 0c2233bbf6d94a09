import { randomUUID } from 'node:crypto'
import { constants } from 'node:fs'
import { link, lstat, mkdir, open, rename, rmdir, unlink } from 'node:fs/promises'
import { join } from 'node:path'
import { isUuid } from '../../core/units/uuid'
import { errorCode } from '../engine/medium/medium'
import { openHere } from '../engine/medium/openHere'

const FOLDER = '.yendra'
/** A volume is known by this file at its root, never by where it is mounted. */
export const MARKER = `${FOLDER}/volume.json`
const MOST_BYTES = 4096

/** The id in a folder's marker; `undefined` when there is none, or something else stands in its place. */
export async function markerIn(root: string): Promise<string | undefined> {
  // Opening a pipe would wait for its writer.
  const file = await openHere(Buffer.from(join(root, MARKER)), constants.O_RDONLY | constants.O_NONBLOCK).catch(
    () => undefined,
  )
  if (!file) return undefined
  try {
    if (!(await file.stat()).isFile()) return undefined
    const { bytesRead, buffer } = await file.read(Buffer.alloc(MOST_BYTES), 0, MOST_BYTES, 0)
    const { id } = JSON.parse(buffer.toString('utf8', 0, bytesRead)) as { id?: unknown }
    return typeof id === 'string' && isUuid(id) ? id : undefined
  } catch {
    return undefined
  } finally {
    await file.close()
  }
}

/** Something other than a folder or a file stands where the marker belongs. */
export class MarkerTaken extends Error {}

export interface Marked {
  readonly id: string
  /** Takes back what was written, for when the volume could not be registered. */
  undo(): Promise<void>
}

/**
 * Keeps the marker that a volume has from another installation, or writes a new one: exclusively, and under its name
 * only when it is whole. Throws MarkerTaken, or the system's error when the folder cannot be written to.
 */
export async function mark(root: string): Promise<Marked> {
  const known = await markerIn(root)
  if (known !== undefined) return { id: known, undo: () => Promise.resolve() }
  const folder = join(root, FOLDER)
  const isNewFolder = await mkdir(folder).then(
    () => true,
    (error: unknown) => {
      if (errorCode(error) !== 'EEXIST') throw error
      return false
    },
  )
  if (!(await lstat(folder)).isDirectory()) throw new MarkerTaken(folder)
  const file = join(root, MARKER)
  const standing = await lstat(file).catch(() => undefined)
  if (standing && !standing.isFile()) throw new MarkerTaken(file)
  const id = randomUUID()
  const part = join(folder, `volume-${id}.part`)
  const undo = async () => {
    if ((await markerIn(root)) === id) await unlink(file)
    if (isNewFolder) await rmdir(folder).catch(() => undefined)
  }
  try {
    const { O_WRONLY, O_CREAT, O_EXCL, O_NOFOLLOW } = constants
    const handle = await open(part, O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW, 0o644)
    await handle.writeFile(`${JSON.stringify({ id })}\n`)
    await handle.sync()
    await handle.close()
    // A damaged marker is replaced; where there is none, another that appears meanwhile stays.
    if (standing) await rename(part, file)
    else await nameNew(part, file)
  } catch (error) {
    await unlink(part).catch(() => undefined)
    await undo()
    throw error
  }
  const winner = (await markerIn(root)) ?? id
  return { id: winner, undo: winner === id ? undo : () => Promise.resolve() }
}

async function nameNew(part: string, file: string): Promise<void> {
  try {
    await link(part, file)
    await unlink(part)
  } catch (error) {
    if (errorCode(error) === 'EEXIST') return unlink(part)
    // File systems without hard links, such as those of cards and sticks.
    if (!['EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS'].includes(errorCode(error))) throw error
    await rename(part, file)
  }
}
