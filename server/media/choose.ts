import { readdir, realpath, statfs } from 'node:fs/promises'
import { homedir } from 'node:os'
import { basename, dirname, join, resolve } from 'node:path'
import { mounts, type Mounted } from './mounts'
import { refusalOf, WrongFolder } from './register'

export interface Place {
  readonly name: string
  readonly path: string
  readonly room: { readonly capacityBytes: number; readonly freeBytes: number } | null
  readonly refusal: string | null
}

type Taken = readonly (string | null)[]

const MOST_SHOWN = 500
/** A share whose server is gone would keep everybody waiting. */
const PATIENCE_MS = 1500

const SHARES = /^(nfs|cifs|smb|9p|virtiofs|fuse\.)/

/** A drive, a card, a share; not what the system mounts for itself. */
const mayHoldFootage = ({ type, source }: Mounted) => source.startsWith('/dev/') || SHARES.test(type)

/** Mounted file systems where a drive or a card may be, and the person's own folder, which holds no drive of its own. */
export async function mountedPlaces(taken: Taken): Promise<Place[]> {
  const paths = new Set((await mounts()).filter(mayHoldFootage).map((mount) => mount.path))
  const places = await Promise.all([...paths].map((path) => placeOf(path, taken)))
  const own = {
    name: 'Your own folder',
    path: homedir(),
    room: null,
    refusal: (await refusalOf(homedir(), homedir(), taken)) ?? null,
  }
  // What the system lives on cannot be registered; its folders are reached through the person's own.
  const fit = places.filter((place) => !place.refusal || place.refusal.includes('registered already'))
  return [...fit.sort((a, b) => a.name.localeCompare(b.name)), own]
}

async function placeOf(path: string, taken: Taken): Promise<Place> {
  const room = await Promise.race([
    statfs(path).then(({ blocks, bavail, bsize }) => ({ capacityBytes: blocks * bsize, freeBytes: bavail * bsize })),
    new Promise<null>((done) => setTimeout(() => done(null), PATIENCE_MS).unref()),
  ]).catch(() => null)
  return { name: basename(path) || path, path, room, refusal: (await refusalOf(path, path, taken)) ?? null }
}

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
  const folders: Place[] = []
  for (const name of names.slice(0, MOST_SHOWN)) {
    const inner = join(real, name)
    folders.push({ name, path: inner, room: null, refusal: (await refusalOf(inner, inner, taken)) ?? null })
  }
  return {
    path: real,
    above: real === '/' ? null : dirname(real),
    refusal: (await refusalOf(real, real, taken)) ?? null,
    folders,
    more: names.length - folders.length,
  }
}
