import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Db } from '../../server/db/connection'
import { addLoad } from '../../server/db/queries/cards'
import { addProduction } from '../../server/db/queries/productions'
import { addReader } from '../../server/db/queries/readers'
import * as tasks from '../../server/db/queries/tasks'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
let db: Db

beforeAll(async () => {
  cluster = await testCluster()
  db = await cluster.open('yendra_tasks')
})
afterAll(async () => {
  await db.destroy()
  await cluster.stop()
})

async function newLoad() {
  const made = await addProduction(db, { title: `Steam-bending ribs ${randomUUID()}` })
  if (!made) throw new Error('no production')
  const reader = await addReader(db, { name: randomUUID(), rootPath: null, simulated: false, host: 'here' })
  const sums = { readerId: reader.id, fileCount: 2, sizeBytes: 300, leftOut: 0 }
  const { id: loadId } = await addLoad(db, { productionId: made.id, label: 'Curlew A', ...sums })
  return { loadId }
}

describe('tasks', () => {
  const copyOf = (loadId: string, key: string | null = null) => ({
    kind: 'copy' as const,
    title: 'Copy',
    productionId: null,
    loadId,
    input: { loadId, volumeIds: [randomUUID()], setAside: false },
    host: 'here',
    bossId: randomUUID(),
    idempotencyKey: key,
  })

  it('are open until they end, one of a kind for each subject', async () => {
    const { loadId } = await newLoad()
    const { id } = await tasks.addTask(db, copyOf(loadId))
    await expect(tasks.addTask(db, copyOf(loadId))).rejects.toBeInstanceOf(tasks.TaskOpen)
    expect((await tasks.openTasks(db, 'here')).map((open) => open.id)).toContain(id)
    expect(await tasks.openTasks(db, 'elsewhere')).toEqual([])
    expect(await tasks.setTaskState(db, id, 'paused', ['running'])).toBe(false)
    expect(await tasks.setTaskState(db, id, 'running', ['queued'])).toBe(true)
    expect(await tasks.endTask(db, id, { state: 'done', sentence: 'All proved.', troubles: ['one'] })).toBe(true)
    expect(await tasks.endTask(db, id, { state: 'failed', sentence: 'Late.', troubles: [] })).toBe(false)
    const row = await tasks.task(db, id)
    expect(row && tasks.taskView(row)).toMatchObject({ state: 'done', sentence: 'All proved.', troubles: ['one'] })
    expect((await tasks.addTask(db, copyOf(loadId))).isNew).toBe(true)
  })

  it('are one task when the same order is sent twice, also after it ended', async () => {
    const { loadId } = await newLoad()
    const first = await tasks.addTask(db, copyOf(loadId, 'press 1'))
    expect(await tasks.addTask(db, copyOf(loadId, 'press 1'))).toEqual({ id: first.id, isNew: false })
    await tasks.endTask(db, first.id, { state: 'done', sentence: '', troubles: [] })
    expect(await tasks.addTask(db, copyOf(loadId, 'press 1'))).toEqual({ id: first.id, isNew: false })
  })

  it('keep what is running in sight, however much waits or ended since', async () => {
    const { loadId } = await newLoad()
    const { id } = await tasks.addTask(db, copyOf(loadId))
    await tasks.setTaskState(db, id, 'running', ['queued'])
    for (let at = 0; at < 40; at += 1) {
      const made = await tasks.addTask(db, copyOf((await newLoad()).loadId))
      if (at % 2 === 0) await tasks.endTask(db, made.id, { state: 'done', sentence: '', troubles: [] })
    }
    expect((await tasks.recentTasks(db, 30)).map((row) => row.id)).toContain(id)
  })

  it('find an order that was given while nobody worked', async () => {
    const { loadId } = await newLoad()
    const { id } = await tasks.addTask(db, copyOf(loadId))
    await tasks.addOrder(db, id, 'pause')
    await tasks.addOrder(db, id, 'stop')
    expect(await tasks.takeOrders(db, id)).toEqual(['pause', 'stop'])
    expect(await tasks.takeOrders(db, id)).toEqual([])
  })
})
