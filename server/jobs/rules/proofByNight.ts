import { hoursAt, type CycleHours } from '../../../core/copies/cycle'
import type { TaskInput } from '../../../contract/taskKinds'
import type { Db } from '../../db/connection'
import { connectedVolumes, dueCopies, newestUnread, readByNight } from '../../db/queries/cycle'
import { readCycle } from '../../db/queries/settings'
import { openTasks } from '../../db/queries/tasks'
import type { NextTask } from '../work'

/** How often it is asked whether something is due. */
const EVERY_MS = 15_000
/** What could not be read is not asked for again before this. */
const AGAIN_MS = 3600_000
/** So long nothing else goes on before a sample is read, and so long it may take. */
const IDLE_MS = 60_000
const SAMPLE_MS = 600_000
/** Of what was read since the day before nothing is read at the start. */
const DAY_MS = 86_400_000

interface Options {
  readonly now: () => Date
  readonly everyMs: number
}

/**
 * Has copies read again before their proofs are older than the cycle of their volume: within the hours that a person
 * set, one after the other, the most endangered first, when nothing else is under way. For who switches off every
 * evening: a sample of the newest load after a drive was connected.
 */
export class ProofByNight {
  readonly #tried = new Map<string, number>()
  readonly #connected = new Map<string, number>()
  #askedAt = -Infinity
  /** The end of the hours in which something was tried. */
  #hours = 0
  #idleSince = Infinity

  constructor(
    readonly db: Db,
    readonly host: string,
    /** Puts a task into the line, unless one like it is open. */
    readonly order: (task: NextTask) => Promise<void>,
    readonly options: Options = { now: () => new Date(), everyMs: EVERY_MS },
  ) {}

  async turn(): Promise<void> {
    const now = this.options.now()
    if (now.getTime() - this.#askedAt < this.options.everyMs) return
    this.#askedAt = now.getTime()
    await this.#noteConnected(now)
    // What somebody holds goes on when they say so.
    const isIdle = (await openTasks(this.db, this.host)).every((task) => task.state === 'paused')
    this.#idleSince = isIdle ? Math.min(this.#idleSince, now.getTime()) : Infinity
    if (!isIdle) return
    const hours = await readCycle(this.db)
    const night = hours.on ? hoursAt(hours, now) : undefined
    if (night && (await this.#byNight(hours, night, now))) return
    if (hours.atStart) await this.#atStart(now)
  }

  async #noteConnected(now: Date): Promise<void> {
    const here = new Set(await connectedVolumes(this.db, this.host))
    for (const id of this.#connected.keys()) if (!here.has(id)) this.#connected.delete(id)
    for (const id of here) {
      if (this.#connected.has(id)) continue
      this.#connected.set(id, now.getTime())
      // What was cut when it was pulled out goes on.
      for (const key of this.#tried.keys()) if (key.endsWith(id)) this.#tried.delete(key)
    }
  }

  async #byNight(hours: CycleHours, night: { from: Date; to: Date }, now: Date): Promise<boolean> {
    // What was cut by other hours is tried again.
    if (this.#hours !== night.to.getTime()) this.#tried.clear()
    this.#hours = night.to.getTime()
    const mostBytes = hours.mostBytes - (await readByNight(this.db, night.from))
    if (mostBytes <= 0) return false
    const due = (await dueCopies(this.db, this.host, 50)).find(
      (one) => now.getTime() - (this.#tried.get(`${one.loadId} ${one.volumeId}`) ?? -Infinity) >= AGAIN_MS,
    )
    if (!due) return false
    this.#tried.set(`${due.loadId} ${due.volumeId}`, now.getTime())
    await this.#check(due, `By night: read “${due.label}” again on ${due.volumeName}`, {
      ...{ how: 'cycle', seed: 'cycle', mostBytes, until: night.to.toISOString() },
    })
    return true
  }

  async #atStart(now: Date): Promise<void> {
    for (const [volumeId, since] of this.#connected) {
      const idleMs = now.getTime() - Math.max(since, this.#idleSince)
      if (since === Infinity || idleMs < IDLE_MS) continue
      // Each time a drive is connected, once.
      this.#connected.set(volumeId, Infinity)
      if (idleMs > SAMPLE_MS) continue
      const newest = await newestUnread(this.db, volumeId, new Date(now.getTime() - DAY_MS))
      if (!newest) continue
      await this.#check(newest, `Read a sample of the newest load, “${newest.label}”, on ${newest.volumeName}`, {
        ...{ how: 'start', seed: now.toISOString(), until: new Date(now.getTime() + SAMPLE_MS).toISOString() },
      })
      return
    }
  }

  #check(
    { loadId, volumeId, productionId }: { loadId: string; volumeId: string; productionId: string },
    title: string,
    how: Omit<TaskInput<'check'>, 'loadId' | 'volumeIds'>,
  ): Promise<void> {
    return this.order({
      ...{ kind: 'check', title, productionId, loadId, idempotencyKey: null },
      input: { loadId, volumeIds: [volumeId], ...how },
    })
  }
}
