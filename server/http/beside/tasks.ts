import { Router } from 'express'
import { TASK_ORDERS, type TaskOrder, type TaskState } from '../../../contract/tasks'
import {
  addOrder,
  endTask,
  recentTasks,
  setTaskState,
  task,
  TaskOpen,
  taskView,
  tellNews,
  tryAgain,
} from '../../db/queries/tasks'
import { sendTask } from '../../enqueue/enqueue'
import type { Context } from '../context'
import { conflict, idOf, notFound } from '../problem'

const CHANGES: Record<TaskOrder, { to: TaskState; from: TaskState[]; word: string }> = {
  pause: { to: 'paused', from: ['running'], word: 'paused' },
  resume: { to: 'running', from: ['paused'], word: 'resumed' },
  stop: { to: 'stopped', from: ['queued', 'running', 'paused'], word: 'stopped' },
}

const isOrder = (text: unknown): text is TaskOrder => TASK_ORDERS.some((order) => order === text)

export function taskRoutes({ db, boss }: Context): Router {
  const router = Router()

  router.get('/tasks', async (_req, res) => {
    res.json((await recentTasks(db, 30)).map(taskView))
  })

  router.get('/tasks/:id', async (req, res) => {
    const row = await task(db, idOf(req))
    if (!row) throw notFound('That task')
    res.json(taskView(row))
  })

  router.post('/tasks/:id/again', async (req, res) => {
    const id = idOf(req)
    const row = await task(db, id)
    if (!row) throw notFound('That task')
    const again = await tryAgain(db, id).catch((error: unknown) => {
      if (error instanceof TaskOpen) throw conflict('Another task does just this already. Wait for it.')
      throw error
    })
    if (!again) throw conflict(`This task is ${row.state} and cannot be tried again now.`)
    await sendTask(db, boss, row)
    await tellNews(db, { kind: 'task', id })
    res.status(204).end()
  })

  router.post('/tasks/:id/:order', async (req, res) => {
    const id = idOf(req)
    const { order } = req.params
    const row = await task(db, id)
    if (!row || !isOrder(order)) throw notFound('That task')
    const change = CHANGES[order]
    if (!change.from.includes(row.state)) throw conflict(`This task is ${row.state} and cannot be ${change.word} now.`)
    // Written down first: a worker that is just being started again finds it.
    await addOrder(db, id, order)
    // A running task ends itself when it hears the order; one that waits is ended here.
    if (order === 'stop' && row.state === 'queued')
      await endTask(db, id, { state: 'stopped', sentence: 'Stopped before it began.', troubles: [] })
    else if (order !== 'stop') await setTaskState(db, id, change.to, change.from)
    await tellNews(db, { kind: 'task', id })
    res.status(204).end()
  })

  return router
}
