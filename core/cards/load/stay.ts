/** By what a stay of a medium is told from the next one in the same place. */
export interface StayMark {
  /**
   * Changes when another folder, mount or medium stands at the root: file system, inode, mount, number of the medium.
   */
  readonly place: string
  /** What is mounted there. */
  readonly source: string
  /** What the system calls the file system. */
  readonly volumeUid: string | null
}

/** Whether a scan still sees the stay that an earlier one saw: every mark must be the same. */
export const isSameStay = (before: StayMark, now: StayMark): boolean =>
  before.place === now.place && before.source === now.source && before.volumeUid === now.volumeUid

/** How a stay ended, for a person. */
export const LEFT = {
  other: 'another medium, mount or folder took its place',
  remounted: 'something was mounted or unmounted there',
  empty: 'the reader was empty',
  gone: 'it could not be reached',
  slept: 'the computer slept',
  restarted: 'Yendra was restarted',
} as const
export type LeftHow = keyof typeof LEFT

/**
 * How it is known in a stay which load’s card lies there: scanned for the first time; compared with proved copies, or
 * read whole; or by the ends of its clips alone, where no proved copy could be compared. That is believed only until
 * one can be.
 */
export type KnownHow = 'first-look' | 'compared' | 'ends'

/**
 * Noted in a stay in which a file was rewritten with its size and time kept: only reading the card whole tells what it
 * is.
 */
export const TOUCHED = 'touched'

/**
 * What was last seen of a card that is in no reader now, where that speaks against a yes; `undefined` where nothing
 * does.
 */
export function lastSeenSentence(label: string, difference: string | null, doubted: boolean): string | undefined {
  const seen = doubted
    ? `Files of “${label}” were rewritten on its card, with the same size and time, or are not what ` +
      'was copied: read the card whole.'
    : difference
  return seen === null ? undefined : `${seen} Its card is in no reader: put it in first.`
}

/** What was last seen of a card is forgotten by records that came back from an older copy, until it was seen again. */
export const forgottenSentence = (label: string): string =>
  'Yendra’s records were restored from an older backup: what was last seen of the card of ' +
  `“${label}” is forgotten. Put it in first.`

/** What is compared of one clip: a place in it, and where it is compared with. */
export const COMPARED_BYTES = 65_536
/** Of more clips than these some are drawn. */
export const MOST_COMPARED = 500
const GRID = 4096

/**
 * Where in a file of so many bytes a draw between 0 and 1 falls: on the grid of a medium, so that it can be read past
 * the cache.
 */
export function comparedPlace(sizeBytes: number, draw: number): number {
  const room = Math.max(0, sizeBytes - COMPARED_BYTES)
  // The last place reaches the end of the file, wherever the grid lies.
  const places = Math.ceil(room / GRID) + 1
  return Math.min(places - 1, Math.floor(draw * places)) * GRID
}

/** What a comparison came to. */
export interface Compared {
  readonly how: 'places' | 'whole'
  readonly clips: number
  readonly compared: number
  /** Of them with a copy; the others with the ends that were read at the first scan. */
  readonly withCopies: number
  readonly unreadable: number
  readonly differing: number
  readonly volumeNames: readonly string[]
}

/** `30 of 30 clips were compared at one place with Tide.` */
export function comparedSentence({ how, clips, compared, withCopies, unreadable, volumeNames }: Compared): string {
  const what = how === 'whole' ? 'read whole and compared' : 'compared at one place'
  const names = volumeNames.length > 0 ? ` with ${new Intl.ListFormat('en-GB').format(volumeNames)}` : ''
  const withEnds =
    how === 'places' && withCopies < compared
      ? `${withCopies > 0 ? `, ${compared - withCopies} of them` : ''} with their first and last 64 KiB ` +
        'at the first scan'
      : ''
  const things = how === 'whole' ? 'file' : 'clip'
  const rest = unreadable > 0 ? `; ${unreadable} could not be read` : ''
  return (
    `${compared} of ${clips} ${clips === 1 ? `${things} was` : `${things}s were`} ` +
    `${what}${names}${withEnds}${rest}.`
  )
}
