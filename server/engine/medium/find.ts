import { spawn } from 'node:child_process'
import { fewEntries } from './fewEntries'
import type { EntryKind, TreeEntry } from './medium'

const KINDS: Readonly<Record<string, EntryKind>> = { f: 'file', d: 'folder', l: 'link' }

/**
 * Kind, bytes, times of the last change of content and of anything, file system and inode, path, and where a link
 * points, each ended by NUL, which no path can hold.
 */
const FORMAT = ['%y', '%s', '%T@', '%C@', '%D:%i', '%P', '%l'].map((field) => `${field}\\0`).join('')
const FIELDS = 7
const PATH = 5
/** Bytes of a path that the system takes at most, its end included. Source: limits.h of Linux. */
const PATH_MAX = 4096

/**
 * Everything below a folder, where that is much as find of Debian's findutils lists it, links not followed, folders
 * before what they hold, in byte order of names. `undefined` when a part of it could not be listed, or cannot be opened
 * by its path: then each folder must be asked by itself.
 */
export const findTree = async (folder: Buffer): Promise<TreeEntry[] | undefined> =>
  (await fewEntries(folder)) ?? treeByFind(folder)

/** By find alone, however little there is. */
export async function treeByFind(folder: Buffer): Promise<TreeEntry[] | undefined> {
  const out = await run(folder)
  if (!out) return undefined
  // Bytes as latin1 text: one character a byte, so that nothing is lost and text is compared as bytes are.
  const fields = out.toString('latin1').split('\0')
  const field = (at: number) => fields[at] ?? ''
  const lines: Line[] = []
  let longest = 0
  for (let at = 0; at + FIELDS <= fields.length; at += FIELDS) {
    const path = field(at + PATH)
    longest = Math.max(longest, path.length)
    lines.push({ at, path, order: orderOf(path) })
  }
  // find reaches deeper than any path that can be opened.
  if (longest + folder.length + 1 >= PATH_MAX) return undefined
  lines.sort((a, b) => (a.order < b.order ? -1 : a.order > b.order ? 1 : 0))
  return lines.map(({ at, path }) => {
    const kind = KINDS[field(at)] ?? 'special'
    return {
      path: Buffer.from(path, 'latin1'),
      kind,
      sizeBytes: Number(field(at + 1)),
      modifiedMs: millisecondsOf(field(at + 2)),
      changedMs: millisecondsOf(field(at + 3)),
      node: field(at + 4),
      linkTarget: kind === 'link' ? Buffer.from(field(at + 6), 'latin1') : undefined,
    }
  })
}

function run(folder: Buffer): Promise<Buffer | undefined> {
  return new Promise((resolve) => {
    // Arguments of a program are text for Node.js: the bytes of a path go through its standard input.
    const child = spawn('find', ['-P', '-files0-from', '-', '-mindepth', '1', '-printf', FORMAT], {
      stdio: ['pipe', 'pipe', 'ignore'],
      env: { ...process.env, LC_ALL: 'C' },
    })
    const out: Buffer[] = []
    child.stdout.on('data', (chunk: Buffer) => out.push(chunk))
    // Where there is no find, folders are asked one by one.
    child.on('error', () => resolve(undefined))
    child.on('close', (code) => resolve(code === 0 ? Buffer.concat(out) : undefined))
    child.stdin.on('error', () => undefined)
    child.stdin.end(Buffer.concat([folder, Buffer.from([0])]))
  })
}

interface Line {
  /** Where its fields begin. */
  readonly at: number
  readonly path: string
  readonly order: string
}

/**
 * Just as Node.js makes them, so that both ways of listing agree: find prints seconds, also those before 1970, and
 * nanoseconds beside them.
 */
function millisecondsOf(text: string): number {
  const dot = text.indexOf('.')
  if (dot < 0) return Number(text) * 1000
  const nanoseconds = text.length < dot + 10 ? text.slice(dot + 1).padEnd(9, '0') : text.slice(dot + 1, dot + 10)
  return Number(text.slice(0, dot)) * 1000 + Number(nanoseconds) / 1e6
}

/**
 * A path with its slashes as the smallest character: what a folder holds comes right after it, before any longer name.
 */
const orderOf = (path: string): string => (path.includes('/') ? path.replaceAll('/', '\0') : path)
