import { spawn } from 'node:child_process'
import type { EntryKind, MediumEntry } from './medium'

export interface TreeEntry extends MediumEntry {
  /** Below the folder that was listed. */
  readonly path: Buffer
}

const KINDS: Readonly<Record<string, EntryKind>> = { f: 'file', d: 'folder', l: 'link' }

/** Kind, bytes, time, file system and inode, path, and where a link points, each ended by NUL, which no path can hold. */
const FORMAT = ['%y', '%s', '%T@', '%D:%i', '%P', '%l'].map((field) => `${field}\\0`).join('')
const FIELDS = 6
const PATH_FIELD = 4
/** Bytes of a path that the system takes at most, its end included. Source: limits.h of Linux. */
const PATH_MAX = 4096

const longest = (fields: readonly Buffer[]) =>
  fields.reduce((most, field, at) => (at % FIELDS === PATH_FIELD ? Math.max(most, field.length) : most), 0)

/**
 * Everything below a folder, as find of Debian's findutils lists it, links not followed, folders before what they hold,
 * in byte order of names. `undefined` when a part of it could not be listed, or cannot be opened by its path: then each folder must be asked by itself.
 */
export async function findTree(folder: Buffer): Promise<TreeEntry[] | undefined> {
  const out = await run(folder)
  if (!out) return undefined
  const fields = fieldsOf(out)
  const entries: TreeEntry[] = []
  // find reaches deeper than any path that can be opened.
  if (out.length > 0 && longest(fields) + folder.length + 1 >= PATH_MAX) return undefined
  for (let at = 0; at + FIELDS <= fields.length; at += FIELDS) entries.push(entryOf(fields.slice(at, at + FIELDS)))
  return entries
    .map((entry) => ({ entry, order: orderOf(entry.path) }))
    .sort((a, b) => Buffer.compare(a.order, b.order))
    .map(({ entry }) => entry)
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

function fieldsOf(out: Buffer): Buffer[] {
  const fields: Buffer[] = []
  for (let from = 0, end = out.indexOf(0); end >= 0; from = end + 1, end = out.indexOf(0, from))
    fields.push(out.subarray(from, end))
  return fields
}

function entryOf(fields: readonly Buffer[]): TreeEntry {
  const [kind, size, time, node, path = Buffer.alloc(0), target] = fields
  const entryKind = KINDS[kind?.toString() ?? ''] ?? 'special'
  return {
    path: Buffer.from(path),
    name: Buffer.from(path.subarray(path.lastIndexOf(0x2f) + 1)),
    kind: entryKind,
    sizeBytes: Number(size?.toString()),
    modifiedMs: millisecondsOf(time?.toString() ?? ''),
    node: node?.toString() ?? '',
    linkTarget: entryKind === 'link' && target ? Buffer.from(target) : undefined,
  }
}

/** Just as Node.js makes them, so that both ways of listing agree: find prints seconds, also those before 1970, and nanoseconds beside them. */
function millisecondsOf(text: string): number {
  const [seconds = '0', fraction = ''] = text.split('.')
  return Number(seconds) * 1000 + Number(fraction.slice(0, 9).padEnd(9, '0')) / 1e6
}

/** A path with its slashes as the smallest byte: what a folder holds comes right after it, before any longer name. */
function orderOf(path: Buffer): Buffer {
  const order = Buffer.from(path)
  for (let at = order.indexOf(0x2f); at >= 0; at = order.indexOf(0x2f, at + 1)) order[at] = 0
  return order
}
