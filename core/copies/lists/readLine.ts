import { algorithmCalled, withDigits, type Algorithm } from './algorithm'

/**
 * One line of a checksum list, whoever wrote it. Sources: GNU coreutils manual, "md5sum invocation" and "cksum output
 * modes" (`hash  name`, `TAG (name) = hash`, escaped names, `#` comments); the SFV style (`name CRC`, `;` comments) is
 * common practice without a standard.
 */
export type ReadLine =
  | { readonly kind: 'sums'; readonly path: string; readonly sums: readonly ListedSum[] }
  /** Empty, or a remark. */
  | { readonly kind: 'remark' }
  | { readonly kind: 'no-line' }
  /** Tagged with an algorithm that is not read here. */
  | { readonly kind: 'unknown-algorithm'; readonly path: string; readonly tag: string }

export interface ListedSum {
  /** In lower case. */
  readonly hash: string
  /** What it may be made with: two where only its digits tell. */
  readonly algorithms: readonly Algorithm[]
}

const UNESCAPES: Record<string, string> = { '\\': '\\', n: '\n', r: '\r' }

/** `undefined` where a backslash stands before something that is no escape. */
function unescaped(name: string): string | undefined {
  if (/\\(?:[^\\nr]|$)/.test(name.replaceAll('\\\\', ''))) return undefined
  return name.replace(/\\(.)/g, (whole, sign: string) => UNESCAPES[sign] ?? whole)
}

const HEX = '[0-9a-fA-F]'
const GNU = new RegExp(`^(${HEX}{8,128})(?: [ *]| |\\t+)([^]+)$`)
const BSD = /^([A-Za-z][A-Za-z0-9/_-]{1,15}) ?\(([^]+)\) ?= ?([0-9a-fA-F]{8,128})\s*$/
/**
 * Bytes of the line, one a character, without its line feed; `named` is what the name of the list tells of its
 * algorithm.
 */
export function readLine(line: string, named: Algorithm | undefined): ReadLine {
  const text = line.endsWith('\r') ? line.slice(0, -1) : line
  const isNameFirst = named === 'crc32'
  if (text.trim() === '' || text.startsWith(';') || (text.startsWith('#') && !isNameFirst)) return { kind: 'remark' }
  const isEscaped = text.startsWith('\\')
  const bare = isEscaped ? text.slice(1) : text
  const found =
    (isNameFirst && !isEscaped ? nameFirst(bare, named) : undefined) ??
    gnu(bare, named) ??
    bsd(bare) ??
    (isEscaped ? undefined : nameFirst(bare, named))
  if (!found) return isNameFirst && text.startsWith('#') ? { kind: 'remark' } : { kind: 'no-line' }
  if (!isEscaped) return found
  const path = unescaped(found.path)
  return path === undefined ? { kind: 'no-line' } : { ...found, path }
}

type Named = Extract<ReadLine, { path: string }>

function gnu(text: string, named: Algorithm | undefined): Named | undefined {
  // From memory: newer releases of xxhsum put this before a sum of XXH3.
  const prefix = text.startsWith('XXH3_') ? 'XXH3_' : ''
  const [, hash = '', path = ''] = GNU.exec(text.slice(prefix.length)) ?? []
  const sum = sumOf(hash, prefix === '' ? named : 'xxh3')
  return sum && { kind: 'sums', path, sums: [sum] }
}

function bsd(text: string): Named | undefined {
  const [, tag = '', path = '', hash = ''] = BSD.exec(text) ?? []
  if (hash === '') return undefined
  const algorithm = algorithmCalled(tag)
  if (!algorithm) return { kind: 'unknown-algorithm', path, tag }
  return withDigits(hash.length).includes(algorithm)
    ? { kind: 'sums', path, sums: [{ hash: hash.toLowerCase(), algorithms: [algorithm] }] }
    : undefined
}

/**
 * Names first and sums behind: one behind any space in SFV, where a name may end with digits; elsewhere several, two
 * spaces before each.
 */
function nameFirst(text: string, named: Algorithm | undefined): Named | undefined {
  const gap = named === 'crc32' ? 1 : 2
  const sums: ListedSum[] = []
  let rest = text.trimEnd()
  for (;;) {
    const at = Math.max(rest.lastIndexOf(' '), rest.lastIndexOf('\t'))
    const sum = isHex(rest.slice(at + 1)) ? sumOf(rest.slice(at + 1), named) : undefined
    if (!sum || at < gap || (gap === 2 && rest.charAt(at) === ' ' && rest.charAt(at - 1) !== ' ')) break
    sums.unshift(sum)
    rest = rest.slice(0, rest.charAt(at) === '\t' ? at : at + 1 - gap)
    if (gap === 1) break
  }
  return sums.length > 0 && rest !== '' ? { kind: 'sums', path: rest, sums } : undefined
}

const isHex = (text: string) => /^[0-9a-fA-F]{8,128}$/.test(text)

function sumOf(hash: string, named: Algorithm | undefined): ListedSum | undefined {
  const may = withDigits(hash.length)
  if (may.length === 0) return undefined
  return { hash: hash.toLowerCase(), algorithms: named && may.includes(named) ? [named] : may }
}
