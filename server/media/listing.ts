import { filesToSample } from '../../core/cards/load'
import { printablePath } from '../../core/copies/pathText'
import type { NewEntry } from '../db/queries/seen'
import { joinPath, type Medium } from '../engine/medium'
import { sampleHash } from '../engine/sample'
import { listingPrint, walk, type WalkedEntry } from '../engine/walk'

/** What a card lists, as rows and as a print. */
export interface Listing {
  readonly walked: readonly WalkedEntry[]
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
  return { walked, entries, files: entries.filter((entry) => entry.kind === 'file'), print: listingPrint(walked) }
}

/** Whether a folder really lies on the medium: no part of its path is a link, or another file system mounted there. */
async function liesHere(medium: Medium, folder: Buffer): Promise<boolean> {
  const fileSystem = (node: string | undefined) => node?.split(':')[0]
  const parts = folder.toString('latin1').split('/')
  let first: string | undefined
  for (let length = 1; length <= parts.length; length += 1) {
    const entry = await medium.entry(Buffer.from(parts.slice(0, length).join('/'), 'latin1'))
    if (entry?.kind !== 'folder') return false
    first ??= fileSystem(entry.node)
    if (fileSystem(entry.node) !== first) return false
  }
  return true
}

/** Files below a mirror, keyed by their path bytes as latin1; `undefined` when there is no such folder. */
export async function listMirror(medium: Medium, folder: Buffer) {
  if (!(await liesHere(medium, folder))) return undefined
  const walked = await walk(medium, folder)
  return new Map(
    walked.flatMap((entry) =>
      entry.kind === 'file' ? [[entry.path.subarray(folder.length + 1).toString('latin1'), entry] as const] : [],
    ),
  )
}

/** The files of a card whose ends are hashed, with the hashes; one that cannot be read is left out. */
export async function takeSamples(medium: Medium, files: readonly NewEntry[], seed: string) {
  const drawn = filesToSample(
    files.map((file) => ({ ...file, path: file.pathText, bytes: file.path })),
    seed,
  )
  const taken = await Promise.all(
    drawn.map(async (file) => {
      const hash = await sampleHash(medium, file.bytes, file.sizeBytes).catch(() => undefined)
      return hash === undefined ? [] : [{ path: file.bytes, hash }]
    }),
  )
  return taken.flat()
}

export interface KnownSample {
  readonly path: Buffer
  readonly modifiedMs: number
  readonly sizeBytes: number
  readonly hash: string
}

export const CARD_ROOT = Buffer.alloc(0)

/**
 * Whether files below a folder have the ends that were hashed once on the card; files that are gone or have another size
 * say nothing. On a card, files written anew say nothing either: their times differ by more than `shiftMs`. A mirror
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
    if ((await sampleHash(medium, path, sample.sizeBytes)) !== sample.hash) return false
  }
  return true
}
