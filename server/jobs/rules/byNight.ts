import type { Db } from '../../db/connection'
import { productionsToRecheck } from '../../db/queries/proxies'
import { openTasks } from '../../db/queries/tasks'
import type { NextTask } from '../work'

/** What waits for a drive is not asked for again before this. */
const AGAIN_MS = 3600_000

/** From ten to six the computer is not being edited with. Common practice, no source. */
const isNight = (at: Date) => at.getHours() >= 22 || at.getHours() < 6

/** Has proxies compared that are to be checked, at night, when nothing else is under way. */
export class ProxiesByNight {
  #triedAt = -Infinity

  constructor(
    readonly db: Db,
    readonly host: string,
    /** Puts a task into the line, unless one like it is open. */
    readonly order: (task: NextTask) => Promise<void>,
    readonly now: () => Date = () => new Date(),
  ) {}

  async turn(): Promise<void> {
    const now = this.now()
    if (!isNight(now) || now.getTime() - this.#triedAt < AGAIN_MS) return
    const productions = await productionsToRecheck(this.db)
    if (productions.length === 0 || (await openTasks(this.db, this.host)).length > 0) return
    this.#triedAt = now.getTime()
    for (const { id: productionId, title } of productions)
      await this.order({
        kind: 'recheck',
        title: `Compare the proxies of “${title}” with their originals`,
        productionId,
        loadId: null,
        input: { productionId },
        idempotencyKey: null,
      })
  }
}
