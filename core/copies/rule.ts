import { counted, inWords, upperFirst } from '../units/quantity'
import type { MarkRule } from './mark'

/** When a card may be formatted: what its copies have to be. A rule with larger numbers is stricter, but for the age. */
export interface ClearRule extends MarkRule {
  /** Verified copies, at least two. */
  readonly copies: number
  /** On how many drives that are different ones, at least two and at most as many as copies. */
  readonly devices: number
  /** On how many kinds of media, at least one. */
  readonly media: number
  /** At how many sites, at least one; everything that a person carries is one. */
  readonly sites: number
  /** Clips that were played from a copy; a card that holds fewer needs all of them. */
  readonly played: number
  /** The card is out of its reader. */
  readonly cardOut: boolean
  /** Only at one’s own desk. */
  readonly atDesk: boolean
  /** A proof older than this counts no more: of a volume that cannot be seen, or until a sample of it was read again. */
  readonly proofHours: number
}

/** Fewer than these is no rule: only a person may override the answer, and what they say is written down. */
export const LEAST = { copies: 2, devices: 2, media: 1, sites: 1, played: 1, proofHours: 1 } as const
export const MOST = { copies: 6, devices: 6, media: 4, sites: 4, played: 50, proofHours: 24 * 365 } as const

/** Cards are formatted at one’s own desk, and enough of them are carried. Common practice, no source. */
export const AT_HOME_ONLY: ClearRule = {
  ...{ copies: 2, devices: 2, media: 1, sites: 1, played: 1 },
  ...{ cardOut: false, atDesk: true, proofHours: 24, acceptMemory: false },
}

/** For days with too few cards: anywhere, with the card out. Common practice, no source. */
export const REUSE_ON_THE_JOB: ClearRule = { ...AT_HOME_ONLY, cardOut: true, atDesk: false }

/** The strictest of several rules, point by point: what a card of several productions obeys. */
export const strictest = (rules: readonly [ClearRule, ...ClearRule[]]): ClearRule =>
  rules.reduce((a, b) => ({
    copies: Math.max(a.copies, b.copies),
    devices: Math.max(a.devices, b.devices),
    media: Math.max(a.media, b.media),
    sites: Math.max(a.sites, b.sites),
    played: Math.max(a.played, b.played),
    cardOut: a.cardOut || b.cardOut,
    atDesk: a.atDesk || b.atDesk,
    proofHours: Math.min(a.proofHours, b.proofHours),
    acceptMemory: a.acceptMemory && b.acceptMemory,
  }))

/** What becomes of the raw footage of a client: all of it is kept, or the film and one render of each of its tracks. */
export const RAW_KEPT = ['all', 'film-and-tracks'] as const
export type RawKept = (typeof RAW_KEPT)[number]

/** What a rule asks, in one sentence. */
export function ruleSentence(rule: ClearRule): string {
  const where = [
    `on ${inWords(rule.devices)} drives`,
    ...(rule.media > 1 ? [`on ${inWords(rule.media)} kinds of media`] : []),
    ...(rule.sites > 1 ? [`at ${inWords(rule.sites)} sites`] : []),
  ]
  const more = [
    rule.played === 1 ? 'one clip played' : `${inWords(rule.played)} clips played`,
    ...(rule.cardOut ? ['with the card out of the reader'] : []),
    rule.atDesk ? 'at your own desk' : 'anywhere',
    `proved within ${counted(rule.proofHours, 'hour')}`,
    ...(rule.acceptMemory ? ['read back from memory passes'] : []),
  ]
  return `${upperFirst(inWords(rule.copies))} verified copies ${where.join(', ')}; ${more.join(', ')}.`
}
