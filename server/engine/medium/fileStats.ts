import type { Stats } from 'node:fs'
import type { EntryKind, FileIdentity } from './medium'

/** What the system says of a file or folder. */
export type FileStats = Pick<
  Stats,
  'size' | 'mtimeMs' | 'ctimeMs' | 'dev' | 'ino' | 'isFile' | 'isDirectory' | 'isSymbolicLink'
>

export const kindOf = (stats: FileStats): EntryKind =>
  stats.isFile() ? 'file' : stats.isDirectory() ? 'folder' : stats.isSymbolicLink() ? 'link' : 'special'

export const identityOf = (stats: FileStats): FileIdentity => ({
  sizeBytes: stats.size,
  modifiedMs: stats.mtimeMs,
  node: `${stats.dev}:${stats.ino}`,
  changedMs: stats.ctimeMs,
})
