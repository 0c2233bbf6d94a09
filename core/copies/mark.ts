/**
 * How far a copy of a load has come on one volume: 0 planned, 1 copied, 2 verified (every file read back from the
 * medium and equal), 3 spot-played.
 */
export type Mark = 0 | 1 | 2 | 3

export const MARK_WORDS: readonly [string, string, string, string] = ['planned', 'copied', 'verified', 'spot-played']

/** The facts known of one load on one volume. Counts are files; only the latest verification of a file counts. */
export interface CopyFacts {
  readonly volumeId: string
  readonly volumeName: string
  readonly site: string
  readonly connected: boolean
  readonly filesWanted: number
  readonly filesCopied: number
  /** Read back from the medium and equal to the source. */
  readonly filesVerified: number
  /** Read back and equal, but the system's cache could not be bypassed. */
  readonly filesVerifiedFromCache: number
  readonly filesMismatched: number
  readonly filesInConflict: number
  /** Its folder is gone from the volume, though the volume is connected. */
  readonly mirrorLost: boolean
  readonly sizeBytes: number
  readonly lastVerifiedAt: string | undefined
  readonly spotPlayedAt: string | undefined
}

/** The mark that the facts earn: a single missing, differing or unproved file holds it back, and so does a lost folder. */
export function markOf(facts: CopyFacts): Mark {
  if (facts.mirrorLost || facts.filesWanted === 0 || facts.filesCopied < facts.filesWanted || facts.filesMismatched > 0)
    return 0
  if (facts.filesVerified < facts.filesWanted) return 1
  return facts.spotPlayedAt ? 3 : 2
}
