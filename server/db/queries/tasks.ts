import { isTaken } from '../taken'
import { sql } from 'kysely'
import { TASK_KINDS, type TaskInput, type TaskKind } from '../../../contract/taskKinds'
import type { ServerEvent, TaskOrder, TaskProgress, TaskState, TaskView } from '../../../contract/tasks'
import type { Topic } from '../../../contract/topics'
import type { Db } from '../connection'

/**
 * Channels of PostgreSQL's LISTEN and NOTIFY: news for browsers, orders for workers, questions to the observer and its
 * answers.
 */
export const CHANNELS = {
  news: 'yendra_news',
  orders: 'yendra_orders',
  look: 'yendra_look',
  looked: 'yendra_looked',
  queued: 'yendra_queued',
} as const

/** Sends a message to those who listen on a channel, when the transaction ends. */
export const notify = (db: Db, channel: keyof typeof CHANNELS, message: object) =>
  sql`select pg_notify(${CHANNELS[channel]}, ${JSON.stringify(message)})`.execute(db)

/** What browsers are told. */
export type News = { readonly kind: 'task'; readonly id: string } | Extract<ServerEvent, { kind: 'changed' }>

/** Tells browsers something. */
export const tellNews = (db: Db, news: News) => notify(db, 'news', news)
/** Tells browsers which topics to ask again. */
export const tellChanged = (db: Db, ...topics: Topic[]) => tellNews(db, { kind: 'changed', topics })

/** A task as it was ordered. */
export interface NewTask<K extends TaskKind = TaskKind> {
  readonly kind: K
  readonly title: string
  readonly productionId: string | null
  readonly loadId: string | null
  readonly input: TaskInput<K>
  readonly host: string
  /** Its name in the line that it waits in. */
  readonly bossId: string
  /** From the browser: an order that is sent twice is one task. */
  readonly idempotencyKey: string | null
}

/** An open task of the kind and subject stands in the way. */
export class TaskOpen extends Error {}

/**
 * Writes a task down. A key that was used before gives the task that it made; a subject that has an open task of the
 * kind already is refused by the database, so that two orders at once cannot both be taken. Throws TaskOpen.
 */
export async function addTask<K extends TaskKind>(db: Db, task: NewTask<K>): Promise<{ id: string; isNew: boolean }> {
  const before = task.idempotencyKey && (await taskByKey(db, task.idempotencyKey))
  if (before) return { id: before.id, isNew: false }
  const subject = TASK_KINDS[task.kind].subject(task.input as never)
  const made = await db
    .insertInto('task')
    .values({ ...task, subject, input: JSON.stringify(task.input), state: 'queued', troubles: '[]' })
    .onConflict((at) => at.doNothing())
    .returning('id')
    .executeTakeFirst()
  if (made) return { id: made.id, isNew: true }
  const earlier = task.idempotencyKey && (await taskByKey(db, task.idempotencyKey))
  if (earlier) return { id: earlier.id, isNew: false }
  throw new TaskOpen()
}

const taskByKey = (db: Db, key: string) =>
  db.selectFrom('task').select('id').where('idempotencyKey', '=', key).executeTakeFirst()

/** A task; `undefined` when there is none. */
export const task = (db: Db, id: string) => db.selectFrom('task').selectAll().where('id', '=', id).executeTakeFirst()

const OPEN: TaskState[] = ['queued', 'running', 'paused']

/** Tasks of one machine that are not at their end: after a crash these are taken up again. */
export const openTasks = (db: Db, host: string) =>
  db.selectFrom('task').selectAll().where('host', '=', host).where('state', 'in', OPEN).orderBy('createdAt').execute()

/** What the person sees: what is under way first, then what waits, then what ended lately; each up to a number. */
export async function recentTasks(db: Db, limit: number) {
  const of = (states: readonly TaskState[]) =>
    db
      .selectFrom('task')
      .selectAll()
      .where('state', 'in', [...states])
      .orderBy('createdAt', 'desc')
      .limit(limit)
      .execute()
  const [active, waiting, ended] = await Promise.all([
    of(['running', 'paused']),
    of(['queued']),
    of(['done', 'failed', 'stopped', 'set-aside']),
  ])
  return [...active, ...waiting, ...ended]
}

/** Changes a task’s state if it is in one of the expected ones; false when it was not. */
export const setTaskState = async (db: Db, id: string, state: TaskState, from: readonly TaskState[]) =>
  (await db
    .updateTable('task')
    .set({ state })
    .where('id', '=', id)
    .where('state', 'in', [...from])
    .returning('id')
    .executeTakeFirst()) !== undefined

/** Remembers the queue’s own name for a task, to take it out again. */
export const setBossId = (db: Db, id: string, bossId: string) =>
  db.updateTable('task').set({ bossId }).where('id', '=', id).execute()

/** How far a task is. */
export const setProgress = (db: Db, id: string, progress: TaskProgress) =>
  db
    .updateTable('task')
    .set({ progress: JSON.stringify(progress) })
    .where('id', '=', id)
    .execute()

/** What an earlier attempt came to says nothing of this one. */
export const clearProgress = (db: Db, id: string) =>
  db.updateTable('task').set({ progress: null }).where('id', '=', id).execute()

/** How a task ended. */
export interface TaskEnd {
  readonly state: 'done' | 'failed' | 'stopped' | 'set-aside'
  readonly sentence: string
  readonly troubles: readonly string[]
}

