import { randomUUID } from 'node:crypto'
import PgBoss from 'pg-boss'
import { TASK_KINDS, TASK_LINES, type TaskKind } from '../../contract/taskKinds'
import type { Db } from '../db/connection'
import { addTask, notify, setBossId, tellNews, type NewTask } from '../db/queries/tasks'
import { hostName } from '../home'

/** Files and pictures wait in different lines: a transcode must never hold up a copy. */
export const queueName = (line: (typeof TASK_LINES)[number], host: string): string => `${line}.${host}`

export async function openBoss(
  databaseUrl: string,
  onError: (error: Error) => void,
  /** For those who answer a person: longer than this no question waits. */
  timeoutMs?: number,
): Promise<PgBoss> {
  const patience = timeoutMs === undefined ? {} : { query_timeout: timeoutMs, connectionTimeoutMillis: timeoutMs }
  const boss = new PgBoss({ connectionString: databaseUrl, max: 4, ...patience })
  boss.on('error', onError)
  await boss.start()
  for (const line of TASK_LINES) await boss.createQueue(queueName(line, hostName()))
  return boss
}

/** Jobs are ours to take up again after a crash, so the queue itself never repeats them. */
const SEND = { retryLimit: 0, expireInHours: 23 } as const

/** Puts a task into its line again, under a name of its own there. */
export async function sendTask(db: Db, boss: PgBoss, task: Queued): Promise<void> {
  const bossId = randomUUID()
  await setBossId(db, task.id, bossId)
  await sendAs(db, boss, task, bossId)
}

type Queued = { readonly id: string; readonly kind: TaskKind; readonly host: string }

async function sendAs(db: Db, boss: PgBoss, task: Queued, bossId: string): Promise<void> {
  await boss.send(queueName(TASK_KINDS[task.kind].line, task.host), { taskId: task.id }, { ...SEND, id: bossId })
  // Whoever waits for work need not wait for the next time it asks.
  await notify(db, 'queued', { line: TASK_KINDS[task.kind].line })
}

/** Writes a task down and puts it into the line of the machine that has the files. Throws TaskOpen. */
export async function startTask<K extends TaskKind>(
  db: Db,
  boss: PgBoss,
  values: Omit<NewTask<K>, 'host' | 'bossId'>,
): Promise<string> {
  const [host, bossId] = [hostName(), randomUUID()]
  const { id, isNew } = await addTask(db, { ...values, host, bossId })
  if (isNew) await sendAs(db, boss, { id, kind: values.kind, host }, bossId)
  await tellNews(db, { kind: 'task', id })
  return id
}
