import { spawn, type ChildProcess } from 'node:child_process'
import { createInterface } from 'node:readline'
import { within } from './register'

const AGAIN_MS = 5_000
const MOST_KEPT = 10_000

/**
 * Hears from the system what is mounted and unmounted, also what comes and goes between two scans. Source: findmnt(8)
 * of util-linux, `--poll`.
 */
export class MountNews {
  readonly #changes: { readonly at: number; readonly path: string }[] = []
  #child: ChildProcess | undefined
  #timer: NodeJS.Timeout | undefined
  #count = 0
  #stopped = false
  /** When the program was started, while it runs. */
  #startedAt: number | undefined
  /** It runs as it should, as far as its last run told: one that ends at once is believed only after it lasted. */
  #isTrusted = true

  start(): void {
    const child = spawn('findmnt', ['--poll', '--raw', '--noheadings', '--output', 'TARGET,OLD-TARGET'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    })
    const startedAt = performance.now()
    this.#child = child
    this.#startedAt = startedAt
    createInterface({ input: child.stdout }).on('line', (line) => {
      for (const path of line.split(' ')) if (path.startsWith('/')) this.#put(unescaped(path))
    })
    let ended = false
    const again = () => {
      if (ended) return
      ended = true
      // Who relied on it is told that it may have missed something; where nobody could, nothing is lost with it.
      if (this.hears) this.#put('/')
      this.#isTrusted = performance.now() - startedAt >= AGAIN_MS
      this.#startedAt = undefined
      if (!this.#stopped) this.#timer = setTimeout(() => this.start(), AGAIN_MS)
    }
    child.on('error', again)
    child.on('close', again)
  }

  stop(): void {
    this.#stopped = true
    clearTimeout(this.#timer)
    this.#child?.kill()
  }

  /** False where the system does not tell. */
  get hears(): boolean {
    return this.#startedAt !== undefined && (this.#isTrusted || performance.now() - this.#startedAt >= AGAIN_MS)
  }

  /** A moment to ask from. */
  get now(): number {
    return this.#count
  }

  #put(path: string): void {
    this.#count += 1
    this.#changes.push({ at: this.#count, path })
    if (this.#changes.length > MOST_KEPT) this.#changes.shift()
  }

  /** Whether something was mounted or unmounted at a folder, or above it, since a moment. */
  changedSince(moment: number, root: string): boolean {
    const first = this.#changes[0]?.at ?? this.#count + 1
    if (moment + 1 < first && this.#count > moment) return true
    return this.#changes.some(({ at, path }) => at > moment && within(root, path))
  }
}

/** Characters that would end a field are written as `\xNN`. */
const unescaped = (text: string) =>
  Buffer.from(
    text.replaceAll(/\\x([0-9a-f]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
    'latin1',
  ).toString()
