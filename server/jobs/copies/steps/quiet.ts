import { setTimeout as sleep } from 'node:timers/promises'
import { LARGE_BLOCK } from '../../../engine/medium/blocks'

/** Others that move more than this on a drive are waited for, in bytes per second. */
const QUIET = 1e6
const WINDOW_MS = 2000
const STILL_MS = 1000
/** However little is noticed while we read, we hold still this often to see what others do. */
const SOMETIMES_MS = 30_000
/** What was read and has not reached us yet is no one else's. */
const ON_ITS_WAY = 4 * LARGE_BLOCK

/** The time is over in which something is read by itself. */
export class TimeOver extends Error {}

interface QuietOptions {
  /** All that was ever moved on the drive; `undefined` where nobody can tell. */
  readonly moved: () => Promise<number | undefined>
  /** What we have read of it. */
  readonly own: () => number
  /** Holds while paused, throws when stopped. */
  readonly gate: () => Promise<void>
  readonly until?: Date | undefined
  /** Told when it begins and ends to wait. */
  readonly onWait?: (waits: boolean) => void
  readonly windowMs?: number
}

/** A gate that holds while others use the drive: nobody's work is slowed by proofs that can wait. */
export class QuietGate {
  #at = 0
  #moved: number | undefined
  #own = 0
  #stillAt = 0
  #holding: Promise<void> | undefined

  constructor(readonly options: QuietOptions) {}

  readonly pass = async (): Promise<void> => {
    await this.#look()
    const { windowMs = WINDOW_MS } = this.options
    if (this.#holding === undefined && performance.now() - this.#at >= windowMs)
      this.#holding = this.#measure().finally(() => (this.#holding = undefined))
    // Whatever comes meanwhile waits as well.
    await this.#holding
  }

  async #look(): Promise<void> {
    await this.options.gate()
    if (this.options.until && Date.now() >= this.options.until.getTime()) throw new TimeOver()
  }

  async #measure(): Promise<void> {
    const { moved, own } = this.options
    const [now, ours, before] = [await moved(), own(), this.#moved]
    const passedMs = performance.now() - this.#at
    const isFirst = before === undefined
    if (now === undefined) return this.#begin(now)
    const others = isFirst ? 0 : now - before - (ours - this.#own) - ON_ITS_WAY
    const looksBusy = others > (QUIET * passedMs) / 1000
    if (isFirst || looksBusy || performance.now() - this.#stillAt >= SOMETIMES_MS) await this.#holdStill()
    else this.#begin(now)
  }

  #begin(moved: number | undefined): void {
    this.#at = performance.now()
    this.#moved = moved
    this.#own = this.options.own()
  }

  /** Nothing is read by us: what moves then is others' alone. */
  async #holdStill(): Promise<void> {
    const { moved, onWait, windowMs = WINDOW_MS } = this.options
    const stillMs = Math.min(STILL_MS, windowMs / 2)
    let isWaiting = false
    // What is on its way to us arrives first.
    await sleep(stillMs / 2)
    for (;;) {
      await this.#look()
      const [before, at] = [(await moved()) ?? 0, performance.now()]
      await sleep(isWaiting ? windowMs : stillMs)
      const rate = ((((await moved()) ?? before) - before) * 1000) / (performance.now() - at)
      if (rate <= QUIET) break
      if (!isWaiting) onWait?.(true)
      isWaiting = true
    }
    if (isWaiting) onWait?.(false)
    this.#stillAt = performance.now()
    this.#begin(await moved())
  }
}
