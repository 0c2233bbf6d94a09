import type { ColumnType, Generated, GeneratedAlways } from 'kysely'
import type { CopyPlan } from '../../../core/copies/plan'
import type { TaskKind } from '../../../contract/taskKinds'
import type { TaskOrder, TaskProgress, TaskState } from '../../../contract/tasks'
import type { Given, Json, JsonOrNull, Now } from './columns'

export interface TaskTables {
  /** What people changed, with the rows before and after it; read and written in `server/db/edits.ts` alone. */
  edit: {
    id: Generated<string>
    at: Now
    title: string
    turn: Given<number>
    undone: Given<boolean>
    rows: Json<object[]>
  }
  task: {
    id: Generated<string>
    kind: TaskKind
    state: TaskState
    title: string
    productionId: string | null
    loadId: string | null
    /** What it is done to; a subject has one open task of a kind at most. */
    subject: string
    idempotencyKey: string | null
    /** How many attempts ended with their worker. */
    died: Given<number>
    input: Json<object>
    progress: JsonOrNull<TaskProgress>
    sentence: string | null
    troubles: Json<string[]>
    host: string
    bossId: string | null
    createdAt: Now
    endedAt: Date | null
  }
  attempt: {
    id: Generated<string>
    taskId: string
    host: string
    startedAt: Now
    endedAt: Date | null
    how: string | null
    /** When its worker last said that it runs. */
    aliveAt: ColumnType<Date, Date | undefined, Date>
  }
  /** Copies that wait for those before them. */
  copyQueue: {
    loadId: string
    host: string
    volumeIds: Json<string[]>
    plan: JsonOrNull<CopyPlan>
    place: GeneratedAlways<number>
    orderId: Generated<string>
    orderedAt: Now
  }
  taskOrder: { id: GeneratedAlways<number>; taskId: string; taskOrder: TaskOrder; at: Now; obeyedAt: Date | null }
  toolChild: { attemptId: string; pid: number; startedTicks: string }
}
