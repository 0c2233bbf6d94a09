import pg from 'pg'
import type PgBoss from 'pg-boss'
import type { TaskKind, TaskOrder, Topic } from '../../contract/tasks'
import { openDatabase, type Db } from '../db/connection'
import {
  endTask,
  openTasks,
  ORDER_CHANNEL,
  setTaskState,
  task as taskRow,
  tellChanged,
  tellNews,
} from '../db/queries/tasks'
import { Stopped } from '../engine/stopped'
import { ToolFailed } from '../engine/tool'
import { databaseUrl, hostName } from '../home'
import { log } from '../log'
import { bag } from './bag'
import { TaskControl } from './control'
import { copy } from './copy'
import { ProgressWriter } from './progress'
import { proxy } from './proxy'
import { openBoss, queueName, sendTask } from './queue'
import { render } from './render'
import { scan } from './scan'
import { CannotWork, type Work, type WorkEnd } from './work'

// The shape of a task's input is what the route that started it validated.
const JOBS: Record<TaskKind, (work: Work, input: never) => Promise<WorkEnd>> = { scan, copy, proxy, render, bag }

const TOPICS: Record<TaskKind, Topic[]> = {
  scan: ['cards', 'productions', 'copies'],
  copy: ['copies', 'productions', 'storage', 'proxies', 'exports', 'bench'],
  proxy: ['proxies', 'productions', 'storage'],
  render: ['exports', 'productions', 'storage'],
  bag: ['shelf', 'productions', 'storage'],
}

/** How many tasks of each line run side by side; a paused one keeps its place. */
const AT_ONCE = { files: 3, pictures: 2 } as const

const running = new Map<string, TaskControl>()

async function runTask(db: Db, id: string): Promise<void> {
  const row = await taskRow(db, id)
  if (!row || !['queued', 'running', 'paused'].includes(row.state)) return
  const control = new TaskControl()
  running.set(id, control)
  const progress = new ProgressWriter(db, id)
  try {
    if (row.state === 'paused') control.obey('pause')
    await setTaskState(db, id, 'running', ['queued'])
    await tellNews(db, { kind: 'task', id })
    await control.gate()
    const end = await JOBS[row.kind]({ db, taskId: id, control, progress }, row.input as never)
    await progress.flush()
    await endTask(db, id, { state: 'done', ...end })
  } catch (error) {
    await progress.flush()
    if (error instanceof Stopped) {
      await endTask(db, id, {
        state: 'stopped',
        sentence: 'Stopped. What was proved stays; nothing half-written has a name.',
        troubles: [],
      })
    } else {
      const known = error instanceof CannotWork || error instanceof ToolFailed
      if (!known) log.error({ error, task: id }, 'task failed')
      await endTask(db, id, {
        state: 'failed',
        sentence: error instanceof Error ? error.message : 'It failed without a word.',
        troubles: [],
      })
    }
  } finally {
    running.delete(id)
    await tellNews(db, { kind: 'task', id })
    await tellChanged(db, 'tasks', ...TOPICS[row.kind])
  }
}

/** Orders reach a worker through PostgreSQL, so that they find it on whatever machine it runs. */
async function listenForOrders(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url })
  client.on('error', (error) => leave(error))
  await client.connect()
  client.on('notification', ({ payload }) => {
    const { taskId, order } = JSON.parse(payload ?? '{}') as { taskId: string; order: TaskOrder }
    running.get(taskId)?.obey(order)
  })
  await client.query(`listen ${ORDER_CHANNEL}`)
  return client
}

/** Takes up what an earlier worker of this machine left open when it was killed. */
async function takeUpOpenTasks(db: Db, boss: PgBoss): Promise<void> {
  for (const open of await openTasks(db, hostName())) {
    for (const line of ['files', 'pictures'] as const)
      if (open.bossId) await boss.cancel(queueName(line, open.host), open.bossId).catch(() => undefined)
    await sendTask(db, boss, open)
  }
}

const leave = (error: Error) => {
  log.error(error, 'worker leaves')
  process.exit(1)
}

const url = databaseUrl()
const db = await openDatabase(url)
const boss = await openBoss(url, (error) => log.error(error, 'queue'))
const orders = await listenForOrders(url)
await takeUpOpenTasks(db, boss)
for (const line of ['files', 'pictures'] as const) {
  for (let lane = 0; lane < AT_ONCE[line]; lane += 1) {
    await boss.work<{ taskId: string }>(queueName(line, hostName()), { pollingIntervalSeconds: 0.5 }, async ([job]) => {
      if (job) await runTask(db, job.data.taskId)
    })
  }
}
process.send?.('ready')

const stop = async () => {
  await Promise.race([
    Promise.all([boss.stop({ graceful: false }), orders.end(), db.destroy()]),
    new Promise((resolve) => setTimeout(resolve, 1500)),
  ])
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
// Ctrl-C reaches the whole group; the start command decides when to end us.
process.on('SIGINT', () => undefined)
process.on('disconnect', () => void stop())
