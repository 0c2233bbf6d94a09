import { execFile } from 'node:child_process'
import { readdir, stat } from 'node:fs/promises'
import { basename } from 'node:path'
import { promisify } from 'node:util'
import { volumeUidOf } from '../engine/medium/volumeUid'
import { roomOf } from './choose'
import { markerIn } from './marker'
import { mounts } from '../engine/medium/mounts'
import { refuser, within } from './register'

/** Where the system mounts what somebody plugs in. Source: udisks(8), and its Debian default. */
const USUAL = [
  { folder: '/media', depth: 2 },
  { folder: '/run/media', depth: 2 },
]
/** A folder that the person named: itself, and what is mounted in it. */
const NAMED_DEPTH = 1
const MOST_NAMES = 40

export interface MountSeen {
  readonly path: string
  /** Device and inode of its root: another when something else is mounted there. */
  readonly node: string
}

const depthBelow = (path: string, folder: string) =>
  within(path, folder) ? path.slice(folder.length).split('/').filter(Boolean).length : Infinity

/**
 * Whether something is mounted there because somebody plugged it in: in a usual place, or in a folder that was named.
 */
function isPluggedIn(path: string, named: readonly string[]): boolean {
  const places = [
    ...USUAL.map((one) => ({ ...one, least: 1 })),
    ...named.map((folder) => ({ folder, depth: NAMED_DEPTH, least: 0 })),
  ]
  return places.some(
    ({ folder, depth, least }) => depthBelow(path, folder) >= least && depthBelow(path, folder) <= depth,
  )
}

/** The drive or card that somebody plugged in, as far as the system put it in a usual place, that a folder lies on. */
export const pluggedInAround = (folder: string): string | undefined =>
  mounts().find(({ path }) => isPluggedIn(path, []) && within(folder, path))?.path

/** Whether it is mounted inside something that is registered: it is no part of that, and may be a volume of its own. */
const isInside = (path: string, taken: readonly (string | null)[]): boolean =>
  taken.some((root) => root !== null && path !== root && within(path, root))

/**
 * File systems that somebody plugged in, or mounted inside a registered one, and that are not registered; nothing of
 * them is read but where they are.
 */
export async function newMounts(taken: readonly (string | null)[], named: readonly string[]): Promise<MountSeen[]> {
  const refusalOf = await refuser(taken)
  const paths = mounts()
    .filter(({ source }) => source.startsWith('/dev/'))
    .map(({ path }) => path)
    .filter((path) => isPluggedIn(path, named) || isInside(path, taken))
    .filter((path) => refusalOf(path) === undefined)
  const seen = await Promise.all(
    [...new Set(paths)].map(async (path) => {
      const stats = await stat(path).catch(() => undefined)
      return stats ? [{ path, node: `${stats.dev}:${stats.ino}` }] : []
    }),
  )
  return seen.flat()
}

export interface MountRead extends MountSeen {
  readonly name: string
  readonly capacityBytes: number
  readonly freeBytes: number
  readonly topNames: readonly string[]
  readonly volumeUid: string | undefined
  readonly marker: string | undefined
}

/**
 * What is read of one before it is registered: names of its top folder, its room, and its marker. `undefined` when it
 * went away.
 */
export async function readMount({ path, node }: MountSeen): Promise<MountRead | undefined> {
  const [names, room, marker, volumeUid] = await Promise.all([
    readdir(path).catch(() => undefined),
    roomOf(path),
    markerIn(path),
    volumeUidOf(path).catch(() => undefined),
  ])
  if (!names || !room) return undefined
  const shown = names.filter((name) => !name.includes('\uFFFD') && !name.includes('\0')).sort()
  return { path, node, name: basename(path), ...room, topNames: shown.slice(0, MOST_NAMES), marker, volumeUid }
}

/** Lets go of a card that was plugged in, where the system lets us; nothing that is mounted elsewhere is touched. */
export async function unmountCard(root: string, named: readonly string[]): Promise<void> {
  if (!isPluggedIn(root, named)) return
  if (!mounts().some((mount) => mount.path === root && mount.source.startsWith('/dev/'))) return
  await promisify(execFile)('/bin/umount', [root], { timeout: 20_000 })
}
