import { readdir, realpath, statfs } from 'node:fs/promises'
import { homedir } from 'node:os'
import { basename, dirname, join, resolve } from 'node:path'
import { mounts, type Mounted } from '../engine/medium/mounts'
import { refuser, WrongFolder, type Refusal } from './register'

export interface Place {
  readonly name: string
  readonly path: string
  readonly room: { readonly capacityBytes: number; readonly freeBytes: number } | null
  readonly refusal: Refusal | null
}

type Taken = readonly (string | null)[]

const MOST_SHOWN = 500
/** A share whose server is gone would keep everybody waiting. */
const PATIENCE_MS = 1500

const SHARES = /^(nfs|cifs|smb|9p|virtiofs|fuse\.)/

/** A drive, a card, a share; not what the system mounts for itself. */
const mayHoldFootage = ({ type, source }: Mounted) => source.startsWith('/dev/') || SHARES.test(type)

/**
 * Mounted file systems where a drive or a card may be, and the person's own folder, which holds no drive of its own.
 */
export async function mountedPlaces(taken: Taken): Promise<Place[]> {
  const refusalOf = await refuser(taken)
  const paths = new Set(
    mounts()
      .filter(mayHoldFootage)
      .map((mount) => mount.path),
  )
  // What the system and its programs live on cannot be registered; the person's folders there are reached through their
  // own.
  const fit = [...paths].filter((path) => [undefined, 'known'].includes(refusalOf(path)?.kind))
  const places = await Promise.all(
    fit.map(async (path) => ({
      name: basename(path),
      path,
      room: await roomOf(path),
      refusal: refusalOf(path) ?? null,
    })),
  )
  const own = { name: 'Your own folder', path: homedir(), room: null, refusal: refusalOf(homedir()) ?? null }
  return [...places.sort((a, b) => a.name.localeCompare(b.name)), own]
}

/** Bytes of a file system, and free ones; `null` where it does not answer soon. */
export const roomOf = (path: string): Promise<Place['room']> =>
  Promise.race([
    statfs(path).then(({ blocks, bavail, bsize }) => ({ capacityBytes: blocks * bsize, freeBytes: bavail * bsize })),
    new Promise<null>((done) => setTimeout(() => done(null), PATIENCE_MS).unref()),
  ]).catch(() => null)

/** Folders in a folder, links and hidden ones left out. Throws WrongFolder when it cannot be listed. */
export async function foldersIn(path: string, taken: Taken) {
  const real = await realpath(resolve(path)).catch(() => undefined)
  const entries = real === undefined ? undefined : await readdir(real, { withFileTypes: true }).catch(() => undefined)
  if (real === undefined || !entries)
    throw new WrongFolder(`${path} cannot be opened. Connect the drive, and check that you may read it.`)
  const names = entries
    .filter((entry) => entry.isDirectory() && !entry.name.startsWith('.') && !entry.name.includes('\uFFFD'))
    .map((entry) => entry.name)
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
  const refusalOf = await refuser(taken)
  const folders = names.slice(0, MOST_SHOWN).map((name): Place => {
    const inner = join(real, name)
    return { name, path: inner, room: null, refusal: refusalOf(inner) ?? null }
  })
  return {
    path: real,
    above: real === '/' ? null : dirname(real),
    refusal: refusalOf(real) ?? null,
    folders,
    more: names.length - folders.length,
  }
}
