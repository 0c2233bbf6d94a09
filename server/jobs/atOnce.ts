/** Does something with each of several things, some at a time and in their order; the first error stops all and is thrown. */
export async function atOnce<T>(items: readonly T[], lanes: number, work: (item: T) => Promise<void>): Promise<void> {
  let next = 0
  const lane = async () => {
    for (let item = items[next]; item !== undefined; item = items[next]) {
      next += 1
      await work(item).catch((error: unknown) => {
        next = items.length
        throw error
      })
    }
  }
  await Promise.all(Array.from({ length: Math.min(lanes, items.length) }, lane))
}
