import type { TaskInput, TaskKind } from '../../contract/taskKinds'
import type { Db } from '../db/connection'
import type { NewTask } from '../db/queries/tasks'
import type { TaskControl } from './control'
import type { ProgressWriter } from './progress'

/** What every job gets. */
export interface Work {
  readonly db: Db
  readonly host: string
  readonly taskId: string
  /** Of this run of the task: parts belong to it, and proofs name it. */
  readonly attemptId: string
  readonly control: TaskControl
  readonly progress: ProgressWriter
  /** Scans readers, drives and the mirrors of loads now, and writes down what is seen. */
  readonly look: (loadIds: readonly string[]) => Promise<void>
}

/** How a job ended: a sentence for the person, and what they must look at. */
export interface WorkEnd {
  readonly sentence: string
  readonly troubles: readonly string[]
  /** A task that follows by itself, unless one like it is open. */
  readonly next?: NextTask
}

export type NextTask = Omit<NewTask<TaskKind>, 'host' | 'bossId'>

/** The work of one kind of task; everything else about the kind stands in the contract. */
export interface Job<K extends TaskKind> {
  readonly kind: K
  run(work: Work, input: TaskInput<K>): Promise<WorkEnd>
}
