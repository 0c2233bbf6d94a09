/**
 * Memory that starts on a page boundary, which reading past the cache needs and which ordinary buffers do not promise.
 */

export const LARGE_BLOCK = 8 * 1024 * 1024
export const SMALL_BLOCK = 1024 * 1024
const PAGE = 65_536
/** What block lengths and positions of direct reading are multiples of. */
export const GRID = 4096

/** Cuts one region of `count` blocks of `size` bytes; the region goes when its blocks go. */
export function alignedBlocks(count: number, size: number): Uint8Array[] {
  const memory = new WebAssembly.Memory({ initial: Math.ceil((count * size) / PAGE) })
  return Array.from({ length: count }, (_, at) => Buffer.from(memory.buffer, at * size, size))
}

/**
 * As much of a block as a file of this size needs, with room for one byte more, so that a file that grew is noticed.
 * Reading past the cache costs for every page of the block, not only for those that are filled.
 */
export const fitted = (block: Uint8Array, sizeBytes: number): Uint8Array =>
  block.subarray(0, Math.min(block.length, (Math.floor(sizeBytes / GRID) + 1) * GRID))

/** The same bytes as a Buffer, without copying. */
export const asBuffer = (block: Uint8Array): Buffer =>
  Buffer.isBuffer(block) ? block : Buffer.from(block.buffer, block.byteOffset, block.byteLength)

/** Item `at` of a list that is known to be long enough. */
export function itemAt<T>(items: readonly T[], at: number): T {
  const item = items[at]
  if (item === undefined) throw new RangeError(`No item ${at} in a list of ${items.length}`)
  return item
}
