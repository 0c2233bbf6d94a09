const LETTERS = new Intl.Segmenter()

/** The beginning of a text in at most so many bytes of UTF-8; no character is cut in half, and none of its accents. */
function shortened(text: string, mostBytes: number): string {
  let bytes = 0
  let out = ''
  for (const { segment } of LETTERS.segment(text.toWellFormed())) {
    bytes += new TextEncoder().encode(segment).length
    if (bytes > mostBytes) break
    out += segment
  }
  return out || 'untitled'
}

const MOST_BYTES = 120
const bytesOf = (text: string): number => new TextEncoder().encode(text).length

/**
 * Without separators, control characters and leading dots. Percent signs go too: BagIt encodes them in manifests, and
 * common tools then look for another name.
 */
const plain = (title: string): string =>
  title
    .replace(/[\u0000-\u001f\u007f/\\:*?"<>|%]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/^\.+/, '')
    .replace(/[. ]+$/, '') || 'untitled'

/** A title as the name of a folder or file: no separators, control characters or leading dots, at most 120 bytes. */
export const fileTitle = (title: string): string => shortened(plain(title), MOST_BYTES).trim()

/** A title and an ending that stays whole, such as a number: of a title that is too long the end is cut before it. */
export const titleWith = (title: string, ending: string): string =>
  `${shortened(plain(title), MOST_BYTES - bytesOf(ending)).trimEnd()}${ending}`

/** More names than anybody gives to one thing. */
const MOST_TRIES = 10_000

/** A title, or the first of it with a number behind that is free. Throws when there seems to be no end. */
export function freeTitle(
  title: string,
  isFree: (title: string) => boolean,
  numbered: (turn: number) => string = (turn) => ` (${turn})`,
): string {
  for (let turn = 1; turn < MOST_TRIES; turn += 1) {
    const tried = turn === 1 ? title : titleWith(title, numbered(turn))
    if (isFree(tried)) return tried
  }
  throw new RangeError(`No free name like “${title}” was found.`)
}

/** Whether two titles would give one folder, also on drives that do not tell capital letters apart. */
export const sameFolder = (a: string, b: string): boolean => fileTitle(a).toLowerCase() === fileTitle(b).toLowerCase()

/** Checksum lists stand beside the folders of cards under their names and one of these. */
export const LIST_ENDINGS = ['.xxh64', '.sha256'] as const

/** A label whose folder is never called like a checksum list: `Card Y.xxh64` becomes `Card Y xxh64`. */
export function loadLabel(wanted: string): string {
  const ending = LIST_ENDINGS.find((one) => fileTitle(wanted).toLowerCase().endsWith(one))
  if (ending === undefined) return wanted
  const title = fileTitle(wanted)
  return loadLabel(`${title.slice(0, -ending.length)} ${title.slice(1 - ending.length)}`)
}

/** Where files that stand in the way are moved to, at the root of a volume. */
export const SET_ASIDE = 'Set aside'

/** The folder of a production at the root of a volume: never one that is ours. */
export const productionFolder = (title: string): string =>
  sameFolder(title, SET_ASIDE) ? `${fileTitle(title)} (production)` : fileTitle(title)
