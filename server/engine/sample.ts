import { alignedBlocks, itemAt } from './blocks'
import { RunningHash } from './hash'
import type { Medium } from './medium'

const END_BYTES = 64 * 1024

/** Hash of the first and last 64 KiB of a file: two files of one size and name, told apart at little cost. */
export async function sampleHash(medium: Medium, path: Buffer, sizeBytes: number): Promise<string> {
  const block = itemAt(alignedBlocks(1, END_BYTES), 0)
  const file = await medium.open(path)
  try {
    const hash = new RunningHash()
    hash.update(block.subarray(0, await file.read(block, 0)))
    // Reading past the cache wants positions on the grid of the medium.
    const last = Math.floor(Math.max(0, sizeBytes - END_BYTES) / 4096) * 4096
    if (last > 0) {
      hash.update(block.subarray(0, await file.read(block, last)))
      if (sizeBytes > last + END_BYTES) hash.update(block.subarray(0, await file.read(block, last + END_BYTES)))
    }
    return hash.digest()
  } finally {
    await file.close()
  }
}
