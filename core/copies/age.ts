import { counted } from '../units/quantity'
import type { ClearQuestion } from './clearQuestion'
import type { CopyFacts } from './mark'

/** Read within the time that the rule allows: every file of it, or a sample since. */
export function isFresh(copy: CopyFacts, { now, rules }: ClearQuestion): boolean {
  const readAt = Math.max(timeOf(copy.firstVerifiedAt), timeOf(copy.readAgainAt))
  return now - readAt <= rules.proofHours * 3_600_000
}

export const timeOf = (at: string | undefined) => (at === undefined ? 0 : Date.parse(at))

export function ageOf(copy: CopyFacts, now: number): string {
  const hours = Math.floor((now - Math.max(timeOf(copy.firstVerifiedAt), timeOf(copy.readAgainAt))) / 3_600_000)
  if (hours < 1) return 'less than an hour ago'
  return hours < 48 ? `${counted(hours, 'hour')} ago` : `${Math.floor(hours / 24)} days ago`
}
