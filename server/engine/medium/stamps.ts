import { mountOf } from './device'
import type { FileIdentity, Stamps } from './medium'
import { superblockOf } from './superblock'

/** Source: the documentation of these file systems in Linux (Documentation/filesystems); NTFS and NFS from memory. */
const BOTH = new Set(['ext2', 'ext3', 'ext4', 'xfs', 'btrfs', 'f2fs'])
const CHANGE = new Set(['ntfs', 'ntfs3', 'nfs', 'nfs4'])

export async function stampsAt(root: string): Promise<Stamps> {
  const { type } = await mountOf(root)
  if (BOTH.has(type)) return 'inode-and-change'
  if (CHANGE.has(type)) return 'change'
  // A program that serves a block device: what lies on it decides.
  return type === 'fuseblk' && (await superblockOf(root))?.type === 'ntfs' ? 'change' : 'none'
}

/** A file as its file system tells it from another of the same size and time; `null` where it does not. */
export interface FileStamp {
  readonly inode: string | null
  /** Milliseconds since 1970 of the last change of anything of it (ctime). */
  readonly changedMs: number | null
}

export const NO_STAMP: FileStamp = { inode: null, changedMs: null }

export const stampOf = (stamps: Stamps, { node, changedMs }: FileIdentity): FileStamp =>
  stamps === 'none'
    ? NO_STAMP
    : { inode: stamps === 'inode-and-change' ? (node.split(':')[1] ?? null) : null, changedMs }
