import { contentOf, type ListedFile } from './load'

/**
 * File systems of cards keep times to two seconds, and a camera closes its two files one after the other. From memory.
 */
const GRAIN_MS = 2000

/** Where a card lies, with what the system calls its file system. */
export interface HeldCard {
  readonly readerId: string
  readonly volumeUid: string | undefined
  /** It has not left its reader since the load was scanned for the first time. */
  readonly isFirstStay: boolean
}

/** What is known of a load's own card. */
export interface OwnCard extends Omit<HeldCard, 'isFirstStay'> {
  /** Its own reader holds it at this moment. */
  readonly heldNow: boolean
}

/** Whether a key is that of a card without an id, known by the reader in which it was seen. */
export const isNameless = (key: string): boolean => key.startsWith('reader ')

/**
 * By what a card that holds a load's content is told from the load's own card; `undefined` when it is that one. File
 * systems of different ids are different cards; where one has no id, two that lie in two readers at once are, and from
 * then on every card that is put in anew.
 */
export function backupCardKey(held: HeldCard, own: OwnCard, knownKeys: readonly string[]): string | undefined {
  if (held.volumeUid !== undefined && own.volumeUid !== undefined)
    return held.volumeUid === own.volumeUid ? undefined : held.volumeUid
  if (held.isFirstStay) return undefined
  const key = `reader ${held.readerId}`
  // Where two cards without a name were seen, nothing tells which of them was put in: neither counts until it was read.
  if (knownKeys.some(isNameless)) return key
  return held.readerId !== own.readerId && own.heldNow ? key : undefined
}

/** How two listings of one content differ: not at all, by the grain of times, or in more than that. */
export function backupCardListing(
  files: readonly ListedFile[],
  known: readonly ListedFile[],
): 'equal' | 'times' | undefined {
  if (files.length === 0 || files.length !== known.length) return undefined
  const here = new Map(files.map((file) => [file.path, file]))
  let found: 'equal' | 'times' = 'equal'
  for (const file of known) {
    const now = here.get(file.path)
    if (!now || now.sizeBytes !== file.sizeBytes || Math.abs(now.modifiedMs - file.modifiedMs) > GRAIN_MS)
      return undefined
    if (contentOf(now) !== contentOf(file)) found = 'times'
  }
  return found
}
