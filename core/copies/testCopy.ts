import { clearToFormat, type ClearQuestion } from './clear'
import type { CopyFacts } from './mark'
import { AT_HOME_ONLY } from './rule'

/** A whole proved copy, for tests. */
export const copy = (volumeName: string, more: Partial<CopyFacts> = {}): CopyFacts => ({
  volumeId: volumeName,
  volumeName,
  site: 'workshop',
  ...{ siteKind: 'stays', medium: 'disk' },
  connected: true,
  filesWanted: 9,
  filesCopied: 9,
  filesVerified: 9,
  filesVerifiedFromCache: 0,
  filesMismatched: 0,
  filesInConflict: 0,
  filesMissing: 0,
  ...{ filesDoubted: 0, doubtedBytes: 0, mounted: [] },
  device: { fileSystem: volumeName, disks: [volumeName], known: true, pastCache: true },
  mirrorLost: false,
  sizeBytes: 1e9,
  firstVerifiedAt: '2026-11-14T22:00:00Z',
  lastVerifiedAt: '2026-11-14T22:00:00Z',
  readAgainAt: undefined,
  seenAt: '2026-11-14T22:00:00Z',
  spotPlayedAt: undefined,
  playedAsPreview: false,
  cycleDays: 180,
  filesPlayed: [],
  foundWrong: [],
  ...more,
})
export const played = { spotPlayedAt: '2026-11-14T22:10:00Z', filesPlayed: [1] }
/** Two proved copies on two drives, one of them played, at home: clear. */
export const home: ClearQuestion = {
  copies: [copy('Slipway', played), copy('Tide 1')],
  backupCards: [],
  askedBackupCard: undefined,
  readFromBackupCard: false,
  rule: AT_HOME_ONLY,
  atHome: true,
  cardInReader: false,
  cardDifference: undefined,
  cardKnown: undefined,
  cardStanding: { device: undefined, connected: false },
  saidDifferent: [],
  now: Date.parse('2026-11-14T23:00:00Z'),
  looked: true,
  clipsPlayable: 9,
  filesLeftOut: 0,
  thingsWrong: 0,
  formattedAt: undefined,
  saidButThere: undefined,
  olderSince: undefined,
}

/**
 * What stands on the page: the answer, then each reason, `+` where it is met. Sentences are read whole, so that one
 * that is lost, doubled or in the wrong number is seen.
 */
export function said(more: Partial<ClearQuestion>): string {
  const answer = clearToFormat({ ...home, ...more })
  const lines = [
    answer.sentence,
    ...answer.reasons.map((reason) => `${reason.met ? '+' : '-'} ${reason.sentence}`),
    answer.caution,
    ...answer.sampleFirst.map((volume) => `sample ${volume}`),
  ]
  return lines.join('\n')
}
