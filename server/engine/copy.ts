import { alignedBlocks, LARGE_BLOCK, SMALL_BLOCK } from './blocks'
import { copyBatch, LANES } from './copyBatch'
import { copyLarge } from './copyLarge'
import type { CopyMemory, CopyOrder, SourceFile } from './copyOrder'
import { CopyRun } from './copyRun'
import { parentOf } from './medium'

const BATCH_FILES = 512
const BATCH_BYTES = 96 * 1024 * 1024

export const copyMemory = (destinations: number): CopyMemory => ({
  large: alignedBlocks(4 + 2 * destinations, LARGE_BLOCK),
  lanes: alignedBlocks(LANES, SMALL_BLOCK),
})

/**
 * Copies files to all destinations at once, reading the source once. Each file waits under a name of ours, is read
 * back from the medium, and gets its real name only when the read-back equals the source; it is reported as proved
 * when that name is durable. A destination that fails is left aside and the others go on. Can be cut at any point and
 * called again. Throws SourceGone when the card goes away, SourceSwapped when another lies in its place.
 */
export async function copyTree(order: CopyOrder): Promise<void> {
  const run = new CopyRun(order)
  await run.prepare()
  const { large: blocks, lanes } = order.memory ?? copyMemory(order.destinations.length)
  const byFolder = [...order.files].sort(
    (a, b) => Buffer.compare(parentOf(a.path), parentOf(b.path)) || Buffer.compare(a.path, b.path),
  )
  let batch: SourceFile[] = []
  let batchBytes = 0
  const flush = async () => {
    if (batch.length > 0) await copyBatch(run, batch, lanes)
    batch = []
    batchBytes = 0
  }
  for (const file of byFolder) {
    if (run.alive().length === 0) break
    if (file.sizeBytes > SMALL_BLOCK) {
      await flush()
      await copyLarge(run, file, blocks)
      continue
    }
    if (batch.length >= BATCH_FILES || batchBytes + file.sizeBytes > BATCH_BYTES) await flush()
    batch.push(file)
    batchBytes += file.sizeBytes
  }
  await flush()
  await run.finish()
}
