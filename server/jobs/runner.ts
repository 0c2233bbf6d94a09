import type PgBoss from 'pg-boss'
import { TASK_KINDS, TASK_LINES, type TaskKind } from '../../contract/taskKinds'
import type { Db } from '../db/connection'
import { volumes } from '../db/queries/volumes'
import * as tasks from '../db/queries/tasks'
import { errorCode } from '../engine/medium/medium'
import { Stopped } from '../engine/tool/stopped'
import { endLeftover, ToolFailed } from '../engine/tool/tool'
import { toolLine } from '../../core/media/toolReason'
import { log } from '../log'
import { removeStaleParts } from '../media/attempts'
import { CannotWork } from '../media/cannotWork'
import { volumeMedium } from '../media/mediumOf'
import { Awake } from './awake'
import { TaskControl } from './control'
import { queueName, sendTask } from '../enqueue/enqueue'
import { ProgressWriter } from './progress'
import { JOBS } from './registry'
import type { Job, NextTask } from './work'

/** A task that ended its worker so many times is set aside, so that other work goes on. */
const MOST_DEATHS = 2

const STOPPED: tasks.TaskEnd = {
  state: 'stopped',
  sentence: 'Stopped. What was proved stays; nothing half-written has a name.',
  troubles: [],
}

type TaskRow = NonNullable<Awaited<ReturnType<typeof tasks.task>>>

/** What the runner needs of the program that it runs in. */
export interface RunnerProgram {
  /** Scans readers, drives and the mirrors of loads now, and writes down what is seen. */
  look(loadIds: readonly string[]): Promise<void>
  /** Puts a task that follows another into the line. */
  follow(task: NextTask): Promise<void>
  /** What happens when a task of a kind has ended, however it ended. */
  after(kind: TaskKind): Promise<void>
}

/** Runs the tasks of one machine, and takes up what an earlier worker left open. */
export class Runner {
  readonly #running = new Map<string, { readonly control: TaskControl; readonly attemptId: string }>()

  readonly #awake = new Awake()

  constructor(
    readonly db: Db,
    readonly host: string,
    readonly program: RunnerProgram,
  ) {}

  /** Passes on orders that were written down for a running task. */
  async obey(taskId: string): Promise<void> {
    const control = this.#running.get(taskId)?.control
    if (!control) return
    for (const order of await tasks.takeOrders(this.db, taskId)) control.obey(order)
  }

