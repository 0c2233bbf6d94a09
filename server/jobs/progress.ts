import type { TaskProgress } from '../../contract/tasks'
import type { Db } from '../db/connection'
import { setProgress, tellNews } from '../db/queries/tasks'

const EVERY_MS = 350
const WINDOW_MS = 4000

/** Writes a task's progress a few times a second and tells the browsers; speed is measured over the last seconds. */
export class ProgressWriter {
  #latest: Omit<TaskProgress, 'perSecond'> | undefined
  #samples: { at: number; done: number }[] = []
  #timer: NodeJS.Timeout | undefined
  #writing: Promise<void> = Promise.resolve()

  constructor(
    readonly db: Db,
    readonly taskId: string,
  ) {}

  set(progress: Omit<TaskProgress, 'perSecond'>): void {
    this.#latest = progress
    this.#timer ??= setTimeout(() => void this.flush(), EVERY_MS)
  }

  /** Writes what was last set; a write that fails is the next one's to mend. */
  flush(): Promise<void> {
    clearTimeout(this.#timer)
    this.#timer = undefined
    const latest = this.#latest
    if (!latest) return this.#writing
    const now = performance.now()
    this.#samples = [...this.#samples.filter((sample) => now - sample.at < WINDOW_MS), { at: now, done: latest.done }]
    const first = this.#samples[0]
    const perSecond = first && now - first.at > 200 ? ((latest.done - first.done) / (now - first.at)) * 1000 : 0
    this.#writing = this.#writing
      .then(async () => {
        await setProgress(this.db, this.taskId, { ...latest, perSecond: Math.max(0, Math.round(perSecond)) })
        await tellNews(this.db, { kind: 'task', id: this.taskId })
      })
      .catch(() => undefined)
    return this.#writing
  }
}
