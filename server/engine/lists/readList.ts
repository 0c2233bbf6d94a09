import { algorithmOfList, type Algorithm } from '../../../core/copies/lists/algorithm'
import { readLine } from '../../../core/copies/lists/readLine'
import { alignedBlocks, asBuffer, itemAt, LARGE_BLOCK } from '../medium/blocks'
import { nameOf, type Medium } from '../medium/medium'

/** A sum that a list names. A million of them are held at once, so that it is flat. */
export interface ListedLine {
  /** From 1. */
  readonly line: number
  /** Name as it stands there, its bytes as characters. */
  readonly name: string
  readonly hash: string
  readonly algorithms: readonly Algorithm[]
}

export interface ReadList {
  readonly lines: readonly ListedLine[]
  /** Lines that say nothing of a file here. */
  readonly faults: readonly {
    readonly line: number
    readonly kind: 'no-line' | 'unknown-algorithm'
    readonly text: string
  }[]
  /** All of them; only the first are kept. */
  readonly noLines: number
  readonly unknown: number
  readonly cut: boolean
}

/** No list of footage has more. */
export const MOST_LINES = 2_000_000
/** A longer line is none: a path has 4,096 bytes at most, twice as many where all of them are escaped. */
const MOST_LENGTH = 16_384
const MOST_FAULTS = 1000
const MOST_BYTES = 2 * 1024 ** 3

/** Cannot be used as a list; the message says why and what to do. */
export class NoList extends Error {}

/** Reads a checksum list of any kind. Throws `NoList` for what is none, and when it has too many lines. */
export async function readList(medium: Medium, path: Buffer, gate: () => Promise<void>): Promise<ReadList> {
  const entry = await medium.entry(path)
  const fileName = nameOf(path).toString()
  if (!entry) throw new NoList(`${fileName} is gone. Choose the list again.`)
  if (entry.sizeBytes > MOST_BYTES)
    throw new NoList(`${fileName} has more than 2 GiB, which no checksum list has. Choose a checksum list.`)
  if (entry.kind !== 'file') throw new NoList(`${fileName} is no file. Choose a checksum list.`)
  const named = algorithmOfList(fileName)
  const [lines, faults]: [ListedLine[], ReadList['faults'][number][]] = [[], []]
  const count = { 'no-line': 0, 'unknown-algorithm': 0 }
  let at = 0
  let cut = false
  for await (const { text, isLast } of linesOf(medium, path, gate)) {
    at += 1
    cut = isLast && text !== ''
    const read = text.length > MOST_LENGTH ? ({ kind: 'no-line' } as const) : readLine(text, named)
    if (read.kind === 'sums') {
      for (const sum of read.sums) lines.push({ line: at, name: read.path, ...sum })
      if (lines.length > MOST_LINES)
        throw new NoList(`${fileName} has more than ${MOST_LINES} lines. Cut it into lists of single folders.`)
    } else if (read.kind !== 'remark') {
      count[read.kind] += 1
      if (faults.length < MOST_FAULTS) faults.push({ line: at, kind: read.kind, text: text.slice(0, 200) })
      // A film that was chosen by mistake is not read to its end.
      if (lines.length === 0 && (count['no-line'] >= MOST_FAULTS || text.length > MOST_LENGTH))
        throw new NoList(`${fileName} is no checksum list: none of its first lines names a file with its sum.`)
    }
  }
  return { lines, faults, noLines: count['no-line'], unknown: count['unknown-algorithm'], cut }
}

interface Line {
  readonly text: string
  /** It ended with the file and without a line feed. */
  readonly isLast: boolean
}

/** Lines as bytes, one a character. What is longer than any line is given once, and the rest of it left out. */
async function* linesOf(medium: Medium, path: Buffer, gate: () => Promise<void>): AsyncGenerator<Line> {
  const block = itemAt(alignedBlocks(1, LARGE_BLOCK), 0)
  const file = await medium.open(path)
  try {
    let [rest, isLong] = ['', false]
    let decoded: ((bytes: Buffer) => string) | undefined
    for (let position = 0; ; position += block.length) {
      await gate()
      const bytes = await file.read(block, position)
      const part = asBuffer(block.subarray(0, bytes))
      decoded ??= decoderOf(part)
      const pieces = `${rest}${decoded(part)}`.split('\n')
      rest = pieces.pop() ?? ''
      for (const piece of pieces) {
        if (!isLong) yield { text: piece, isLast: false }
        isLong = false
      }
      if (rest.length > MOST_LENGTH) {
        if (!isLong) yield { text: rest, isLast: false }
        ;[rest, isLong] = ['', true]
      }
      if (bytes < block.length) break
    }
    if (rest !== '' && !isLong) yield { text: rest, isLast: true }
  } finally {
    await file.close()
  }
}

/** Text of sixteen bits, as some shells write it, is turned into the bytes that the same names have elsewhere. */
function decoderOf(first: Buffer): (bytes: Buffer) => string {
  const wide =
    first[0] === 0xff && first[1] === 0xfe
      ? 'utf-16le'
      : first[0] === 0xfe && first[1] === 0xff
        ? 'utf-16be'
        : undefined
  if (wide) {
    const decoder = new TextDecoder(wide)
    return (bytes) => Buffer.from(decoder.decode(bytes, { stream: true })).toString('latin1')
  }
  let isFirst = true
  return (bytes) => {
    const hasMark = isFirst && bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf
    isFirst = false
    return bytes.toString('latin1', hasMark ? 3 : 0)
  }
}
