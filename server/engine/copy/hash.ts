import { Xxh64 } from '@node-rs/xxhash'
import { asBuffer, itemAt } from '../medium/blocks'
import type { Medium } from '../medium/medium'

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

const TRIED_BYTES = 8 * 1024 * 1024

/** How fast this computer makes checksums, in bytes per second: the best of a few tries, a few milliseconds each. */
export function measureHashing(): number {
  const block = Buffer.alloc(TRIED_BYTES, 0x5a)
  const tries = Array.from({ length: 5 }, () => {
    const begun = performance.now()
    const hash = new RunningHash()
    hash.update(block)
    hash.digest()
    return performance.now() - begun
  })
  return Math.round((TRIED_BYTES / Math.max(0.01, Math.min(...tries))) * 1000)
}

/** Marks a promise as one whose failure is met later, when its turn comes. */
export function awaitedLater<T>(promise: Promise<T>): Promise<T> {
  promise.catch(() => undefined)
  return promise
}

export interface ReadBack {
  readonly hash: string
  readonly sizeBytes: number
  readonly fromMedium: boolean
}

/** Takes in the blocks of a file one after another. */
export interface Eater {
  update(block: Uint8Array): void
}

export interface ReadBackOptions {
  readonly how?: 'settled'
  /** Taken along: a hash of the ends of the file. */
  readonly ends?: Eater
}

/** Reads a file again from its medium and hashes it. */
export async function readBack(
  medium: Medium,
  path: Buffer,
  blocks: readonly Uint8Array[],
  onBytes: (bytes: number) => void,
  gate: () => Promise<void>,
  { how, ends }: ReadBackOptions = {},
): Promise<ReadBack> {
  const hash = new RunningHash()
  const eats = ends ? [hash, ends] : [hash]
  const read = await readThrough(medium, path, blocks, onBytes, gate, { eats, ...(how && { how }) })
  return { hash: hash.digest(), ...read }
}

/** Reads a file in order, with a read under way in every block but the one that is being eaten. */
export async function readThrough(
  medium: Medium,
  path: Buffer,
  blocks: readonly Uint8Array[],
  onBytes: (bytes: number) => void,
  gate: () => Promise<void>,
  { eats, how }: { readonly eats: readonly Eater[]; readonly how?: 'settled' },
): Promise<Omit<ReadBack, 'hash'>> {
  const file = await medium.open(path, how)
  try {
    const size = itemAt(blocks, 0).length
    let position = 0
    const pending = blocks.map((block, at) => awaitedLater(file.read(block, at * size)))
    try {
      for (let turn = 0; ; turn += 1) {
        const slot = turn % blocks.length
        const block = itemAt(blocks, slot)
        const bytes = await itemAt(pending, slot)
        await gate()
        for (const eater of eats) eater.update(block.subarray(0, bytes))
        position += bytes
        onBytes(bytes)
        // A short read is the end of the file.
        if (bytes < size) break
        pending[slot] = awaitedLater(file.read(block, (turn + blocks.length) * size))
      }
    } finally {
      // The blocks are lent: nothing may still be written into them afterwards.
      await Promise.allSettled(pending)
    }
    return { sizeBytes: position, fromMedium: file.fromMedium }
  } finally {
    await file.close()
  }
}