/** Ends an open task; false when it has ended already. */
export const endTask = async (db: Db, id: string, end: TaskEnd): Promise<boolean> =>
  (await db
    .updateTable('task')
    .set({ state: end.state, sentence: end.sentence, troubles: JSON.stringify(end.troubles), endedAt: new Date() })
    .where('id', '=', id)
    .where('state', 'in', OPEN)
    .returning('id')
    .executeTakeFirst()) !== undefined

/** Puts an ended task into the line once more. Throws TaskOpen when its subject has another open one. */
export async function tryAgain(db: Db, id: string): Promise<boolean> {
  try {
    const row = await db
      .updateTable('task')
      .set({ state: 'queued', died: 0, sentence: null, troubles: '[]', progress: null, endedAt: null })
      .where('id', '=', id)
      .where('state', 'in', ['failed', 'stopped', 'set-aside'])
      .returning('id')
      .executeTakeFirst()
    return row !== undefined
  } catch (error) {
    if (isTaken(error)) throw new TaskOpen()
    throw error
  }
}

/** Writes an order down for whoever runs the task, now or after a restart. */
export async function addOrder(db: Db, taskId: string, order: TaskOrder): Promise<void> {
  await db.insertInto('taskOrder').values({ taskId, taskOrder: order }).execute()
  await notify(db, 'orders', { taskId })
}

/** Orders that nobody has obeyed yet, oldest first; they count as obeyed from now on. */
export const takeOrders = async (db: Db, taskId: string): Promise<TaskOrder[]> =>
  (
    await db
      .updateTable('taskOrder')
      .set({ obeyedAt: new Date() })
      .where('taskId', '=', taskId)
      .where('obeyedAt', 'is', null)
      .returning(['id', 'taskOrder'])
      .execute()
  )
    .sort((a, b) => a.id - b.id)
    .map((row) => row.taskOrder)

/** A run of a task begins; returns its id. */
export const addAttempt = (db: Db, taskId: string, host: string) =>
  db.insertInto('attempt').values({ taskId, host }).returning('id').executeTakeFirstOrThrow()

/** A run of a task ended, and how. */
export const endAttempt = (db: Db, id: string, how: string) =>
  db.updateTable('attempt').set({ endedAt: new Date(), how }).where('id', '=', id).execute()

/** These runs are under way. */
export const attemptsAlive = (db: Db, ids: readonly string[]) =>
  db
    .updateTable('attempt')
    .set({ aliveAt: sql<Date>`clock_timestamp()` })
    .where('id', 'in', [...ids])
    .execute()

/** A worker says every quarter of a minute which tasks it runs; after a minute without a word nobody runs it. */
export const SILENT_MS = 60_000

/** Whether a worker said lately that it runs a task. */
export const isRun = async (db: Db, taskId: string): Promise<boolean> => {
  const { rows } = await sql<{ alive: boolean }>`
    select exists (select 1 from attempt where task_id = ${taskId} and ended_at is null
      and alive_at > clock_timestamp() - make_interval(secs => ${SILENT_MS / 1000})) as alive`.execute(db)
  return rows[0]?.alive === true
}

/** Attempts of a machine that a dead worker left open, with the programs it had started. */
export async function openAttempts(db: Db, host: string, silent = false) {
  const attempts = await db
    .selectFrom('attempt')
    .select(['id', 'taskId'])
    .where('host', '=', host)
    .where('endedAt', 'is', null)
    .$if(silent, (open) =>
      open.where('aliveAt', '<', sql<Date>`clock_timestamp() - make_interval(secs => ${SILENT_MS / 1000})`),
    )
    .execute()
  const children = await db
    .selectFrom('toolChild')
    .selectAll()
    .where('attemptId', 'in', (from) =>
      from.selectFrom('attempt').select('id').where('host', '=', host).where('endedAt', 'is', null),
    )
    .execute()
  return attempts.map((attempt) => ({
    ...attempt,
    children: children.filter((child) => child.attemptId === attempt.id),
  }))
}

/** Ids of all attempts that are under way on any machine: their parts are not to be touched. */
export const liveAttempts = async (db: Db): Promise<Set<string>> =>
  new Set((await db.selectFrom('attempt').select('id').where('endedAt', 'is', null).execute()).map((row) => row.id))

/** A program that a run started, to be ended when its worker dies. */
export const addToolChild = (db: Db, attemptId: string, pid: number, startedTicks: string) =>
  db
    .insertInto('toolChild')
    .values({ attemptId, pid, startedTicks })
    .onConflict((at) => at.doNothing())
    .execute()

/** Counts that an attempt ended with its worker; how many of this task did so by now. */
export const countDied = async (db: Db, id: string): Promise<number> =>
  (
    await db
      .updateTable('task')
      .set({ died: sql<number>`died + 1` })
      .where('id', '=', id)
      .returning('died')
      .executeTakeFirst()
  )?.died ?? 0

/** Readers whose card is being scanned, or waits to be, and since when. */
export const readersScanned = async (db: Db): Promise<Map<string, Date>> =>
  new Map(
    (
      await db
        .selectFrom('task')
        .select(['subject', 'createdAt'])
        .where('kind', '=', 'scan')
        .where('state', 'in', ['queued', 'running', 'paused'])
        .execute()
    ).map((row) => [row.subject, row.createdAt]),
  )

type TaskRow = NonNullable<Awaited<ReturnType<typeof task>>>

/** A task as pages show it. */
export const taskView = (row: TaskRow): TaskView => ({
  id: row.id,
  kind: row.kind,
  state: row.state,
  title: row.title,
  productionId: row.productionId,
  loadId: row.loadId,
  progress: row.progress,
  sentence: row.sentence,
  troubles: row.troubles,
  createdAt: row.createdAt.toISOString(),
  endedAt: row.endedAt?.toISOString() ?? null,
})
