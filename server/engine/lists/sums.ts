import { createHash } from 'node:crypto'
import { crc32 } from 'node:zlib'
import { Xxh32, Xxh64 } from '@node-rs/xxhash'
import { createXXHash128, createXXHash3 } from 'hash-wasm'
import type { Algorithm } from '../../../core/copies/lists/algorithm'
import type { FoundSums } from '../../../core/copies/lists/verdict'
import { asBuffer } from '../medium/blocks'

/** One algorithm at work on the blocks of a file. */
interface Running {
  update(block: Uint8Array): void
  /** Hexadecimal, in lower case. */
  digest(): string
}

const padded = (value: number | bigint, digits: number) => value.toString(16).padStart(digits, '0')

/** What every file needs a new one of. */
const MADE = {
  md5: () => ofSystem('md5'),
  sha1: () => ofSystem('sha1'),
  sha224: () => ofSystem('sha224'),
  sha256: () => ofSystem('sha256'),
  sha384: () => ofSystem('sha384'),
  sha512: () => ofSystem('sha512'),
  xxh32: () => {
    const hash = new Xxh32()
    return { update: (block: Uint8Array) => hash.update(asBuffer(block)), digest: () => padded(hash.digest(), 8) }
  },
  xxh64: () => {
    const hash = new Xxh64(0n)
    return { update: (block: Uint8Array) => hash.update(asBuffer(block)), digest: () => padded(hash.digest(), 16) }
  },
  crc32: () => {
    let value = 0
    return {
      update: (block: Uint8Array) => {
        value = crc32(block, value)
      },
      digest: () => padded(value, 8),
    }
  },
} satisfies Partial<Record<Algorithm, () => Running>>

function ofSystem(name: string): Running {
  const hash = createHash(name)
  return { update: (block) => void hash.update(block), digest: () => hash.digest('hex') }
}

/** What takes a while to make, and is used again for the next file. */
const REUSED = { xxh3: () => createXXHash3(), xxh128: () => createXXHash128() }

const isReused = (algorithm: Algorithm): algorithm is keyof typeof REUSED => algorithm in REUSED

/** Sums of one file after another, each of several algorithms in one reading; one for each lane. */
export class Sums {
  readonly #kept = new Map<keyof typeof REUSED, Awaited<ReturnType<(typeof REUSED)['xxh3']>>>()
  #running: [Algorithm, Running][] = []

  async begin(algorithms: Iterable<Algorithm>): Promise<void> {
    this.#running = []
    for (const algorithm of algorithms)
      this.#running.push([algorithm, isReused(algorithm) ? await this.#again(algorithm) : MADE[algorithm]()])
  }

  async #again(algorithm: keyof typeof REUSED): Promise<Running> {
    const hash = this.#kept.get(algorithm) ?? (await REUSED[algorithm]())
    this.#kept.set(algorithm, hash)
    hash.init()
    return { update: (block) => void hash.update(block), digest: () => hash.digest('hex') }
  }

  update(block: Uint8Array): void {
    for (const [, running] of this.#running) running.update(block)
  }

  end(): FoundSums {
    return Object.fromEntries(this.#running.map(([algorithm, running]) => [algorithm, running.digest()]))
  }
}
