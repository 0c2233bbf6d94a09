import { counted } from '../../../core/units/quantity'
import type { Db } from '../../db/connection'
import { dueLoads } from '../../db/queries/chart'
import { tellChanged } from '../../db/queries/tasks'
import { refreshLines } from '../../facts/chart'
import { log } from '../../log'
import type { NextTask } from '../work'

/** So many loads are reckoned in one transaction. */
export const AT_ONCE = 100
/** More than these are a task of their own, so that somebody sees how far it is. */
const MANY = 1000
const EVERY_MS = 500

/** Keeps the lines of the chart as the facts are. */
export class ChartLines {
  constructor(
    readonly db: Db,
    readonly host: string,
    /** Puts a task into the line, unless one like it is open. */
    readonly order: (task: NextTask) => Promise<void>,
  ) {}

  start(): void {
    const turn = () => {
      void this.turn()
        .catch((error: unknown) => log.warn(error, 'chart'))
        .finally(() => setTimeout(turn, EVERY_MS).unref())
    }
    turn()
  }

  async turn(): Promise<void> {
    if (await this.#areMany())
      await this.order({
        kind: 'chart',
        title: 'Bring the chart up to date',
        productionId: null,
        loadId: null,
        input: {},
        idempotencyKey: null,
      })
    const done = await refreshLines(this.db, this.host, AT_ONCE)
    if (done > 0) await tellChanged(this.db, 'chart')
  }

  async #areMany(): Promise<boolean> {
    return (await dueLoads(this.db, MANY)) === MANY
  }
}

/** What the task has done, for whoever reads it. */
export const broughtUpToDate = (loads: number) =>
  loads === 0 ? 'The chart was up to date.' : `The chart is up to date: ${counted(loads, 'load')} worked out again.`
