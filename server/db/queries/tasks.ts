import { sql } from 'kysely'
import type {
  ServerEvent,
  TaskKind,
  TaskOrder,
  TaskProgress,
  TaskState,
  TaskView,
  Topic,
} from '../../../contract/tasks'
import type { Db } from '../connection'

/** Channels of PostgreSQL's LISTEN and NOTIFY: news for browsers, orders for workers. */
export const NEWS_CHANNEL = 'yendra_news'
export const ORDER_CHANNEL = 'yendra_orders'

const notify = (db: Db, channel: string, message: object) =>
  sql`select pg_notify(${channel}, ${JSON.stringify(message)})`.execute(db)

export type News = { readonly kind: 'task'; readonly id: string } | Extract<ServerEvent, { kind: 'changed' }>

export const tellNews = (db: Db, news: News) => notify(db, NEWS_CHANNEL, news)
export const tellChanged = (db: Db, ...topics: Topic[]) => tellNews(db, { kind: 'changed', topics })
export const tellOrder = (db: Db, taskId: string, order: TaskOrder) => notify(db, ORDER_CHANNEL, { taskId, order })

export interface NewTask {
  readonly kind: TaskKind
  readonly title: string
  readonly productionId: string | null
  readonly loadId: string | null
  readonly input: object
  readonly host: string
}

export const addTask = (db: Db, task: NewTask) =>
  db
    .insertInto('task')
    .values({ ...task, input: JSON.stringify(task.input), state: 'queued', troubles: '[]' })
    .returning('id')
    .executeTakeFirstOrThrow()

export const task = (db: Db, id: string) => db.selectFrom('task').selectAll().where('id', '=', id).executeTakeFirst()

const OPEN: TaskState[] = ['queued', 'running', 'paused']

/** Tasks of one machine that are not at their end: after a crash these are taken up again. */
export const openTasks = (db: Db, host: string) =>
  db.selectFrom('task').selectAll().where('host', '=', host).where('state', 'in', OPEN).orderBy('createdAt').execute()

/** An open task of the same kind for the same load, if there is one. */
export const openTaskOf = (db: Db, kind: TaskKind, loadId: string) =>
  db
    .selectFrom('task')
    .select('id')
    .where('kind', '=', kind)
    .where('loadId', '=', loadId)
    .where('state', 'in', OPEN)
    .executeTakeFirst()

/** What the person sees: everything under way, and what ended lately. */
export const recentTasks = (db: Db, limit: number) =>
  db
    .selectFrom('task')
    .selectAll()
    .orderBy(sql`state in ('queued', 'running', 'paused')`, 'desc')
    .orderBy('createdAt', 'desc')
    .limit(limit)
    .execute()

export const setTaskState = async (db: Db, id: string, state: TaskState, from: readonly TaskState[]) =>
  (await db
    .updateTable('task')
    .set({ state })
    .where('id', '=', id)
    .where('state', 'in', [...from])
    .returning('id')
    .executeTakeFirst()) !== undefined

export const setBossId = (db: Db, id: string, bossId: string) =>
  db.updateTable('task').set({ bossId }).where('id', '=', id).execute()

export const setProgress = (db: Db, id: string, progress: TaskProgress) =>
  db
    .updateTable('task')
    .set({ progress: JSON.stringify(progress) })
    .where('id', '=', id)
    .execute()

export const endTask = (
  db: Db,
  id: string,
  end: { state: 'done' | 'failed' | 'stopped'; sentence: string; troubles: readonly string[] },
) =>
  db
    .updateTable('task')
    .set({ state: end.state, sentence: end.sentence, troubles: JSON.stringify(end.troubles), endedAt: new Date() })
    .where('id', '=', id)
    .execute()

type TaskRow = NonNullable<Awaited<ReturnType<typeof task>>>

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
