import { filesToSample } from '../../core/cards/load/load'
import { MOST_COMPARED } from '../../core/cards/load/stay'
import type { ListedFile } from '../../core/copies/copyState'
import { printablePath } from '../../core/copies/pathText'
import type { NewEntry } from '../db/queries/seen'
import { alignedBlocks } from '../engine/medium/blocks'
import { inLanes } from '../engine/medium/lanes'
import { joinPath, type Medium, type TreeEntry } from '../engine/medium/medium'
import { sampleHash } from '../engine/copy/sample'
import { stampOf } from '../engine/medium/stamps'
import { listingDigest, walk, walkBelow } from '../engine/medium/walk'

/** What a card lists, as rows and as a print. */
export interface Listing {
  readonly walked: readonly TreeEntry[]
  readonly entries: readonly NewEntry[]
  readonly files: readonly NewEntry[]
  readonly print: string
}

export async function listCard(medium: Medium): Promise<Listing> {
  const walked = await walk(medium)
  const entries = walked.map((entry) => ({
    path: entry.path,
    pathText: printablePath(entry.path),
    kind: entry.kind,
    sizeBytes: entry.kind === 'file' ? entry.sizeBytes : 0,
    modifiedMs: entry.modifiedMs,
  }))
  return { walked, entries, files: entries.filter((entry) => entry.kind === 'file'), print: listingDigest(walked) }
}

/**
 * Whether a folder really lies on the medium: no part of its path is a link, or a place where something else is
 * mounted.
 */
async function liesHere(medium: Medium, folder: Buffer): Promise<boolean> {
  const parts = folder.toString('latin1').split('/')
  for (let length = 1; length <= parts.length; length += 1) {
    const entry = await medium.entry(Buffer.from(parts.slice(0, length).join('/'), 'latin1'))
    if (entry?.kind !== 'folder') return false
  }
  return true
}

/** Places inside a folder, or on the way to it, where other file systems are mounted; as text, from the root. */
export function mountedInside(medium: Medium, folder: Buffer): string[] {
  const path = folder.toString('latin1')
  return medium
    .mounted()
    .filter((place) => path === '' || place.startsWith(`${path}/`) || `${path}/`.startsWith(`${place}/`))
    .map((place) => printablePath(Buffer.from(place, 'latin1')))
}

/**
 * Files below a mirror, keyed by their path bytes as latin1, as they are told from others; `undefined` when there is no
 * such folder.
 */
export async function listMirror(medium: Medium, folder: Buffer) {
  if (!(await liesHere(medium, folder))) return undefined
  const stamps = await medium.stamps()
  const files = new Map<string, ListedFile>()
  for (const entry of await walkBelow(medium, folder)) {
    if (entry.kind !== 'file') continue
    const { inode, changedMs } = stampOf(stamps, entry)
    const { sizeBytes, modifiedMs } = entry
    files.set(entry.path.toString('latin1'), { sizeBytes, modifiedMs, inode, changedMs })
  }
  return files
}

/** Files that are read at the same time while their ends are hashed. */
const LANES = 4

/**
 * The files of a card whose ends are hashed, with the hashes: a few of all, and every clip up to a number. One that
 * cannot be read is left out.
 */
export async function takeSamples(
  medium: Medium,
  files: readonly NewEntry[],
  seed: string,
  isClip: (path: string) => boolean,
) {
  const drawn = filesToSample(
    files.map((file) => ({ ...file, path: file.pathText, bytes: file.path })),
    seed,
  ).map((file) => ({ path: file.bytes, sizeBytes: file.sizeBytes }))
  const clips = files.filter((file) => file.sizeBytes > 0 && isClip(file.pathText)).slice(0, MOST_COMPARED)
  const wanted = new Map([...drawn, ...clips].map((file) => [file.path.toString('latin1'), file]))
  const taken: { path: Buffer; hash: string }[] = []
  await inLanes([...wanted.values()], alignedBlocks(LANES, 4096), async ({ path, sizeBytes }) => {
    const hash = await sampleHash(medium, path, sizeBytes).catch(() => undefined)
    if (hash !== undefined) taken.push({ path, hash })
  })
  return taken
}

export { stampOf } from '../engine/medium/stamps'
export { keepsLocalTime } from '../engine/medium/superblock'

/** Hash of the ends of a file below a folder; `undefined` when it cannot be read. */
export const endsAt = (medium: Medium, folder: Buffer, path: Buffer, sizeBytes: number): Promise<string | undefined> =>
  sampleHash(medium, joinPath(folder, path), sizeBytes).catch(() => undefined)

export interface KnownSample {
  readonly path: Buffer
  readonly modifiedMs: number
  readonly sizeBytes: number
  readonly hash: string
}

export const CARD_ROOT = Buffer.alloc(0)

/**
 * Whether files below a folder have the ends that were hashed once on the card; files that are gone or have another
 * size say nothing. On a card, files rewritten say nothing either: their times differ by more than `shiftMs`. A mirror
 * keeps times of its own, and is asked without one.
 */
export async function samplesEqual(
  medium: Medium,
  samples: readonly KnownSample[],
  folder: Buffer,
  shiftMs?: number,
): Promise<boolean> {
  for (const sample of samples) {
    const path = joinPath(folder, sample.path)
    const entry = await medium.entry(path)
    if (entry?.kind !== 'file' || entry.sizeBytes !== sample.sizeBytes) continue
    const wantedMs = shiftMs === undefined ? entry.modifiedMs : sample.modifiedMs + shiftMs
    if (Math.trunc(entry.modifiedMs) !== Math.trunc(wantedMs)) continue
    // One file that cannot be read any more says nothing of the others.
    const now = await sampleHash(medium, path, sample.sizeBytes).catch(() => undefined)
    if (now !== undefined && now !== sample.hash) return false
  }
  return true
}
