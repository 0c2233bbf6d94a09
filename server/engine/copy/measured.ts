import type { Medium, ReadableFile, SmallFile, SmallRead, WritableFile } from '../medium/medium'

/** Less than this says more of the system's memory than of a drive. */
const LEAST_BYTES = 32 * 1024 * 1024

/** Bytes that went one way, and for how long something was under way at all. */
class Flow {
  #bytes = 0
  #busyMs = 0
  #active = 0
  #since = 0

  async during<T>(action: Promise<T>, bytesOf: (result: T) => number): Promise<T> {
    if (this.#active === 0) this.#since = performance.now()
    this.#active += 1
    try {
      const result = await action
      this.#bytes += bytesOf(result)
      return result
    } finally {
      this.#active -= 1
      if (this.#active === 0) this.#busyMs += performance.now() - this.#since
    }
  }

  get bytes(): number {
    return this.#bytes
  }

  get bytesPerSecond(): number | undefined {
    return this.#bytes < LEAST_BYTES || this.#busyMs === 0 ? undefined : (this.#bytes * 1000) / this.#busyMs
  }
}

/**
 * A medium that says afterwards how fast it was read and written, in bytes per second; waiting for others does not
 * count.
 */
export class MeasuredMedium {
  readonly #reading = new Flow()
  readonly #writing = new Flow()
  readonly medium: Medium

  constructor(medium: Medium) {
    const opened: Medium['open'] = async (path, how): Promise<ReadableFile> => {
      const file = await medium.open(path, how)
      return {
        read: (block, position) => this.#reading.during(file.read(block, position), (bytes) => bytes),
        identity: () => file.identity(),
        close: () => file.close(),
        fromMedium: file.fromMedium,
      }
    }
    const created = async (path: Buffer): Promise<WritableFile> => {
      const file = await medium.create(path)
      return {
        write: (block, position) => this.#writing.during(file.write(block, position), () => block.length),
        // What was written is not on the medium before it is durable.
        close: (modifiedMs, durability) => this.#writing.during(file.close(modifiedMs, durability), () => 0),
        abandon: () => file.abandon(),
      }
    }
    const readSmall = (files: readonly SmallFile[]): Promise<readonly SmallRead[]> =>
      this.#reading.during(
        medium.readSmall?.(files) ?? Promise.resolve(files.map(() => ({ code: 'ENOSYS' }))),
        (reads) => reads.reduce((sum, read) => sum + ('hash' in read ? read.sizeBytes : 0), 0),
      )
    const settle = () => this.#writing.during(medium.settle(), () => 0)
    const own: Partial<Medium> = { open: opened, create: created, readSmall, settle }
    this.medium = new Proxy(medium, {
      get(target, name) {
        if (Object.hasOwn(own, name)) return own[name as keyof Medium]
        const value: unknown = Reflect.get(target, name, target)
        return typeof value === 'function' ? (value.bind(target) as unknown) : value
      },
    })
  }

  get readBytes(): number {
    return this.#reading.bytes
  }

  get readBytesPerSecond(): number | undefined {
    return this.#reading.bytesPerSecond
  }

  get writeBytesPerSecond(): number | undefined {
    return this.#writing.bytesPerSecond
  }
}
