import { contentOf } from '../../../core/cards/load/load'
import { RunningHash } from '../copy/hash'
import { errorCode, joinPath, type Medium, type TreeEntry } from './medium'

/** Trouble of one folder, not of the whole card. */
const LOCKED = new Set(['EACCES', 'EPERM', 'EIO', 'ENAMETOOLONG', 'ELOOP', 'EUCLEAN'])

/**
 * Every entry below a folder, folders before what they hold, in byte order of names. Links are listed, not followed.
 * A folder that cannot be listed counts as special: it is there, and what it holds cannot be copied.
 */
export async function walk(medium: Medium, folder: Buffer = Buffer.alloc(0)): Promise<readonly TreeEntry[]> {
  const below = await walkBelow(medium, folder)
  return folder.length === 0 ? below : below.map((entry) => ({ ...entry, path: joinPath(folder, entry.path) }))
}

/** The same, with paths relative to the folder. */
export async function walkBelow(medium: Medium, folder: Buffer): Promise<readonly TreeEntry[]> {
  return (await medium.tree?.(folder)) ?? walkByFolders(medium, folder)
}

async function walkByFolders(medium: Medium, root: Buffer, folder: Buffer = Buffer.alloc(0)): Promise<TreeEntry[]> {
  const entries = (await medium.list(joinPath(root, folder))).sort((a, b) => Buffer.compare(a.name, b.name))
  const nested = await Promise.all(
    entries.map(({ name, ...entry }) => withContent(medium, root, { ...entry, path: joinPath(folder, name) })),
  )
  return nested.flat()
}

async function withContent(medium: Medium, root: Buffer, entry: TreeEntry): Promise<TreeEntry[]> {
  if (entry.kind !== 'folder') return [entry]
  try {
    return [entry, ...(await walkByFolders(medium, root, entry.path))]
  } catch (error) {
    if (!LOCKED.has(errorCode(error))) throw error
    return [{ ...entry, kind: 'special' }]
  }
}

/**
 * What a card lists, in 16 digits: another name, size or time of a file gives another print. Nothing is read but the
 * listing.
 */
export function listingDigest(
  entries: readonly Pick<TreeEntry, 'path' | 'kind' | 'sizeBytes' | 'modifiedMs'>[],
): string {
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
