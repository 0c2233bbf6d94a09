import { contentOf } from '../../core/cards/load'
import { RunningHash } from './hash'
import { errorCode, joinPath, type Medium, type MediumEntry } from './medium'

export interface WalkedEntry extends MediumEntry {
  readonly path: Buffer
}

/** Trouble of one folder, not of the whole card. */
const LOCKED = new Set(['EACCES', 'EPERM', 'EIO', 'ENAMETOOLONG', 'ELOOP', 'EUCLEAN'])

/**
 * Every entry below a folder, folders before what they hold, in byte order of names. Links are listed, not followed.
 * A folder that cannot be listed counts as special: it is there, and what it holds cannot be copied.
 */
export async function walk(medium: Medium, folder: Buffer = Buffer.alloc(0)): Promise<WalkedEntry[]> {
  const tree = await medium.tree?.(folder)
  if (tree)
    return folder.length === 0 ? [...tree] : tree.map((entry) => ({ ...entry, path: joinPath(folder, entry.path) }))
  return walkByFolders(medium, folder)
}

async function walkByFolders(medium: Medium, folder: Buffer): Promise<WalkedEntry[]> {
  const entries = (await medium.list(folder)).sort((a, b) => Buffer.compare(a.name, b.name))
  const nested = await Promise.all(
    entries.map((entry) => withContent(medium, { ...entry, path: joinPath(folder, entry.name) })),
  )
  return nested.flat()
}

async function withContent(medium: Medium, entry: WalkedEntry): Promise<WalkedEntry[]> {
  if (entry.kind !== 'folder') return [entry]
  try {
    return [entry, ...(await walkByFolders(medium, entry.path))]
  } catch (error) {
    if (!LOCKED.has(errorCode(error))) throw error
    return [{ ...entry, kind: 'special' }]
  }
}

/** What a card lists, in 16 digits: another name, size or time of a file gives another print. Nothing is read but the listing. */
export function listingPrint(entries: readonly WalkedEntry[]): string {
  const hash = new RunningHash()
  for (const entry of entries) {
    hash.update(
      Buffer.concat([
        entry.path,
        Buffer.from(`\0${entry.kind}${entry.kind === 'file' ? ` ${contentOf(entry)}` : ''}\n`),
      ]),
    )
  }
  return hash.digest()
}
