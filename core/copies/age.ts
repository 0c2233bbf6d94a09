import { counted } from '../units/quantity'
import type { ClearQuestion } from './clearQuestion'
import type { CopyFacts } from './mark'

/** Read within the time that the rule allows: every file of it, or a sample since. */
export function isFresh(copy: CopyFacts, { now, rule, olderSince }: ClearQuestion): boolean {
  // What was found out since is forgotten: only what was read whole after that counts.
  if (isOlderThan(copy, { olderSince })) return false
  const readAt = Math.max(timeOf(copy.firstVerifiedAt), timeOf(copy.readAgainAt))
  return now - readAt <= rule.proofHours * 3_600_000
}

/**
 * Whether a proof of it is older than the moment in which the records were found to have come back from an older copy.
 */
export const isOlderThan = (copy: CopyFacts, { olderSince }: Pick<ClearQuestion, 'olderSince'>): boolean =>
  olderSince !== undefined && timeOf(copy.firstVerifiedAt) < timeOf(olderSince)

export const timeOf = (at: string | undefined) => (at === undefined ? 0 : Date.parse(at))

export function ageOf(copy: CopyFacts, now: number): string {
  const hours = Math.floor((now - Math.max(timeOf(copy.firstVerifiedAt), timeOf(copy.readAgainAt))) / 3_600_000)
  if (hours < 1) return 'less than an hour ago'
  return hours < 48 ? `${counted(hours, 'hour')} ago` : `${Math.floor(hours / 24)} days ago`
}

/** How long ago something was, short enough for a cell: `5 h`, `12 d`. */
export function shortAge(at: string, now: number): string {
  const hours = Math.max(0, Math.floor((now - Date.parse(at)) / 3_600_000))
  if (hours < 1) return 'now'
  return hours < 48 ? `${hours} h` : `${Math.floor(hours / 24)} d`
}
