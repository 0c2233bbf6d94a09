import { counted, formatBytes, formatLength } from '../units/quantity'
import type { CopyPlan } from './plan'

/** A load whose card lies in a reader, with how much stands between it and being lost. */
export interface NightCard {
  readonly loadId: string
  readonly label: string
  readonly readerName: string
  /** Whole verified copies on drives of their own. */
  readonly verified: number
  /** Things that are wrong with the card and that nobody has settled: it may be failing. */
  readonly wrong: number
  readonly clips: number
  readonly sizeBytes: number
  /** Length of what was filmed, in seconds. */
  readonly filmedSeconds: number
}

/** The most endangered first: fewest proved copies, then a card that is in trouble, then what took longest to film. */
export const byDanger = (a: NightCard, b: NightCard): number =>
  a.verified - b.verified ||
  Math.sign(b.wrong) - Math.sign(a.wrong) ||
  b.filmedSeconds - a.filmedSeconds ||
  a.label.localeCompare(b.label)

/** Why a card has its place in the order. */
export function dangerWords({ verified, wrong }: Pick<NightCard, 'verified' | 'wrong'>): string {
  const copies =
    verified === 0 ? 'no proved copy of it' : verified === 1 ? 'one proved copy' : `${verified} proved copies`
  return wrong > 0 ? `${copies}, and ${counted(wrong, 'thing')} wrong with it` : copies
}

/** One card of a night: what a copy of it would do, and when, in seconds from the beginning. */
export interface NightStep extends NightCard {
  readonly plan: CopyPlan
  readonly why: string
  /** `undefined` from the first card on whose time is not known. */
  readonly endsAfterSeconds: number | undefined
}

/** Room of a volume in bytes, before and after everything is copied; `missingBytes` of what does not fit. */
export interface NightVolume {
  readonly volumeId: string
  readonly name: string
  readonly connected: boolean
  readonly beforeBytes: number | undefined
  readonly afterBytes: number | undefined
  readonly missingBytes: number
}

export interface Night {
  readonly steps: readonly NightStep[]
  readonly volumes: readonly NightVolume[]
  /** What is written on all volumes together. */
  readonly copyBytes: number
  /** What lies there already, proved, and is only read again. */
  readonly keepBytes: number
  readonly seconds: number | undefined
  /** What most of the night is waited for, by name. */
  readonly bottleneck: string | undefined
}

/** Room on a volume before the night. */
export interface NightRoom {
  readonly volumeId: string
  readonly name: string
  readonly connected: boolean
  readonly freeBytes: number | undefined
}

/**
 * Several cards one after the other, the most endangered first. `planOf` gives the plan of one card after so many bytes
 * were written to each volume by those before it; cards of which every volume has everything take no part.
 */
export function nightPlan(
  cards: readonly NightCard[],
  rooms: readonly NightRoom[],
  planOf: (card: NightCard, takenBytes: ReadonlyMap<string, number>) => CopyPlan,
): Night {
  const taken = new Map<string, number>(rooms.map((room) => [room.volumeId, 0]))
  const missing = new Map<string, number>()
  const waits = new Map<string, number>()
  const steps: NightStep[] = []
  let after: number | undefined = 0
  let [copyBytes, keepBytes] = [0, 0]
  for (const card of [...cards].sort(byDanger)) {
    const plan = planOf(card, taken)
    if (plan.volumes.every((volume) => volume.copy.files + volume.conflict.files === 0)) continue
    for (const { volumeId, copy, keep, connected, missingBytes } of plan.volumes) {
      keepBytes += keep.sizeBytes
      if (missingBytes > 0) missing.set(volumeId, (missing.get(volumeId) ?? 0) + missingBytes)
      if (!connected || missingBytes > 0) continue
      copyBytes += copy.sizeBytes
      taken.set(volumeId, (taken.get(volumeId) ?? 0) + copy.sizeBytes)
    }
    after = after === undefined || plan.seconds === undefined ? undefined : after + plan.seconds
    if (plan.bottleneck !== undefined)
      waits.set(plan.bottleneck, (waits.get(plan.bottleneck) ?? 0) + (plan.seconds ?? 0))
    steps.push({ ...card, plan, why: dangerWords(card), endsAfterSeconds: after })
  }
  const [longest] = [...waits].sort((a, b) => b[1] - a[1])
  return {
    steps,
    copyBytes,
    keepBytes,
    seconds: after,
    bottleneck: longest?.[0],
    volumes: rooms.map(({ freeBytes, ...room }) => ({
      ...room,
      beforeBytes: freeBytes,
      afterBytes: freeBytes === undefined ? undefined : freeBytes - (taken.get(room.volumeId) ?? 0),
      missingBytes: missing.get(room.volumeId) ?? 0,
    })),
  }
}

/**
 * The night in one sentence; `clock` gives the time of day after so many seconds, `unlooked` are cards that nobody has
 * scanned.
 */
export function nightSentence(
  night: Night,
  clock: (seconds: number) => string,
  unlooked: readonly string[] = [],
): string {
  const { steps, volumes, seconds, copyBytes } = night
  if (steps.length === 0)
    return unlooked.length > 0
      ? `Scan ${unlooked.map((name) => `“${name}”`).join(' and ')} first: nothing is known of ` +
          `${unlooked.length === 1 ? 'it' : 'them'} yet.`
      : 'No card of this production that lies in a reader needs a copy.'
  const full = volumes.find((volume) => volume.missingBytes > 0)
  if (full)
    return (
      `${full.name} lacks ${formatBytes(full.missingBytes)} for what is to be copied: choose another ` +
      'volume, or make room.'
    )
  const what = `${counted(steps.length, 'card')}, ${formatBytes(copyBytes)} to write`
  const when =
    seconds === undefined
      ? 'how long it takes is known after the first copy'
      : `about ${formatLength(Math.ceil(seconds))}, done at ${clock(seconds)}`
  return `${what}: ${when}.`
}
