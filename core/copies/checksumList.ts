/**
 * Checksum lists as GNU coreutils and xxhsum write and check them: `hash  path`, one a line. A path with a line feed,
 * carriage return or backslash is escaped and its line starts with a backslash (GNU coreutils manual, "md5sum
 * invocation"). Paths are bytes; strings here hold one byte per character (latin1), so that no byte is lost.
 */
export interface ListedSum {
  readonly hash: string
  /** Path bytes, one per character. */
  readonly path: string
}

const ESCAPES: Record<string, string> = { '\\': '\\\\', '\n': '\\n', '\r': '\\r' }
const UNESCAPES: Record<string, string> = { '\\': '\\', n: '\n', r: '\r' }

export function formatChecksumList(sums: readonly ListedSum[]): string {
  return sums
    .map(({ hash, path }) => {
      const escaped = path.replace(/[\\\n\r]/g, (byte) => ESCAPES[byte] ?? byte)
      return `${escaped === path ? '' : '\\'}${hash}  ${escaped}\n`
    })
    .join('')
}

/** The inverse. Throws a SyntaxError that names the line when one is no `hash  path`. */
export function parseChecksumList(text: string): ListedSum[] {
  return text.split('\n').flatMap((line, at) => {
    if (line === '' || line.startsWith('#')) return []
    const match = /^(\\?)([0-9a-fA-F]{8,128}) [ *]([^]+)$/.exec(line)
    if (!match) throw new SyntaxError(`Line ${at + 1} of the checksum list is not "hash, two spaces, path".`)
    const path = match[3] ?? ''
    return [
      {
        hash: (match[2] ?? '').toLowerCase(),
        path: match[1] ? path.replace(/\\(.)/g, (whole, sign: string) => UNESCAPES[sign] ?? whole) : path,
      },
    ]
  })
}

/**
 * Whether `xxhsum` 0.8.1 of Debian can check a file of this name: it neither writes nor reads escaped names, skips such
 * lines and still ends with 0 without `--strict`. Control characters go to the other list too, to be safe.
 */
export const isPlainName = (path: string): boolean => !/[\u0000-\u001f\u007f\\]/.test(path)
