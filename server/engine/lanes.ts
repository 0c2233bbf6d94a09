import { itemAt } from './blocks'

/** Works through items with one block for each lane; the first error stops all lanes and is thrown when all have ended. */
export async function inLanes<T>(
  items: readonly T[],
  blocks: readonly Uint8Array[],
  work: (item: T, block: Uint8Array) => Promise<void>,
): Promise<void> {
  let next = 0
  const lanes = blocks.map(async (block) => {
    while (next < items.length) {
      const item = itemAt(items, next)
      next += 1
      await work(item, block).catch((error: unknown) => {
        next = items.length
        throw error
      })
    }
  })
  // Whoever cleans up afterwards must not meet a file that a slower lane makes later.
  await Promise.allSettled(lanes)
  await Promise.all(lanes)
}
