import { readLine } from './readLine'

/**
 * Checksum lists as GNU coreutils and xxhsum write and check them: `hash  path`, one a line. A path with a line feed,
 * carriage return or backslash is escaped and its line starts with a backslash (GNU coreutils manual, "md5sum
 * invocation"). Paths are bytes; strings here hold one byte per character (latin1), so that no byte is lost.
 */
export interface NamedSum {
  readonly hash: string
  /** Path bytes, one per character. */
  readonly path: string
}

const ESCAPES: Record<string, string> = { '\\': '\\\\', '\n': '\\n', '\r': '\\r' }

export function formatChecksumList(sums: readonly NamedSum[]): string {
  return sums
    .map(({ hash, path }) => {
      const escaped = path.replace(/[\\\n\r]/g, (byte) => ESCAPES[byte] ?? byte)
      return `${escaped === path ? '' : '\\'}${hash}  ${escaped}\n`
    })
    .join('')
}

/** The inverse. Throws a SyntaxError that names the line when one names no file with its sum. */
export function parseChecksumList(text: string): NamedSum[] {
  return text.split('\n').flatMap((line, at) => {
    const read = readLine(line, undefined)
    if (read.kind === 'remark') return []
    if (read.kind !== 'sums') throw new SyntaxError(`Line ${at + 1} of the checksum list names no file with its sum.`)
    return read.sums.map(({ hash }) => ({ hash, path: read.path }))
  })
}

/**
 * Whether `xxhsum` 0.8.1 of Debian can check a file of this name: it neither writes nor reads escaped names, skips such
 * lines and still ends with 0 without `--strict`. Control characters go to the other list too, to be safe.
 */
export const isPlainName = (path: string): boolean => !/[\u0000-\u001f\u007f\\]/.test(path)

/**
 * A name as no program misreads it at the beginning of a list's names: `-` alone is read from the keyboard by the
 * programs of GNU, and others take `#`, `;`, `*` and spaces there for something else (measured in
 * `tests/outside/listReaders.test.ts`).
 */
export const safeFirst = (path: string): string => (/^[A-Za-z0-9\u0080-\u00ff_]/.test(path) ? path : `./${path}`)