  async run(id: string): Promise<void> {
    const { db, host } = this
    const row = await tasks.task(db, id)
    if (!row || !['queued', 'running', 'paused'].includes(row.state) || this.#running.has(id)) return
    const { id: attemptId } = await tasks.addAttempt(db, id, host)
    const control = new TaskControl(({ pid, startedTicks }) => {
      void tasks.addToolChild(db, attemptId, pid, startedTicks).catch((error: unknown) => log.error(error, 'child'))
    })
    this.#running.set(id, { control, attemptId })
    const progress = new ProgressWriter(db, id)
    let how = 'ended'
    if (TASK_KINDS[row.kind].line === 'files') this.#awake.begin(id)
    try {
      if (row.state === 'paused') control.obey('pause')
      await this.obey(id)
      await tasks.setTaskState(db, id, 'running', ['queued'])
      await tasks.clearProgress(db, id)
      await tasks.tellNews(db, { kind: 'task', id })
      await control.gate()
      const input = TASK_KINDS[row.kind].input.cast(row.input)
      // The registry pairs each kind with the input that its schema gives.
      const job = JOBS[row.kind] as Job<TaskKind>
      const { next, ...end } = await job.run(
        { db, host, taskId: id, attemptId, control, progress, look: (ids) => this.program.look(ids) },
        input,
      )
      await progress.flush()
      await this.#look(row)
      await untilWritten(() => tasks.endTask(db, id, { state: 'done', ...end }))
      if (next) await this.program.follow(next).catch((error: unknown) => log.warn(error, 'next task'))
    } catch (error) {
      await progress.flush()
      how = error instanceof Stopped ? 'stopped' : 'failed'
      await this.#look(row)
      await untilWritten(() => tasks.endTask(db, id, endOf(error, id)))
    } finally {
      await untilWritten(() => tasks.endAttempt(db, attemptId, how))
      this.#running.delete(id)
      this.#awake.end(id)
      await untilWritten(() => tasks.tellNews(db, { kind: 'task', id }))
      await untilWritten(() => tasks.tellChanged(db, 'tasks', ...TASK_KINDS[row.kind].topics))
      await this.program.after(row.kind).catch((error: unknown) => log.warn(error, 'after a task'))
    }
  }

  /**
   * After a worker died: ends the programs that it left behind, removes the parts of its attempts, sets aside what
   * ended it twice, and puts everything else into the line again.
   */
  async takeUp(boss: PgBoss): Promise<void> {
    const { db, host } = this
    const dead = await tasks.openAttempts(db, host)
    for (const { id, children } of dead) {
      for (const child of children) endLeftover(child)
      await tasks.endAttempt(db, id, 'died')
    }
    await this.#cleanParts()
    const diedOf = new Set(dead.map((attempt) => attempt.taskId))
    for (const open of await tasks.openTasks(db, host)) {
      for (const line of TASK_LINES)
        if (open.bossId) await boss.cancel(queueName(line, open.host), open.bossId).catch(() => undefined)
      if (diedOf.has(open.id)) {
        if (await this.#isPoison(open)) continue
        await tasks.clearProgress(db, open.id)
      }
      await sendTask(db, boss, open)
    }
  }

  /**
   * Says which tasks it runs, and takes up what nobody runs: one whose worker could write nothing any more, or whose
   * wake-up was lost.
   */
  async turn(boss: PgBoss): Promise<void> {
    const { db, host } = this
    const own = [...this.#running.values()].map(({ attemptId }) => attemptId)
    if (own.length > 0) await tasks.attemptsAlive(db, own)
    for (const attempt of await tasks.openAttempts(db, host, true))
      if (!own.includes(attempt.id)) {
        for (const child of attempt.children) endLeftover(child)
        await tasks.endAttempt(db, attempt.id, 'lost')
      }
    for (const open of await tasks.openTasks(db, host)) {
      if (this.#running.has(open.id) || Date.now() - open.createdAt.getTime() < tasks.SILENT_MS) continue
      if (await isWaiting(boss, open)) continue
      log.warn({ task: open.id }, 'nobody ran this task: it is queued again')
      await sendTask(db, boss, open)
    }
  }

  async #isPoison(open: TaskRow): Promise<boolean> {
    const died = await tasks.countDied(this.db, open.id)
    if (died < MOST_DEATHS) return false
    const sentence =
      `Set aside: the work ended its worker ${died} times, so that nothing else could go on. What was ` +
      'proved stays. Try again when the drive and the card are connected well; if it happens again, ' +
      'leave this one out.'
    await tasks.endTask(this.db, open.id, { state: 'set-aside', sentence, troubles: [] })
    await tasks.tellNews(this.db, { kind: 'task', id: open.id })
    return true
  }

  async #look({ kind, loadId }: TaskRow): Promise<void> {
    if (TASK_KINDS[kind].line !== 'files') return
    await this.program.look(loadId ? [loadId] : []).catch((error: unknown) => log.warn(error, 'look'))
  }

  async #cleanParts(): Promise<void> {
    const live = await tasks.liveAttempts(this.db)
    for (const row of await volumes(this.db, this.host)) {
      const medium = await volumeMedium(this.db, row).catch(() => undefined)
      if (!medium) continue
      await removeStaleParts({ db: this.db, host: this.host, volumeId: row.id, medium, live }).catch((error: unknown) =>
        log.warn(error, 'parts'),
      )
    }
  }
}

/** Whether a task waits in the queue, or a worker has just taken it out. */
async function isWaiting(boss: PgBoss, { bossId, kind, host }: TaskRow): Promise<boolean> {
  if (!bossId) return false
  const job = await boss.getJobById(queueName(TASK_KINDS[kind].line, host), bossId).catch(() => null)
  return job !== null && ['created', 'retry', 'active'].includes(job.state)
}

const FIRST_PAUSE_MS = 500
const LONGEST_PAUSE_MS = 15_000

/** What must be written is tried until it is: a database that is full, or away, comes back. */
async function untilWritten(write: () => Promise<unknown>): Promise<void> {
  for (let pauseMs = FIRST_PAUSE_MS; ; pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS)) {
    try {
      await write()
      return
    } catch (error) {
      log.error(error, 'could not be written; it is tried again')
      await new Promise((resolve) => setTimeout(resolve, pauseMs))
    }
  }
}

/** Source: PostgreSQL documentation, appendix A: 53100 is disk_full. */
const isFull = (error: unknown): boolean => errorCode(error) === '53100'

const BOOKS_FULL =
  'The disk with Yendra’s records is full: nothing more could be written down. What was proved ' +
  'before stays. Make room on it, then try again.'

function endOf(error: unknown, taskId: string): tasks.TaskEnd {
  if (error instanceof Stopped) return STOPPED
  if (!(error instanceof CannotWork || error instanceof ToolFailed)) log.error({ error, task: taskId }, 'task failed')
  const sentence = isFull(error) ? BOOKS_FULL : error instanceof Error ? error.message : 'It failed and gave no reason.'
  const troubles = error instanceof ToolFailed ? error.lines.map((line) => toolLine(error.program, line)) : []
  return { state: 'failed', sentence, troubles }
}
