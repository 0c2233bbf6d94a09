import { alignedBlocks, itemAt } from '../medium/blocks'
import { RunningHash } from './hash'
import type { Medium } from '../medium/medium'

const END_BYTES = 64 * 1024
const GRID = 4096

/**
 * Where the second part of what is sampled begins; 0 where the first is all. Reading past the cache wants the grid of
 * the medium.
 */
const lastPart = (sizeBytes: number): number => Math.floor(Math.max(0, sizeBytes - END_BYTES) / GRID) * GRID

/** Hash of the first and last 64 KiB of a file: two files of one size and name, told apart at little cost. */
export async function sampleHash(medium: Medium, path: Buffer, sizeBytes: number): Promise<string> {
  if (medium.sample) return medium.sample(path, sizeBytes)
  const block = itemAt(alignedBlocks(1, END_BYTES), 0)
  const file = await medium.open(path)
  try {
    const hash = new RunningHash()
    hash.update(block.subarray(0, await file.read(block, 0)))
    const last = lastPart(sizeBytes)
    if (last > 0) {
      hash.update(block.subarray(0, await file.read(block, last)))
      if (sizeBytes > last + END_BYTES) hash.update(block.subarray(0, await file.read(block, last + END_BYTES)))
    }
    return hash.digest()
  } finally {
    await file.close()
  }
}

/** The same hash, made of blocks in their order while a file of that size is read anyhow. */
export class EndsHash {
  readonly #hash = new RunningHash()
  readonly #last: number
  #position = 0
  /** The second part may begin inside the first: it is kept until the first is whole. */
  readonly #second: Uint8Array[] = []

  constructor(readonly sizeBytes: number) {
    this.#last = lastPart(sizeBytes)
  }

  update(block: Uint8Array): void {
    const from = this.#position
    this.#position += block.length
    this.#take(block, from, 0, Math.min(END_BYTES, this.sizeBytes))
    if (this.#last === 0) return
    // Blocks are lent: what is needed later is kept, what can be taken at once is not.
    if (this.#position >= END_BYTES) {
      this.#takeSecond()
      this.#take(block, from, this.#last, this.#position)
    } else if (this.#position > this.#last) this.#second.push(block.slice(Math.max(this.#last - from, 0)))
  }

  #take(block: Uint8Array, at: number, from: number, to: number): void {
    const [begin, end] = [Math.max(from - at, 0), Math.min(to - at, block.length)]
    if (begin < end) this.#hash.update(block.subarray(begin, end))
  }

  #takeSecond(): void {
    for (const part of this.#second.splice(0)) this.#hash.update(part)
  }

  /** `undefined` when the file turned out to have another size. */
  digest(): string | undefined {
    return this.#position === this.sizeBytes ? this.#hash.digest() : undefined
  }
}
