import { uptime } from 'node:os'

/** Less than this is how two clocks differ. */
const LEAST_MS = 2_000

/**
 * How long this computer has slept since it was started, in milliseconds: one clock goes on while it sleeps, the other
 * stands. Source: clock_gettime(2), CLOCK_BOOTTIME (os.uptime) and CLOCK_MONOTONIC (process.hrtime).
 */
const sleptMs = (): number => uptime() * 1000 - Number(process.hrtime.bigint() / 1_000_000n)

/** Says how long the computer slept since it was last asked; 0 when it did not. */
export class Sleep {
  #before: number

  constructor(readonly slept = sleptMs) {
    this.#before = slept()
  }

  since(): number {
    const now = this.slept()
    const slept = now - this.#before
    if (slept < LEAST_MS) return 0
    this.#before = now
    return slept
  }
}
