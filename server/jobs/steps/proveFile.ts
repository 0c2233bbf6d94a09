import { alignedBlocks, LARGE_BLOCK } from '../../engine/medium/blocks'
import { readBack } from '../../engine/copy/hash'
import type { Medium } from '../../engine/medium/medium'

/** Hash, size and time of a finished file, read past the cache where that is possible. */
export async function readFinished(medium: Medium, path: Buffer, gate: () => Promise<void>) {
  const { hash, sizeBytes, fromMedium } = await readBack(
    medium,
    path,
    alignedBlocks(2, LARGE_BLOCK),
    () => undefined,
    gate,
  )
  const entry = await medium.entry(path)
  return { hash, sizeBytes, pastCache: fromMedium, modifiedMs: entry?.modifiedMs ?? 0 }
}
