import { readdir, realpath, stat } from 'node:fs/promises'
import { homedir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { FolderMedium } from '../engine/medium/folder'
import { home, programFolder } from '../home'
import { CannotWork } from './cannotWork'
import { mark, MARKER, MarkerTaken, type Marked } from './marker'
import { mounts } from '../engine/medium/mounts'

/** A folder that cannot be registered; the message says why and what to do. */
export class WrongFolder extends CannotWork {}

/** An ordinary folder with things in it: the person is asked once more. */
export class UnlikelyFolder extends CannotWork {}

/** Refused with everything below them. */
const SYSTEM = [
  '/bin',
  '/boot',
  '/dev',
  '/etc',
  '/lib',
  '/lib64',
  '/opt',
  '/proc',
  '/sbin',
  '/srv',
  '/sys',
  '/usr',
  '/var',
]
/** Refused themselves, and whatever lies directly below: a drive is mounted deeper. */
const SHALLOW = ['/', '/home', '/root', '/run', '/media', '/mnt', '/tmp']
/** Below these, drives are mounted. */
const MOUNTED = ['/run/media', '/run/mount', '/run/user']

/** What this application is made of, below its own folder. */
const OWN = ['.git', '.yendra', 'core', 'contract', 'dist', 'docs', 'node_modules', 'scripts', 'server', 'tests', 'web']

/** Whether a path is another, or lies below it. */
export const within = (inner: string, outer: string) =>
  inner === outer || inner.startsWith(`${outer === '/' ? '' : outer}/`)

const isSystem = (real: string) =>
  SYSTEM.some((folder) => within(real, folder)) ||
  SHALLOW.includes(real) ||
  dirname(real) === '/home' ||
  real === homedir() ||
  (within(real, '/run') && !MOUNTED.some((folder) => real !== folder && within(real, folder))) ||
  // Where a check of the file system puts what it found (filesystem hierarchy standard, 3.1).
  real.split('/').includes('lost+found')

/**
 * A hidden folder of somebody’s home holds settings and keys, unless a drive is mounted there or this program lies in
 * it.
 */
function isHiddenAtHome(real: string, mounted: ReadonlySet<string>): boolean {
  const home = within(real, homedir()) ? homedir() : /^[/](?:root|home[/][^/]+)(?=[/])/.exec(real)?.[0]
  const [hidden] = (home !== undefined && /^[/][.][^/]*/.exec(real.slice(home.length))) || []
  if (home === undefined || hidden === undefined) return false
  const folder = `${home}${hidden}`
  return !within(programFolder(), folder) && ![...mounted].some((mount) => within(mount, folder) && within(real, mount))
}

/** One lies in the other; what is mounted somewhere inside is no part of what lies around it. */
const overlaps = (a: string, b: string, mounted: ReadonlySet<string>): boolean =>
  a === b || (within(a, b) && !mounted.has(a)) || (within(b, a) && !mounted.has(b))

export interface Refusal {
  /** What the folder is: the system's or a whole home, our own or another program's, or registered already. */
  readonly kind: 'system' | 'program' | 'known'
  readonly sentence: string
}

/** Tells by its path alone why a folder may not be registered; `typed` is how the person calls it. */
export async function refuser(taken: readonly (string | null)[]) {
  const program = programFolder()
  const own = [await realpath(home()), ...OWN.map((name) => join(program, name))]
  const mounted = new Set(mounts().map((mount) => mount.path))
  return (real: string, typed: string = real): Refusal | undefined => {
    const refuse = (kind: Refusal['kind'], why: string): Refusal => ({ kind, sentence: `${typed} ${why}` })
    if (isSystem(real))
      return refuse(
        'system',
        'belongs to the system or is somebody’s whole home. Give the folder where the drive or card ' +
          'appears, such as /media/you/NAME.',
      )
    if (isHiddenAtHome(real, mounted))
      return refuse(
        'system',
        'lies in a hidden folder of a home, where programs keep settings and keys. Give the folder where ' +
          'the drive or card appears.',
      )
    if (own.some((folder) => within(real, folder) || within(folder, real)))
      return refuse('program', 'is where Yendra keeps its own things. Choose another folder.')
    if (real.split('/').includes('node_modules'))
      return refuse('program', 'belongs to a program. Choose the folder of a drive or a card.')
    const overlap = taken.find((root) => root !== null && overlaps(real, root, mounted))
    return overlap ? refuse('known', `overlaps with ${overlap}, which is registered already.`) : undefined
  }
}

/**
 * The real folder behind a path somebody typed. Refuses what is none, what belongs to the system or to a person as a
 * whole, and our own; asks once more, unless `sure`, for a folder that is no drive's own and holds something.
 */
export async function registrableFolder(
  path: string,
  taken: readonly (string | null)[],
  sure: boolean,
): Promise<string> {
  const real = await realpath(resolve(path)).catch(() => undefined)
  if (!real || !(await stat(real).catch(() => undefined))?.isDirectory())
    throw new WrongFolder(`There is no folder at ${path}. Connect the drive and check the path.`)
  const refusal = (await refuser(taken))(real, path)
  if (refusal) throw new WrongFolder(refusal.sentence)
  if (!sure && !isMountPoint(real) && (await holdsThings(real)))
    throw new UnlikelyFolder(
      `${path} is an ordinary folder with things in it, not a drive or card of its own. Whatever ` +
        'shares its drive is lost with it. If it is what you mean, add it all the same.',
    )
  return real
}

/**
 * The real folder in which a person wants cards and drives to be noticed. Nothing in it is read but what is mounted
 * there.
 */
export async function namableFolder(path: string): Promise<string> {
  const real = await realpath(resolve(path)).catch(() => undefined)
  if (!real || !(await stat(real).catch(() => undefined))?.isDirectory())
    throw new WrongFolder(`There is no folder at ${path}. Give the folder in which cards and drives are mounted.`)
  return real
}

const isMountPoint = (real: string) => mounts().some((mount) => mount.path === real)

async function holdsThings(real: string): Promise<boolean> {
  const names = await readdir(real).catch(() => [])
  return names.some((name) => name !== dirname(MARKER) && name !== 'lost+found')
}

/** Marks a volume, and tells a person why it cannot be. */
export async function markVolume(root: string): Promise<Marked> {
  try {
    return await mark(root)
  } catch (error) {
    if (error instanceof MarkerTaken)
      throw new WrongFolder(
        `${error.message} is a link, a pipe or something else that cannot be Yendra’s marker. Look at ` +
          'it, move it away, and add the folder again.',
      )
    throw new WrongFolder(`${root} cannot be written to. Check its write protection and rights.`)
  }
}

/** Room and device of a folder that is about to be registered. */
export async function folderFigures(root: string) {
  const medium = new FolderMedium(root)
  const [room, device] = await Promise.all([medium.room(), medium.device()])
  return { ...room, device, isMountPoint: isMountPoint(root) }
}
