import type { Mark } from '../copies/mark'
import type { KnownPlace } from './known'

/** Everything the line needs to know of one production, counted. */
export interface ProductionFacts {
  readonly plan: {
    readonly cameras: number
    readonly sizeBytes: number
    readonly cards: number
    /** Cards in cameras that are too slow, or hold clips that are not safe. */
    readonly tooSlow: number
    readonly notClear: number
    /** Cards too few. */
    readonly missing: number
  }
  /** Cards that lie in a reader and have not been scanned since they were inserted. */
  readonly cardsWaiting: number
  /** Cards that are being scanned for the first time. */
  readonly cardsLooking: number
  readonly loads: readonly LoadFacts[]
  readonly proxies: {
    readonly wanted: number
    readonly made: number
    readonly failed: number
    /** Made before their sound was compared. */
    readonly unchecked: number
    /** Clips that are edited without a proxy; none of the other figures counts them. */
    readonly without: number
  }
  readonly storage: { readonly sizeBytes: number; readonly tightVolume: string | undefined }
  readonly exports: {
    readonly made: number
    readonly failed: number
    /** Pass every check, and no bag holds them. */
    readonly unshelved: number
  }
  readonly bags: {
    readonly written: number
    readonly verified: number
    /** Films whose bags lie on one drive. */
    readonly single: number
  }
  readonly review: {
    /** Somebody said of a take whether it is kept. */
    readonly decided: boolean
    /** Kept takes that were given a name, and those that were not. */
    readonly named: number
    readonly unnamed: number
    /** Takes that lie in the sorted view, and those that can be placed there now. */
    readonly placed: number
    readonly unplaced: number
  }
  /** Finished long ago: known from the records only, nothing is left to do. */
  readonly closed: boolean
  /** Where the bytes of such a production lie. */
  readonly known: readonly KnownPlace[]
  readonly shootOn: string | null
}

export interface LoadFacts {
  readonly id: string
  readonly label: string
  readonly clips: number
  readonly stops: number
  readonly questions: number
  /** The mark of its best copy, and of the second best on another drive. */
  readonly marks: readonly Mark[]
  /** Two copies are whole, and count as fewer for the drives that they lie on. */
  readonly oneDrive: boolean
  /** Two copies count only if a person says that they lie on different drives. */
  readonly perhapsOneDrive: boolean
  readonly clear: boolean
  readonly formatted: boolean
  /** Its card is in no reader, and was last seen with something that nobody scanned. */
  readonly unseen: boolean
  /** Its card lies in a reader, and files on it were rewritten since: only reading it whole tells what they are. */
  readonly touched: boolean
  /** Files of copies in which somebody found something wrong while playing. */
  readonly foundWrong: number
  /** Files of copies that are not as they were proved, on drives that hold the rest of the copy. */
  readonly amiss: number
  /** It is being scanned for the first time: nothing of it can be copied yet. */
  readonly looking: boolean
}
