/** Source: the Unicode Standard, section 23.8 (byte order mark). */
const MARKS = [
  { encoding: 'utf-8', bytes: [0xef, 0xbb, 0xbf] },
  { encoding: 'utf-16le', bytes: [0xff, 0xfe] },
  { encoding: 'utf-16be', bytes: [0xfe, 0xff] },
] as const

export type TableEncoding = (typeof MARKS)[number]['encoding'] | 'windows-1252'

export interface TableText {
  readonly text: string
  readonly encoding: TableEncoding
}

/** How many bytes tell whether a text is of two bytes a character. */
const LOOKED_AT = 4096
/** A page of the web, where a table was expected. */
const PAGE = /^\s*(<!doctype html|<html|<head|<body|<table)/i
/** Workbooks are ZIP archives (APPNOTE, 4.3.7) or, older ones, compound files. */
const WORKBOOKS = [
  [0x50, 0x4b, 0x03, 0x04],
  [0xd0, 0xcf, 0x11, 0xe0],
] as const

const begins = (bytes: Uint8Array, mark: readonly number[]) => mark.every((byte, at) => bytes[at] === byte)

/**
 * The text of a table that a person gave, in whatever of the usual encodings: by its byte order mark, else UTF-8 where
 * it is valid, UTF-16 where every other byte of what is Latin is 0, else Windows-1252. Throws with what to do for what
 * is no text.
 *
 * `tableText(Uint8Array.of(0xd8)).text` is `Ø`.
 */
export function tableText(bytes: Uint8Array): TableText {
  if (WORKBOOKS.some((mark) => begins(bytes, mark)))
    throw new Error(
      'This is a workbook, not a table of text. Save it as CSV in the program that made it, and choose that.',
    )
  const encoding = encodingOf(bytes)
  const text = encoding === 'windows-1252' ? windows1252(bytes) : new TextDecoder(encoding).decode(bytes)
  if (PAGE.test(text))
    throw new Error('This is a web page, not a table. Save the table itself as CSV, and choose that.')
  if (text.includes('\0')) throw new Error('This is no table of text. Choose a file of comma-separated values.')
  return { text, encoding }
}

function encodingOf(bytes: Uint8Array): TableEncoding {
  const marked = MARKS.find((mark) => begins(bytes, mark.bytes))
  if (marked) return marked.encoding
  const some = bytes.subarray(0, LOOKED_AT)
  const zeros = (rest: number) => some.reduce((sum, byte, at) => sum + (at % 2 === rest && byte === 0 ? 1 : 0), 0)
  const [even, odd] = [zeros(0), zeros(1)]
  if (odd > some.length / 4 && even === 0) return 'utf-16le'
  if (even > some.length / 4 && odd === 0) return 'utf-16be'
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return 'utf-8'
  } catch {
    return 'windows-1252'
  }
}

/**
 * What Windows-1252 has in place of the control characters 0x80 to 0x9F; the five that it leaves free stay what they
 * are. Source: WHATWG Encoding Standard, index windows-1252.
 */
const FROM_80 = '€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ'

/** By hand, since Node.js decodes it as Latin-1. */
const windows1252 = (bytes: Uint8Array): string =>
  Array.from(bytes, (byte) => FROM_80[byte - 0x80] ?? String.fromCharCode(byte)).join('')
