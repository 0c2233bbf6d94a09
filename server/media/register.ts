import { randomUUID } from 'node:crypto'
import { mkdir, realpath, stat, writeFile } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import { FolderMedium } from '../engine/folder'
import { home } from '../home'
import { CannotWork } from './cannotWork'
import { MARKER, markerIn } from './places'

/** A folder that cannot be registered; the message says why and what to do. */
export class WrongFolder extends CannotWork {}

const SYSTEM = [
  '/',
  '/bin',
  '/boot',
  '/dev',
  '/etc',
  '/lib',
  '/lib64',
  '/proc',
  '/run',
  '/sbin',
  '/sys',
  '/usr',
  '/var',
]

const within = (inner: string, outer: string) => inner === outer || inner.startsWith(`${outer === '/' ? '' : outer}/`)

/** The real folder behind a path somebody typed; refuses what is none, what belongs to the system, and our own folder. */
export async function registrableFolder(path: string, taken: readonly (string | null)[]): Promise<string> {
  const real = await realpath(resolve(path)).catch(() => undefined)
  if (!real || !(await stat(real).catch(() => undefined))?.isDirectory())
    throw new WrongFolder(`There is no folder at ${path}. Connect the drive and check the path.`)
  const system = SYSTEM.some(
    (folder) => real === folder || (folder !== '/' && folder !== '/run' && folder !== '/var' && within(real, folder)),
  )
  if (system)
    throw new WrongFolder(
      `${path} belongs to the system. Give the folder where the drive or card appears, such as /media/you/NAME.`,
    )
  const own = await realpath(home())
  if (within(real, own) || within(own, real))
    throw new WrongFolder(`${path} is where Yendra keeps its own things. Choose another folder.`)
  const overlap = taken.find((root) => root !== null && (within(real, root) || within(root, real)))
  if (overlap) throw new WrongFolder(`${path} overlaps with ${overlap}, which is registered already.`)
  return real
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** Keeps the marker that a volume has from another installation, or writes a new one. */
export async function markVolume(root: string): Promise<string> {
  const known = await markerIn(root)
  if (typeof known === 'string' && UUID.test(known)) return known
  const id = randomUUID()
  const file = join(root, MARKER)
  try {
    await mkdir(dirname(file), { recursive: true })
    await writeFile(file, `${JSON.stringify({ id })}\n`)
  } catch {
    throw new WrongFolder(`${root} cannot be written to. Check its write protection and rights.`)
  }
  return id
}

/** Room and device of a folder that is about to be registered. */
export async function folderFigures(root: string) {
  const medium = new FolderMedium(root)
  const [room, device] = await Promise.all([medium.room(), medium.device()])
  return { ...room, device }
}
