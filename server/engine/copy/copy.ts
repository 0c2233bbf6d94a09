import { alignedBlocks, LARGE_BLOCK, SMALL_BLOCK } from '../medium/blocks'
import { LANES, proveBatch, writeBatch } from './copyBatch'
import { copyLarge } from './copyLarge'
import type { CopyMemory, CopyOrder, SourceFile } from './copyOrder'
import { CopyRun } from './copyRun'
import { awaitedLater } from './hash'
import { parentOf } from '../medium/medium'

const BATCH_FILES = 512
const BATCH_BYTES = 96 * 1024 * 1024

export const copyMemory = (destinations: number): CopyMemory => ({
  large: alignedBlocks(4 + 2 * destinations, LARGE_BLOCK),
  writing: alignedBlocks(LANES, SMALL_BLOCK),
  proving: alignedBlocks(LANES, SMALL_BLOCK),
})

/**
 * Copies files to all destinations at once, reading the source once. Each file waits under a name of ours, is read
 * back from the medium, and gets its real name only when the read-back equals the source; it is reported as proved
 * when that name is durable. A destination that fails is left aside and the others go on. Can be cut at any point and
 * called again. Throws SourceGone when the card goes away, SourceSwapped when another lies in its place.
 */
export async function copyTree(order: CopyOrder): Promise<void> {
  const run = new CopyRun(order)
  try {
    await run.prepare()
    await copyFiles(run)
    await run.finish()
  } catch (error) {
    await run.giveUp()
    throw error
  }
}

async function copyFiles(run: CopyRun): Promise<void> {
  const { order } = run
  const memory = order.memory ?? copyMemory(order.destinations.length)
  const byFolder = [...order.files].sort(
    (a, b) => Buffer.compare(parentOf(a.path), parentOf(b.path)) || Buffer.compare(a.path, b.path),
  )
  const line = new BatchLine(run, memory)
  let batch: SourceFile[] = []
  let batchBytes = 0
  const flush = async () => {
    const files = batch
    batch = []
    batchBytes = 0
    if (files.length > 0) await line.take(files)
  }
  try {
    for (const file of byFolder) {
      if (run.alive().length === 0) break
      if (file.sizeBytes > SMALL_BLOCK) {
        await flush()
        await line.empty()
        await copyLarge(run, file, memory.large)
        continue
      }
      if (batch.length >= BATCH_FILES || batchBytes + file.sizeBytes > BATCH_BYTES) await flush()
      batch.push(file)
      batchBytes += file.sizeBytes
    }
    await flush()
  } finally {
    await line.empty()
  }
}

/** While one batch is read back, the next is written already: the card and the drives are busy at the same time. */
class BatchLine {
  #proving: Promise<void> = Promise.resolve()

  constructor(
    readonly run: CopyRun,
    readonly memory: CopyMemory,
  ) {}

  async take(files: readonly SourceFile[]): Promise<void> {
    const { run, memory } = this
    // The blocks are lent: both halves come to their end before an error of one of them is thrown.
    const [written] = await Promise.allSettled([writeBatch(run, files, memory.writing), this.#proving])
    await this.#proving
    if (written.status === 'rejected') throw written.reason
    this.#proving = awaitedLater(proveBatch(run, written.value, memory.proving))
  }

  /** Waits until nothing is under way. */
  empty(): Promise<void> {
    return this.#proving
  }
}
