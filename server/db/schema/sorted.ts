import type { GeneratedAlways } from 'kysely'
import type { SortSettings } from '../../../core/cards/review/sorted'
import type { Given, Json, Now } from './columns'

/** The sorted view of productions. */
export interface SortedTables {
  sortedView: { productionId: string; volumeId: string | null; settings: Json<SortSettings> }
  /** A file of the view as it was placed: bytes, and milliseconds of its last change. */
  sortedFile: {
    volumeId: string
    path: string
    productionId: string
    entryId: number
    sizeBytes: number
    modifiedMs: number
  }
  sortedChange: {
    id: GeneratedAlways<number>
    runId: string
    productionId: string
    volumeId: string
    kind: 'add' | 'move' | 'remove'
    path: string
    fromPath: string | null
    entryId: number
    at: Now
    undone: Given<boolean>
  }
}
