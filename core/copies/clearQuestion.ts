import type { Compared, KnownHow } from '../cards/load/stay'
import type { PlacedDevice } from './device'
import type { CopyFacts } from './mark'
import type { ClearRule } from './rule'

export interface ClearQuestion {
  readonly copies: readonly CopyFacts[]
  /**
   * Other cards with the same content that nobody said were formatted; none where a backup card itself is asked about.
   */
  readonly backupCards: readonly CopyFacts[]
  /**
   * The backup card that is asked about, where it is not the load’s own card: what was copied was read from that one.
   */
  readonly askedBackupCard: CopyFacts | undefined
  /** Something was copied from a backup card: then that is not known to be what lies on the load’s own card. */
  readonly readFromBackupCard: boolean
  readonly rule: ClearRule
  /** Whether the person says they are at their own desk now. */
  readonly atHome: boolean
  readonly cardInReader: boolean
  /** How the card in the reader differs from what was scanned, in words; it may be another card of the same names. */
  readonly cardDifference: string | undefined
  /** How the card in the reader is known to be the one that was copied; `undefined` while none lies in a reader. */
  readonly cardKnown: CardKnown | undefined
  /** What the card stood on when it was last listed. */
  readonly cardStanding: PlacedDevice
  /** Pairs of volumes of which the person said that they are different drives. */
  readonly saidDifferent: readonly (readonly [string, string])[]
  /** Clips of the card that can be played here. */
  readonly clipsPlayable: number
  /** Files on the card that were not copied because they are neither file nor folder. */
  readonly filesLeftOut: number
  /** Findings of the card that are wrong and that nobody has settled. */
  readonly thingsWrong: number
  readonly formattedAt: string | undefined
  /** The reader in which it lies with all that was on it, though it was said to be formatted. */
  readonly saidButThere: string | undefined
  /** Since when these records are known to be older than what they wrote on a drive, as an ISO time. */
  readonly olderSince: string | undefined
  /** Milliseconds since 1970. */
  readonly now: number
  /** False when nobody could look at the card and the copies just now. */
  readonly looked: boolean
}

/** How a card is known in this stay in its reader. */
export interface CardKnown {
  readonly readerName: string
  readonly how: KnownHow | undefined
  /** Its latest comparison in this stay. */
  readonly compared: Compared | undefined
  /** Files on it were rewritten with their size and time kept. */
  readonly touched: boolean
  /** False where nothing tells when another card takes its place. */
  readonly swapsSeen: boolean
}

export interface Reason {
  readonly met: boolean
  readonly sentence: string
}

export interface ClearAnswer {
  readonly clear: boolean
  readonly sentence: string
  readonly reasons: readonly Reason[]
  readonly caution: string
  /** Volumes of which a sample must be read before the answer can be yes. */
  readonly sampleFirst: readonly string[]
}
