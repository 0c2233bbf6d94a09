import type { Db } from '../db/connection'
import type { TaskControl } from './control'
import type { ProgressWriter } from './progress'

/** What every job gets. */
export interface Work {
  readonly db: Db
  readonly taskId: string
  readonly control: TaskControl
  readonly progress: ProgressWriter
}

/** How a job ended: a sentence for the person, and what they must look at. */
export interface WorkEnd {
  readonly sentence: string
  readonly troubles: readonly string[]
}

/** Something the person must put right first; its message is the sentence they read. */
export class CannotWork extends Error {}
