import { deviceError, type Medium, type ReadableFile } from './medium'

/** A medium that gives no answer for so long is given up. */
export const timeoutMs = (): number => Number(process.env.YENDRA_PATIENCE_MS ?? 60_000)

export const noAnswer = (): Error =>
  deviceError('ETIMEDOUT', `It gave no answer for ${Math.round(timeoutMs() / 1000)} s.`)

/** Folders on which something still waits for an answer that was given up: nothing more is asked of them meanwhile. */
const hung = new Map<string, number>()

/**
 * Waits for an answer of what lies at a root; rejects with `ETIMEDOUT` when none comes, and at once while an earlier
 * one is owed.
 */
export function withinTimeout<T>(root: string, ask: () => Promise<T>): Promise<T> {
  if ((hung.get(root) ?? 0) > 0) return Promise.reject(noAnswer())
  return new Promise((resolve, reject) => {
    let isGivenUp = false
    const timer = setTimeout(() => {
      isGivenUp = true
      hung.set(root, (hung.get(root) ?? 0) + 1)
      reject(noAnswer())
    }, timeoutMs())
    const settled = () => {
      clearTimeout(timer)
      if (!isGivenUp) return
      const left = (hung.get(root) ?? 1) - 1
      if (left > 0) hung.set(root, left)
      else hung.delete(root)
    }
    ask().then(
      (answer) => {
        settled()
        resolve(answer)
      },
      (error: unknown) => {
        settled()
        reject(error)
      },
    )
  })
}

const ASKED = ['list', 'tree', 'entry', 'place', 'room', 'device', 'stamps'] as const

/**
 * A medium that is asked with patience: a card that dies may keep a reading waiting for ever. Once an answer was given
 * up, nothing is read through it any more, so that blocks that a late answer may still fill are not used again.
 */
export class TimedMedium {
  #isHung = false
  #hungAt: Buffer | undefined
  readonly medium: Medium

  constructor(medium: Medium) {
    const { root } = medium
    const asking = async <T>(path: Buffer | undefined, ask: () => Promise<T>): Promise<T> => {
      if (this.#isHung) throw noAnswer()
      return withinTimeout(root, ask).catch((error: unknown) => {
        if (isNoAnswer(error)) {
          this.#isHung = true
          this.#hungAt ??= path
        }
        throw error
      })
    }
    const open = async (path: Buffer, how?: 'settled'): Promise<ReadableFile> => {
      const file = await asking(path, () => medium.open(path, how))
      return {
        fromMedium: file.fromMedium,
        read: (block, position) => asking(path, () => file.read(block, position)),
        identity: () => asking(path, () => file.identity()),
        // Nobody waits for the end of what gives no answer.
        close: async () => {
          const closed = file.close().catch(() => undefined)
          if (!this.#isHung) await closed
        },
      }
    }
    this.medium = new Proxy(medium, {
      get: (target, name) => {
        if (name === 'open') return open
        const value: unknown = Reflect.get(target, name, target)
        if (typeof value !== 'function') return value
        const call = value.bind(target) as (...args: unknown[]) => Promise<unknown>
        if (!(ASKED as readonly unknown[]).includes(name)) return call
        return (...args: unknown[]) =>
          asking(args[0] instanceof Uint8Array ? Buffer.from(args[0]) : undefined, () => call(...args))
      },
    })
  }

  /** An answer was given up. */
  get isHung(): boolean {
    return this.#isHung
  }

  /** What was being read then. */
  get hungAt(): Buffer | undefined {
    return this.#hungAt
  }
}

export const isNoAnswer = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && error.code === 'ETIMEDOUT'
