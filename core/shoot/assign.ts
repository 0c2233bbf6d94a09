import { isUsable, type GearCard } from './gear'
import {
  planBudget,
  type CameraBudget,
  type PlanGear,
  type PlannedCards,
  type PlanRules,
  type RecordingPlan,
} from './plan'

/**
 * Gives each camera cards of the gear book that are clear, fast enough and in no other camera: what fits already stays,
 * what does not is taken out. The camera with the fastest stream chooses first, since all cards that suit it suit the
 * others too. Of several the smallest that holds what is left is taken, else the largest; spares last.
 */
export function assignCards(plan: RecordingPlan, gear: PlanGear, rules: PlanRules): RecordingPlan {
  let current: RecordingPlan = { ...plan, cameras: plan.cameras.map((one) => withoutTrouble(one, plan, gear, rules)) }
  const fastestFirst = [...planBudget(current, gear, rules).cameras].sort((a, b) => b.bytesPerSecond - a.bytesPerSecond)
  for (const { camera } of fastestFirst) {
    for (;;) {
      const budget = planBudget(current, gear, rules).cameras.find((one) => one.camera.id === camera.id)
      const card = budget && budget.missing > 0 ? nextCard(budget, current, gear, rules) : undefined
      if (!card) break
      current = withCard(current, camera.id, card.id)
    }
  }
  return current
}

/** Puts a card into a camera, and takes it out of every other. */
export const withCard = (plan: RecordingPlan, cameraId: string, cardId: string): RecordingPlan => ({
  ...plan,
  cameras: plan.cameras.map((one) => {
    const others = one.cardIds.filter((id) => id !== cardId)
    return { ...one, cardIds: one.cameraId === cameraId ? [...others, cardId] : others }
  }),
})

/** Takes a card out of the camera it is in. */
export const withoutCard = (plan: RecordingPlan, cardId: string): RecordingPlan => ({
  ...plan,
  cameras: plan.cameras.map((one) => ({ ...one, cardIds: one.cardIds.filter((id) => id !== cardId) })),
})

function withoutTrouble(planned: PlannedCards, plan: RecordingPlan, gear: PlanGear, rules: PlanRules): PlannedCards {
  const budget = planBudget(plan, gear, rules).cameras.find((one) => one.camera.id === planned.cameraId)
  const good = new Set(budget?.cards.filter((one) => one.trouble === undefined).map((one) => one.card.id))
  return { ...planned, cardIds: planned.cardIds.filter((id) => good.has(id)) }
}

function nextCard(budget: CameraBudget, plan: RecordingPlan, gear: PlanGear, rules: PlanRules): GearCard | undefined {
  const taken = new Set(plan.cameras.flatMap((one) => one.cardIds))
  const room = (card: GearCard) => Math.floor(card.capacityBytes * rules.fillLimit)
  // What the camera would cut nowhere has to fit as a whole, on a spare, too.
  const takes = budget.openBytes > 0 ? budget.openTakes : budget.rows.map((row) => row.takeBytes)
  const least = budget.camera.spans ? 0 : Math.min(...takes)
  const free = gear.cards
    .filter((card) => room(card) >= least)
    .filter((card) => !taken.has(card.id) && isUsable(card) && card.bytesPerSecond >= budget.bytesPerSecond)
    .sort((a, b) => a.capacityBytes - b.capacityBytes || a.bytesPerSecond - b.bytesPerSecond)
  return free.find((card) => room(card) >= budget.openBytes) ?? free.at(-1)
}
