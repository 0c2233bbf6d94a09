import type { DeviceIdentity } from './device'
import type { Medium, SiteKind } from './medium'

/**
 * How far a copy of a load has come on one volume: 0 planned, 1 copied, 2 verified (every file read back from the
 * medium and equal), 3 spot-played.
 */
export type Mark = 0 | 1 | 2 | 3

export const MARK_WORDS: readonly [string, string, string, string] = ['planned', 'copied', 'verified', 'spot-played']

/**
 * The facts known of one load on one volume. Counts are files on the card; only the latest proof and listing of a file
 * count.
 */
export interface CopyFacts {
  readonly volumeId: string
  readonly volumeName: string
  readonly site: string
  /** `undefined` where nobody has said. */
  readonly siteKind: SiteKind | undefined
  /** `undefined` where nobody knows. */
  readonly medium: Medium | undefined
  readonly connected: boolean
  readonly device: DeviceIdentity | undefined
  readonly filesWanted: number
  /** Proved equal, in whatever way. */
  readonly filesCopied: number
  /** Read back from the medium and equal to the source. */
  readonly filesVerified: number
  /** Read back and equal, but the answer may have come from memory. */
  readonly filesVerifiedFromCache: number
  readonly filesMismatched: number
  readonly filesInConflict: number
  /** Proved once, and listed no more, or with another size or time. */
  readonly filesMissing: number
  /** Of the size and time that were proved, and perhaps replaced all the same; they are read again by themselves. */
  readonly filesDoubted: number
  readonly doubtedBytes: number
  /** Places inside it where other file systems are mounted: what lies there is no part of it. */
  readonly mounted: readonly string[]
  /** Its folder is gone from the volume, though the volume is connected. */
  readonly mirrorLost: boolean
  readonly sizeBytes: number
  /** The oldest and the newest proof that stands, as ISO times. */
  readonly firstVerifiedAt: string | undefined
  readonly lastVerifiedAt: string | undefined
  /** When a whole reading or a sample of it was last found equal, as an ISO time. */
  readonly readAgainAt: string | undefined
  /** When the volume last listed it. */
  readonly seenAt: string | undefined
  readonly spotPlayedAt: string | undefined
  /** Within how many days every file on its volume is to be read again. */
  readonly cycleDays: number
  /** What somebody found wrong with it while playing. */
  readonly foundWrong: readonly FoundWrong[]
  /** Whatever was played of it was a preview that was made from it: no browser plays the files themselves. */
  readonly playedAsPreview: boolean
  /** Files that were played from it, by their ids, and lie there as they did then. */
  readonly filesPlayed: readonly number[]
}

/** A file of a copy of which somebody said that something is wrong with it, and nobody has said otherwise since. */
export interface FoundWrong {
  readonly entryId: number
  /** The clip that it is, where it is one. */
  readonly clipId: string | null
  readonly path: string
  /** What was seen, as the person said. */
  readonly note: string
  /** It was read whole again since, and is what was proved. */
  readonly readSince: boolean
}

export interface MarkRule {
  /** The person's rule: a copy that could only be read back through memory passes for verified. */
  readonly acceptMemory: boolean
}

const CAREFUL: MarkRule = { acceptMemory: false }

/**
 * The mark that the facts earn: a single missing, differing or unproved file holds it back, and so does a lost folder.
 */
export function markOf(facts: CopyFacts, rule = CAREFUL): Mark {
  const wrong =
    facts.filesMismatched + facts.filesInConflict + facts.filesMissing + facts.filesDoubted + facts.foundWrong.length
  if (facts.mirrorLost || facts.filesWanted === 0 || facts.filesCopied < facts.filesWanted || wrong > 0) return 0
  if (facts.filesVerified < facts.filesWanted && !rule.acceptMemory) return 1
  return facts.spotPlayedAt ? 3 : 2
}
