import { closeSync, constants, openSync, readFileSync, readSync } from 'node:fs'
import { deviceError } from './medium'

export interface Mounted {
  /** The kernel gives it anew once it is free. */
  readonly id: number
  /** Major and minor number of the file system, `8:1`. */
  readonly device: string
  readonly path: string
  /** Path bytes, one a character. */
  readonly bytes: string
  readonly type: string
  readonly source: string
}

const TABLE = '/proc/self/mountinfo'

/**
 * What is mounted on this computer, from the kernel’s memory. Source: proc_pid_mountinfo(5); spaces and the like are
 * octal escapes.
 */
export const mounts = (): readonly Mounted[] => parsed(mountTable())

/** The same as the kernel writes it: another text whenever anything was mounted or unmounted. */
export const mountTable = (): string => readFileSync(TABLE, 'latin1')

let latest: { readonly table: string; readonly mounts: readonly Mounted[] } = { table: '', mounts: [] }

/** Asked many times a second, and seldom another one. */
function parsed(table: string): readonly Mounted[] {
  if (table !== latest.table) latest = { table, mounts: parse(table) }
  return latest.mounts
}

const parse = (table: string): Mounted[] =>
  table.split('\n').flatMap((line) => {
    const fields = line.split(' ')
    // Optional fields end with a lone hyphen.
    const end = fields.indexOf('-', 6)
    const [id, , device = '', , path] = fields
    if (path === undefined || end < 0) return []
    const bytes = unescaped(path)
    const text = (latin1: string) => Buffer.from(latin1, 'latin1').toString()
    const [type = '', source = ''] = [fields[end + 1], fields[end + 2]]
    return { id: Number(id), device, path: text(bytes), bytes, type, source: text(unescaped(source)) }
  })

const unescaped = (text: string) =>
  text.replaceAll(/\\([0-7]{3})/g, (_, octal: string) => String.fromCharCode(parseInt(octal, 8)))

const latin1 = (root: string) => Buffer.from(root).toString('latin1')

/** Places below a folder where something else is mounted: path bytes relative to it, one a character. */
export function mountedBelow(root: string, table: readonly Mounted[]): string[] {
  const start = root === '/' ? '/' : `${latin1(root)}/`
  return table.flatMap(({ bytes }) => (bytes.startsWith(start) ? bytes.slice(start.length) : []))
}

/** The same, at this moment. */
export const mountedNow = (root: string): string[] => mountedBelow(root, mounts())

/** The place where something is mounted that a relative path lies at or below. */
export const mountOnTheWay = (path: string, places: readonly string[]): string | undefined =>
  places.find((place) => path === place || path.startsWith(`${place}/`))

/** What lies at a mount point is no part of the medium: nothing of it is read, written or removed. */
export const notOfThisMedium = (place: string): Error =>
  deviceError(
    'EXDEV',
    `Another file system is mounted at “${Buffer.from(place, 'latin1').toString()}”: what lies there ` +
      'is on another drive. Unmount it, or add it as a volume of its own.',
  )

const about = Buffer.alloc(4096)
const MOUNT_ID = 'mnt_id:'

/** The mount that an open file lies on. Source: proc_pid_fdinfo(5), `mnt_id`; `undefined` on kernels before 3.15. */
export function mountIdOf(fd: number): number | undefined {
  // Asked of every file that is opened: a quarter of what reading the file as a whole costs.
  const info = openSync(`/proc/self/fdinfo/${fd}`, constants.O_RDONLY)
  try {
    const text = about.toString('latin1', 0, readSync(info, about, 0, about.length, 0))
    const at = text.indexOf(MOUNT_ID)
    return at < 0 ? undefined : parseInt(text.slice(at + MOUNT_ID.length), 10)
  } finally {
    closeSync(info)
  }
}
