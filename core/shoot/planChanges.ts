import type { Camera, GearCard } from './gear'
import type { PlannedCards, PlannedTakes, PlanRules, RecordingPlan } from './plan'

/**
 * What a new row begins with when nothing else is known: a card of the usual size and speed. Common practice, no
 * source.
 */
const USUAL_CARD = { cardBytes: 128e9, cardBytesPerSecond: 30e6 } as const

interface NewTakes {
  readonly camera: Camera
  readonly seconds: number
  /** The same camera in this plan, or at its last shoot, and what it recorded on then. */
  readonly before?: PlannedTakes | undefined
  readonly cardsBefore?: PlannedCards | undefined
  readonly cards: readonly GearCard[]
}

/** Adds a camera with so many seconds of takes: everything else is as it was last time, or usual. */
export function withTakes(
  plan: RecordingPlan,
  { camera, seconds, before, cardsBefore, cards }: NewTakes,
  rules: PlanRules & { readonly factor: number },
): RecordingPlan {
  const offered = camera.modes.filter((one) => !one.away)
  const mode = offered.find((one) => one.id === before?.modeId) ?? offered[0]
  if (!mode) return plan
  const takes: PlannedTakes = {
    cameraId: camera.id,
    modeId: mode.id,
    secondsPerTake: Math.max(1, Math.round(seconds)),
    takes: 1,
    angles: 1,
    factor: before?.factor ?? rules.factor,
  }
  const card = [...cards].sort((a, b) => a.capacityBytes - b.capacityBytes)[Math.floor(cards.length / 2)]
  const own: PlannedCards = {
    cameraId: camera.id,
    bothSlots: cardsBefore?.bothSlots ?? false,
    cardBytes: cardsBefore?.cardBytes ?? card?.capacityBytes ?? USUAL_CARD.cardBytes,
    cardBytesPerSecond: cardsBefore?.cardBytesPerSecond ?? card?.bytesPerSecond ?? USUAL_CARD.cardBytesPerSecond,
    cardIds: [],
  }
  const known = plan.cameras.some((one) => one.cameraId === camera.id)
  return { takes: [...plan.takes, takes], cameras: known ? plan.cameras : [...plan.cameras, own] }
}

/** Changes one row. */
export const changeTakes = (plan: RecordingPlan, at: number, change: Partial<PlannedTakes>): RecordingPlan => ({
  ...plan,
  takes: plan.takes.map((one, place) => (place === at ? { ...one, ...change } : one)),
})

/** Removes one row; the last of a camera takes its cards out, too. */
export function withoutTakes(plan: RecordingPlan, at: number): RecordingPlan {
  const takes = plan.takes.filter((_, place) => place !== at)
  return { takes, cameras: plan.cameras.filter((one) => takes.some((row) => row.cameraId === one.cameraId)) }
}

/** Changes what a camera records on. */
export const changeCards = (
  plan: RecordingPlan,
  cameraId: string,
  change: Partial<Omit<PlannedCards, 'cameraId'>>,
): RecordingPlan => ({
  ...plan,
  cameras: plan.cameras.map((one) => (one.cameraId === cameraId ? { ...one, ...change } : one)),
})
