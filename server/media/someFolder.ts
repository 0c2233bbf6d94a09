import { realpath, stat } from 'node:fs/promises'
import { dirname, resolve } from 'node:path'
import type { Db } from '../db/connection'
import { readers } from '../db/queries/readers'
import { volumes } from '../db/queries/volumes'
import { FolderMedium } from '../engine/medium/folder'
import type { Medium } from '../engine/medium/medium'
import { mounts } from '../engine/medium/mounts'
import { TimedMedium } from '../engine/medium/withinTimeout'
import { readerContent, volumeMedium } from './mediumOf'
import { within, WrongFolder } from './register'

/** File systems that the kernel invents while one reads. */
const INVENTED = new Set(['proc', 'sysfs', 'devtmpfs', 'devpts', 'cgroup2', 'debugfs', 'tracefs', 'securityfs', 'bpf'])

/**
 * The real folder behind a path, to be read only. Throws `WrongFolder` for what is none, the root of the system, and
 * what holds no files of anybody.
 */
export async function readableFolder(path: string): Promise<string> {
  const real = await realpath(resolve(path)).catch(() => undefined)
  if (!real || !(await stat(real).catch(() => undefined))?.isDirectory())
    throw new WrongFolder(`There is no folder at ${path}. Connect the drive and check the path.`)
  const [mount] = mounts()
    .filter((one) => within(real, one.path))
    .sort((a, b) => b.path.length - a.path.length)
  if (real === '/' || (mount && INVENTED.has(mount.type)))
    throw new WrongFolder(`${path} belongs to the system. Choose the folder with the footage.`)
  return real
}

/** The real file behind a path; `undefined` when there is none. */
export async function readableFile(path: string): Promise<string | undefined> {
  const real = await realpath(resolve(path)).catch(() => undefined)
  return real && (await stat(real).catch(() => undefined))?.isFile() ? real : undefined
}

/** A folder as it is read, and written beside where that is allowed. */
export interface SomeFolder {
  readonly medium: Medium
  /** Below the root of the medium. */
  readonly folder: Buffer
  /** The registered volume on which it lies, that is no card. */
  readonly volume: { readonly id: string; readonly name: string } | undefined
}

/**
 * A real folder through the medium of whatever it lies on: a volume, a card in a reader, or itself. `undefined` while a
 * registered place is not there.
 */
export async function someFolder(db: Db, host: string, real: string): Promise<SomeFolder | undefined> {
  const below = (root: string) => Buffer.from(real.slice(root.length + 1))
  const nearest = <Row extends { rootPath: string | null }>(rows: readonly Row[]) =>
    rows
      .filter((row): row is Row & { rootPath: string } => row.rootPath !== null && liesOn(real, row.rootPath))
      .sort((a, b) => b.rootPath.length - a.rootPath.length)[0]
  const [reader, volume] = [
    nearest(await readers(db)),
    nearest((await volumes(db, host)).filter((row) => row.connected)),
  ]
  if (reader && (!volume || reader.rootPath.length >= volume.rootPath.length)) {
    const content = await readerContent(db, reader)
    if (typeof content === 'string') return undefined
    return { medium: content.medium, folder: below(content.medium.root), volume: undefined }
  }
  if (volume) {
    const medium = await volumeMedium(db, volume)
    return medium && { medium, folder: below(volume.rootPath), volume: { id: volume.id, name: volume.name } }
  }
  return { medium: new TimedMedium(new FolderMedium(real)).medium, folder: Buffer.alloc(0), volume: undefined }
}

/** Below a root, and not on something else that is mounted there. */
const liesOn = (real: string, root: string) =>
  within(real, root) &&
  !mounts().some((mount) => mount.path !== root && within(mount.path, root) && within(real, mount.path))

/** The folder in which a file lies, through its own medium, and the name of the file. */
export function besideFile(real: string): { readonly medium: Medium; readonly path: Buffer } {
  const folder = dirname(real)
  return { medium: new FolderMedium(folder), path: Buffer.from(real.slice(folder === '/' ? 1 : folder.length + 1)) }
}
