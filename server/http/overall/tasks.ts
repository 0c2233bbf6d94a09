import { Router } from 'express'
import { TASK_ORDERS, tasksApi, type TaskOrder, type TaskState } from '../../../contract/tasks'
import {
  addOrder,
  endTask,
  isRun,
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
import { conflict, notFound } from '../problem'
import { serve } from '../route'

const CHANGES: Record<TaskOrder, { to: TaskState; from: TaskState[]; word: string }> = {
  pause: { to: 'paused', from: ['running'], word: 'paused' },
  resume: { to: 'running', from: ['paused'], word: 'resumed' },
  stop: { to: 'stopped', from: ['queued', 'running', 'paused'], word: 'stopped' },
}

/** Long work, and orders to it. */
export function taskRoutes({ db, boss }: Context): Router {
  const router = Router()

  serve(router, tasksApi.recent, async () => (await recentTasks(db, 30)).map(taskView))

  serve(router, tasksApi.one, async ({ params }) => taskView(await taskOf(params.id)))

  serve(router, tasksApi.again, async ({ params: { id } }) => {
    const row = await taskOf(id)
    const again = await tryAgain(db, id).catch((error: unknown) => {
      if (error instanceof TaskOpen) throw conflict('Another task does just this already. Wait for it.')
      throw error
    })
    if (!again) throw conflict(`This task is ${row.state} and cannot be tried again now.`)
    await sendTask(db, boss, row)
    await tellNews(db, { kind: 'task', id })
  })

  for (const order of TASK_ORDERS) {
    serve(router, tasksApi[order], async ({ params: { id } }) => {
      const row = await taskOf(id)
      const change = CHANGES[order]
      if (!change.from.includes(row.state))
        throw conflict(`This task is ${row.state} and cannot be ${change.word} now.`)
      // Written down first: a worker that is just being started again finds it.
      await addOrder(db, id, order)
      // A running task ends itself when it hears the order; one that waits is ended here.
      if (order === 'stop' && row.state === 'queued')
        await endTask(db, id, { state: 'stopped', sentence: 'Stopped before it began.', troubles: [] })
      else if (order === 'stop' && !(await isRun(db, id)))
        await endTask(db, id, {
          state: 'stopped',
          sentence: 'Stopped. Nobody was working on it any more.',
          troubles: [],
        })
      else if (order !== 'stop') await setTaskState(db, id, change.to, change.from)
      await tellNews(db, { kind: 'task', id })
    })
  }

  async function taskOf(id: string) {
    const row = await task(db, id)
    if (!row) throw notFound('That task')
    return row
  }

  return router
}
