import type { Algorithm } from '../../../core/copies/lists/algorithm'
import type { FoundSums } from '../../../core/copies/lists/verdict'
import { readThrough } from '../copy/hash'
import { alignedBlocks, fitted, LARGE_BLOCK, SMALL_BLOCK } from '../medium/blocks'
import { inLanes } from '../medium/lanes'
import { deviceError, errorCode, joinPath, sameFile, type Medium } from '../medium/medium'
import { Sums } from './sums'

export interface ReadOrder {
  readonly medium: Medium
  readonly folder: Buffer
  readonly gate: () => Promise<void>
  readonly onBytes: (bytes: number) => void
}

export interface FileToRead {
  /** Below the folder. */
  readonly path: Buffer
  /** As it was listed. */
  readonly sizeBytes: number
  readonly algorithms: Iterable<Algorithm>
}

/** The sums of a file as it lay the whole time, or why nobody knows them. */
export type FileRead =
  | { readonly found: FoundSums; readonly fromMedium: boolean }
  | { readonly why: 'unreadable' | 'changed'; readonly code: string }

/** Trouble of one file, not of its medium. */
const OF_A_FILE = new Set(['EIO', 'EACCES', 'EPERM', 'EUCLEAN', 'ELOOP'])

const LANES = 8

/**
 * Reads files once each and past the cache, many small ones side by side, and tells the sums of each. Rejects when the
 * medium goes away or another one came in its place.
 */
export async function readFiles<File extends FileToRead>(
  order: ReadOrder,
  files: readonly File[],
  tell: (file: File, read: FileRead) => void,
): Promise<void> {
  const place = await order.medium.place()
  const small = files.filter((file) => file.sizeBytes <= SMALL_BLOCK)
  const large = files.filter((file) => file.sizeBytes > SMALL_BLOCK)
  if (small.length > 0) {
    const lanes = alignedBlocks(Math.min(LANES, small.length), SMALL_BLOCK).map((block) => ({
      block,
      sums: new Sums(),
    }))
    await inLanes(small, lanes, async (file, { block, sums }) =>
      tell(file, await readFile(order, file, [fitted(block, file.sizeBytes)], sums)),
    )
  }
  const blocks = large.length > 0 ? alignedBlocks(4, LARGE_BLOCK) : []
  const sums = new Sums()
  for (const file of large) tell(file, await readFile(order, file, blocks, sums))
  // What was read of another medium says nothing of these files.
  if ((await order.medium.place().catch(() => '')) !== place)
    throw deviceError('ENODEV', 'The volume went away while it was read.')
}

async function readFile(
  { medium, folder, gate, onBytes }: ReadOrder,
  file: FileToRead,
  blocks: readonly Uint8Array[],
  sums: Sums,
): Promise<FileRead> {
  const at = joinPath(folder, file.path)
  await sums.begin(file.algorithms)
  try {
    const before = await medium.entry(at)
    const { sizeBytes, fromMedium } = await readThrough(medium, at, blocks, onBytes, gate, { eats: [sums] })
    const after = await medium.entry(at)
    const isSame = before && after && sameFile(before, after) && before.changedMs === after.changedMs
    if (!isSame || sizeBytes !== file.sizeBytes) return { why: 'changed', code: '' }
    return { found: sums.end(), fromMedium }
  } catch (error) {
    const code = errorCode(error)
    if (code === 'ENOENT') return { why: 'changed', code }
    if (!OF_A_FILE.has(code)) throw error
    return { why: 'unreadable', code }
  }
}
