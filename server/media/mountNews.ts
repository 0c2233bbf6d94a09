import { spawn, type ChildProcess } from 'node:child_process'
import { createInterface } from 'node:readline'
import { within } from './register'

const AGAIN_MS = 5_000
const MOST_KEPT = 10_000

/**
 * Hears from the system what is mounted and unmounted, also what comes and goes between two looks. Source: findmnt(8) of
 * util-linux, `--poll`.
 */
export class MountNews {
  readonly #changes: { readonly at: number; readonly path: string }[] = []
  #child: ChildProcess | undefined
  #timer: NodeJS.Timeout | undefined
  #count = 0
  #hears = false
  #stopped = false

  start(): void {
    const child = spawn('findmnt', ['--poll', '--raw', '--noheadings', '--output', 'TARGET,OLD-TARGET'], {
      stdio: ['ignore', 'pipe', 'ignore'],
    })
    this.#child = child
    this.#hears = true
    createInterface({ input: child.stdout }).on('line', (line) => {
      for (const path of line.split(' ')) if (path.startsWith('/')) this.#put(unescaped(path))
    })
    let ended = false
    const again = () => {
      if (ended) return
      ended = true
      this.#hears = false
      // What happened meanwhile was not heard.
      this.#put('/')
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
    return this.#hears
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
