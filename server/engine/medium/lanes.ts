import { itemAt } from './blocks'

/**
 * Works through items in their order, as many at once as there are lanes, each with what its lane has for itself, such
 * as a block of memory. The first error stops all lanes and is thrown when all have ended.
 */
export async function inLanes<T, L>(
  items: readonly T[],
  lanes: readonly L[],
  work: (item: T, lane: L) => Promise<void>,
): Promise<void> {
  let next = 0
  const running = lanes.map(async (lane) => {
    while (next < items.length) {
      const item = itemAt(items, next)
      next += 1
      await work(item, lane).catch((error: unknown) => {
        next = items.length
        throw error
      })
    }
  })
  // Whoever cleans up afterwards must not meet a file that a slower lane makes later.
  await Promise.allSettled(running)
  await Promise.all(running)
}
