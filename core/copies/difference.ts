import type { ListedFile } from './copyState'

/**
 * How a file of a copy is not what was proved, as far as its file system tells. `unclear` is rot or a rewriting, where
 * neither number nor time of change is kept.
 */
export const DIFFERENCES = [
  'rot',
  'rewritten',
  'edited',
  'replaced',
  'unclear',
  'unsteady',
  'unreadable',
  'missing',
] as const
export type Difference = (typeof DIFFERENCES)[number]

/**
 * Why other content was read than was proved, from how the file lay then and how it lies after the reading that
 * differed. Only a file that nobody touched can have rotted: where the time of change (ctime) is not kept, nobody can
 * tell. Source of what touches what: inode(7) of Linux.
 */
export function differenceOf(proved: ListedFile, now: ListedFile): Difference {
  if (now.sizeBytes !== proved.sizeBytes) return 'replaced'
  if (Math.trunc(now.modifiedMs) !== Math.trunc(proved.modifiedMs)) return 'edited'
  if (proved.inode !== null && now.inode !== null && proved.inode !== now.inode) return 'rewritten'
  if (proved.changedMs === null || now.changedMs === null) return 'unclear'
  return proved.changedMs === now.changedMs ? 'rot' : 'rewritten'
}

/** What it is, and how that is known; said after the name of a file. */
export const DIFFERENCE_WORDS: Readonly<Record<Difference, string>> = {
  rot: 'has rotted: its content is another, though nobody wrote to it (size, times and file number are as when it was proved)',
  rewritten: 'was rewritten with its old time: size and time are as proved, and it was touched since',
  edited: 'was edited: its size is as proved, and its time is another',
  replaced: 'was replaced: what lies there has another size, or is no file',
  unclear:
    'has rotted or was rewritten, which of them nobody can tell: this file system keeps no time of change of a file',
  unsteady: 'is read otherwise each time: the drive, its cable or this computer is failing',
  unreadable: 'cannot be read, tried twice: the drive is failing there',
  missing: 'is gone',
}
