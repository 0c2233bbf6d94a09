import { alignedBlocks, asBuffer, GRID, itemAt } from './blocks'
import { readOnce, type Medium } from './medium'

/** A small file whole; `undefined` where there is no file, or one of more bytes than that. */
export async function readWhole(medium: Medium, path: Buffer, mostBytes: number): Promise<Buffer | undefined> {
  const entry = await medium.entry(path)
  if (entry?.kind !== 'file' || entry.sizeBytes > mostBytes) return undefined
  const block = itemAt(alignedBlocks(1, Math.ceil((entry.sizeBytes + 1) / GRID) * GRID), 0)
  return asBuffer(block.subarray(0, await readOnce(await medium.open(path), block)))
}
