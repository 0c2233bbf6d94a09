import type { Generated } from 'kysely'
import type { Algorithm } from '../../../core/copies/lists/algorithm'
import type { ListFinding } from '../../../core/copies/lists/finding'
import type { ListChecked } from '../../../core/copies/lists/verdict'
import type { Json, Now } from './columns'

export interface ListTables {
  /** How a folder stood against a checksum list, once; its id is that of the task. */
  listCheck: { id: string; folder: string; list: string; checked: Json<ListChecked>; endedAt: Now }
  /** What was found then, the gravest first. */
  listFinding: {
    id: Generated<string>
    checkId: string
    place: number
    kind: ListFinding
    pathText: string
    line: number | null
    detail: string
  }
  /** A list that was written beside a folder, or for download. */
  writtenList: {
    id: Generated<string>
    taskId: string
    folder: string
    algorithm: Algorithm
    lines: number
    path: string | null
    name: string
    /** Folder from which its names go. */
    checkedIn: string
    writtenAt: Now
  }
}
