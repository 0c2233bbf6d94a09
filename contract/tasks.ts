import type { TaskKind } from './taskKinds'
import type { Topic } from './topics'
import { ask, order } from './endpoint'

export type TaskState = 'queued' | 'running' | 'paused' | 'done' | 'failed' | 'stopped' | 'set-aside'
/** What a person can order of a task that is under way. */
export const TASK_ORDERS = ['pause', 'resume', 'stop'] as const
export type TaskOrder = (typeof TASK_ORDERS)[number]

/** How far a task is. Units are bytes for copies and bags, frames for transcodes, files for scans. */
export interface TaskProgress {
  readonly done: number
  readonly total: number
  readonly unit: 'bytes' | 'frames' | 'files'
  /** Units in a second over the last few seconds. */
  readonly perSecond: number
  /** For copies: what each volume has written and proved. */
  readonly volumes?: readonly {
    readonly volumeId: string
    readonly name: string
    readonly written: number
    readonly proved: number
    readonly total: number
    readonly failed?: string
  }[]
}

/** A piece of long work: how far it is, and the sentence with which it ended. */
export interface TaskView {
  readonly id: string
  readonly kind: TaskKind
  readonly state: TaskState
  readonly title: string
  readonly productionId: string | null
  readonly loadId: string | null
  readonly progress: TaskProgress | null
  /** How it ended, in one sentence. */
  readonly sentence: string | null
  readonly troubles: readonly string[]
  readonly createdAt: string
  readonly endedAt: string | null
}

/** Says with every answer how much news there was before it was read. */
export const NEWS_HEADER = 'Yendra-News'

/**
 * Sent over `/api/events`. `began` comes first and says how much news there was before; `changed` names the queries to
 * ask again.
 */
export type ServerEvent =
  | { readonly kind: 'began'; readonly news: string }
  | { readonly kind: 'task'; readonly task: TaskView }
  | { readonly kind: 'changed'; readonly topics: readonly Topic[] }

/** Long work. 404 for a task that is not known; 409 where an order comes too late. */
export const tasksApi = {
  /** Everything under way, and what ended last. */
  recent: ask<readonly TaskView[]>()('tasks', '/tasks'),
  one: ask<TaskView>()('tasks', '/tasks/:id'),
  pause: order()('POST', '/tasks/:id/pause', { changes: ['tasks'] }),
  resume: order()('POST', '/tasks/:id/resume', { changes: ['tasks'] }),
  stop: order()('POST', '/tasks/:id/stop', { changes: ['tasks'] }),
  /** Tries a task again that failed or was set aside. */
  again: order()('POST', '/tasks/:id/again', { changes: ['tasks'] }),
}
