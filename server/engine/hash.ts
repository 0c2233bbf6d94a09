import { Xxh64 } from '@node-rs/xxhash'
import { asBuffer, itemAt } from './blocks'
import type { Medium } from './medium'

/** A running xxHash64 with seed 0; the digest is the 16 hexadecimal digits that checksum lists hold. */
export class RunningHash {
  readonly #state = new Xxh64(0n)

  update(block: Uint8Array): void {
    this.#state.update(asBuffer(block))
  }

  digest(): string {
    return this.#state.digest().toString(16).padStart(16, '0')
  }
}

export interface ReadBack {
  readonly hash: string
  readonly sizeBytes: number
  readonly fromMedium: boolean
}

/** Reads a file again from its medium and hashes it, one block being read while the last one is hashed. */
export async function readBack(medium: Medium, path: Buffer, blocks: readonly Uint8Array[], onBytes: (bytes: number) => void, gate: () => Promise<void>): Promise<ReadBack> {
  const file = await medium.open(path)
  try {
    const hash = new RunningHash()
    let position = 0
    let pending = file.read(itemAt(blocks, 0), 0)
    for (let turn = 0; ; turn += 1) {
      const block = itemAt(blocks, turn % blocks.length)
      const bytes = await pending
      if (bytes === 0) break
      position += bytes
      await gate()
      // A short read is the end of the file; the next read would start off the block grid.
      const last = bytes < block.length
      if (!last && blocks.length > 1) pending = file.read(itemAt(blocks, (turn + 1) % blocks.length), position)
      hash.update(block.subarray(0, bytes))
      onBytes(bytes)
      if (last) break
      if (blocks.length === 1) pending = file.read(block, position)
    }
    return { hash: hash.digest(), sizeBytes: position, fromMedium: file.fromMedium }
  } finally {
    await file.close()
  }
}
