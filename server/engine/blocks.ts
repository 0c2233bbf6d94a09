/** Memory that starts on a page boundary, which reading past the cache needs and which ordinary buffers do not promise. */

export const LARGE_BLOCK = 8 * 1024 * 1024
export const SMALL_BLOCK = 1024 * 1024
const PAGE = 65_536

/** Cuts one region of `count` blocks of `size` bytes; the region goes when its blocks go. */
export function alignedBlocks(count: number, size: number): Uint8Array[] {
  const memory = new WebAssembly.Memory({ initial: Math.ceil((count * size) / PAGE) })
  return Array.from({ length: count }, (_, at) => new Uint8Array(memory.buffer, at * size, size))
}

/** The same bytes as a Buffer, without copying. */
export const asBuffer = (block: Uint8Array): Buffer => Buffer.from(block.buffer, block.byteOffset, block.byteLength)

/** Item `at` of a list that is known to be long enough. */
export function itemAt<T>(items: readonly T[], at: number): T {
  const item = items[at]
  if (item === undefined) throw new RangeError(`No item ${at} in a list of ${items.length}`)
  return item
}
