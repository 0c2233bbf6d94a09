import PgBoss from 'pg-boss'
import type { TaskKind } from '../../contract/tasks'
import type { Db } from '../db/connection'
import { addTask, setBossId, tellNews, type NewTask } from '../db/queries/tasks'
import { hostName } from '../home'

/** Files and pictures wait in different lines: a transcode must never hold up a copy. */
const LINE_OF: Record<TaskKind, 'files' | 'pictures'> = {
  scan: 'files',
  copy: 'files',
  bag: 'files',
  proxy: 'pictures',
  render: 'pictures',
}

export const queueName = (line: 'files' | 'pictures', host: string): string => `${line}.${host}`

export async function openBoss(databaseUrl: string, onError: (error: Error) => void): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: databaseUrl, max: 4 })
  boss.on('error', onError)
  await boss.start()
  for (const line of ['files', 'pictures'] as const) await boss.createQueue(queueName(line, hostName()))
  return boss
}

/** Jobs are ours to take up again after a crash, so the queue itself never repeats them. */
const SEND = { retryLimit: 0, expireInHours: 23 } as const

export async function sendTask(
  db: Db,
  boss: PgBoss,
  task: { id: string; kind: TaskKind; host: string },
): Promise<void> {
  const bossId = await boss.send(queueName(LINE_OF[task.kind], task.host), { taskId: task.id }, SEND)
  if (bossId) await setBossId(db, task.id, bossId)
}

/** Writes a task down and puts it into the line of the machine that has the files. */
export async function startTask(db: Db, boss: PgBoss, values: Omit<NewTask, 'host'>): Promise<string> {
  const host = hostName()
  const { id } = await addTask(db, { ...values, host })
  await sendTask(db, boss, { id, kind: values.kind, host })
  await tellNews(db, { kind: 'task', id })
  return id
}
