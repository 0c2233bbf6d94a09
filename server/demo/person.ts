import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { addressOf, type Endpoint, type Ordered, type Params } from '../../contract/endpoint'
import type { Problem } from '../../contract/problem'
import { tasksApi, type TaskState, type TaskView } from '../../contract/tasks'

const OPEN: readonly TaskState[] = ['queued', 'running', 'paused']
const PAUSE_MS = 300

/** Somebody who works with Yendra as a person does: over its own addresses, and never ahead of a real one. */
export class Person {
  constructor(
    /** `http://127.0.0.1:4600` */
    readonly base: string,
    readonly key: string | undefined,
  ) {}

  /** Asks or orders. Rejects with the sentence of the answer when it is refused. */
  async call<Path extends string, Body, Query, Answer>(
    endpoint: Endpoint<Path, Body, Query, Answer>,
    params: Params<Path>,
    { body, query }: { readonly body?: Body; readonly query?: Partial<Query> } = {},
  ): Promise<Answer> {
    const isAsking = endpoint.method === 'GET'
    const response = await fetch(`${this.base}${addressOf(endpoint, params, query)}`, {
      method: endpoint.method,
      headers: {
        ...this.#cookie(),
        ...(!isAsking && { 'Content-Type': 'application/json', 'Idempotency-Key': randomUUID() }),
      },
      ...(!isAsking && { body: JSON.stringify(body ?? {}) }),
    })
    if (response.status === 204) return undefined as Answer
    const answer: unknown = await response.json()
    if (!response.ok) throw new Error((answer as Problem).detail)
    return answer as Answer
  }

  /** Watches a film or takes a picture whole, as a browser does. */
  async watch(path: string): Promise<void> {
    await (await fetch(`${this.base}${path}`, { headers: this.#cookie() })).arrayBuffer()
  }

  /** Waits until nothing is being done: what anybody else orders comes first. */
  async patiently(): Promise<void> {
    while ((await this.call(tasksApi.recent, {})).some((task) => OPEN.includes(task.state))) await wait(PAUSE_MS)
  }

  /** Orders work when nothing else is under way, and waits for its end. Rejects with its sentence where it failed. */
  async work(order: () => Promise<Ordered>): Promise<TaskView> {
    await this.patiently()
    return this.ended((await order()).taskId)
  }

  /** Waits for the end of a task. Rejects with its sentence where it failed. */
  async ended(id: string): Promise<TaskView> {
    for (;;) {
      const task = await this.call(tasksApi.one, { id })
      if (task.state === 'done') return task
      if (!OPEN.includes(task.state)) throw new Error(task.sentence ?? `${task.title}: ${task.state}`)
      await wait(PAUSE_MS)
    }
  }

  #cookie(): Record<string, string> {
    return this.key === undefined ? {} : { Cookie: `yendra-key-${new URL(this.base).port}=${this.key}` }
  }
}
