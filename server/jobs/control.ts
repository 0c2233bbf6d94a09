import { Stopped } from '../engine/tool/stopped'
import type { ToolControl, ToolProcess } from '../engine/tool/tool'
import type { TaskOrder } from '../../contract/tasks'

/** What a running task listens to: a gate for our own loops, a signal and a pause switch for outside programs. */
export class TaskControl implements ToolControl {
  readonly #abort = new AbortController()
  readonly #listeners = new Set<(paused: boolean) => void>()
  #paused = false
  #resume: (() => void) | undefined
  #held: Promise<void> = Promise.resolve()

  constructor(readonly onStarted: (process: ToolProcess) => void = () => undefined) {}

  get signal(): AbortSignal {
    return this.#abort.signal
  }

  obey(order: TaskOrder): void {
    if (order === 'stop') {
      this.#abort.abort()
      this.#release()
    } else if (order === 'pause' && !this.#paused) {
      this.#paused = true
      this.#held = new Promise((resolve) => (this.#resume = resolve))
      this.#listeners.forEach((apply) => apply(true))
    } else if (order === 'resume') {
      this.#release()
    }
  }

  #release(): void {
    if (!this.#paused) return
    this.#paused = false
    this.#resume?.()
    this.#listeners.forEach((apply) => apply(false))
  }

  readonly onPause = (apply: (paused: boolean) => void) => {
    this.#listeners.add(apply)
    if (this.#paused) apply(true)
    return () => void this.#listeners.delete(apply)
  }

  /** Waits while paused; throws Stopped once the person has stopped the task. */
  readonly gate = async (): Promise<void> => {
    await this.#held
    if (this.#abort.signal.aborted) throw new Stopped()
  }
}
