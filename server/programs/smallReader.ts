import { parentPort } from 'node:worker_threads'
import { alignedBlocks, itemAt, SMALL_BLOCK } from '../engine/medium/blocks'
import { readSmall, type SmallQuestion } from '../engine/medium/smallFiles'

/** A thread that reads small files for its program. */
const GRID = 4096
const memory = itemAt(alignedBlocks(1, SMALL_BLOCK + GRID), 0)

parentPort?.on('message', ({ files, mountId }: SmallQuestion) =>
  parentPort?.postMessage(files.map((file) => readSmall(file, mountId, memory))),
)
