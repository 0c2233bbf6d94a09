import { alignedBlocks, LARGE_BLOCK, SMALL_BLOCK } from './blocks'
import { copyBatch, LANES } from './copyBatch'
import { copyLarge } from './copyLarge'
import { CopyRun } from './copyRun'
import { parentOf, type Medium } from './medium'

/** One file to copy, and the destinations that still need it. */
export interface SourceFile {
  readonly id: number
  readonly path: Buffer
  readonly sizeBytes: number
  readonly modifiedMs: number
  readonly wantedBy: ReadonlySet<string>
}

export interface CopyDestination {
  readonly id: string
  readonly medium: Medium
  /** The folder that mirrors the card. */
  readonly folder: Buffer
  /** A folder of ours on the same file system, where files wait until they are proved. */
  readonly parts: Buffer
}

/** What became of one file on one destination, or of one side altogether. */
export type CopyRecord =
  | {
      readonly kind: 'proved'
      readonly fileId: number
      readonly destinationId: string
      readonly hash: string
      readonly fromMedium: boolean
      readonly already: boolean
    }
  | {
      readonly kind: 'mismatch'
      readonly fileId: number
      readonly destinationId: string
      readonly wanted: string
      readonly found: string
    }
  | {
      readonly kind: 'conflict'
      readonly fileId: number
      readonly destinationId: string
      readonly wanted: string
      readonly found: string
    }
  | { readonly kind: 'source-failed'; readonly fileId: number; readonly message: string }
  | {
      readonly kind: 'destination-failed'
      readonly destinationId: string
      readonly reason: 'full' | 'gone' | 'refused'
      readonly message: string
      readonly missingBytes: number
    }

export interface CopyOrder {
  readonly source: Medium
  readonly files: readonly SourceFile[]
  /** Folders to create even when they are empty. */
  readonly folders: readonly Buffer[]
  readonly destinations: readonly CopyDestination[]
  /** Awaited between blocks: holds while paused, throws when cancelled. */
  readonly gate: () => Promise<void>
  readonly onBytes: (destinationId: string, stage: 'written' | 'proved', bytes: number) => void
  readonly report: (records: readonly CopyRecord[]) => Promise<void>
}

const BATCH_FILES = 512
const BATCH_BYTES = 96 * 1024 * 1024

/**
 * Copies files to all destinations at once, reading the source once. Each file waits under a name of ours, is read
 * back from the medium, and gets its real name only when the read-back equals the source. A destination that fails is
 * left aside and the others go on. Can be cut at any point and called again. Throws SourceGone when the card goes away.
 */
export async function copyTree(order: CopyOrder): Promise<void> {
  const run = new CopyRun(order)
  await run.prepare()
  const blocks = alignedBlocks(4 + 2 * order.destinations.length, LARGE_BLOCK)
  const lanes = alignedBlocks(LANES, SMALL_BLOCK)
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
