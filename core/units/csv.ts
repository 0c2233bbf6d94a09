/** Spreadsheets take what begins so for a formula, even from a file name. */
const FORMULA = /^[=+\-@\t\r]/
const NUMBER = /^[+-]?\d+(\.\d+)?$/

const cell = (text: string): string => {
  const plain = FORMULA.test(text) && !NUMBER.test(text) ? `'${text}` : text
  return /[",\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain
}

/**
 * Rows as comma-separated values (RFC 4180), lines ended by CR LF. What a spreadsheet would run as a formula gets an
 * apostrophe before it: `csv([['a,b', '=1']])` is `"a,b",'=1\r\n`.
 */
export const csv = (rows: readonly (readonly string[])[], how: CsvWay = 'plain'): string =>
  `${how === 'marked' ? MARK : ''}${rows.map((row) => `${row.map(cell).join(',')}\r\n`).join('')}`

/**
 * Some spreadsheets take what has no mark at its beginning for another encoding; programs may take a mark for a letter.
 */
export type CsvWay = 'plain' | 'marked'

/** Byte order mark of UTF-8. Source: RFC 3629, 6. */
const MARK = '\uFEFF'
