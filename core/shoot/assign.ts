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
 * others too. Of several the smallest that holds what is left is taken, else the largest; spares last. Where that
 * leaves something short, every other way to share out the free cards is tried, up to a limit.
 */
export function assignCards(plan: RecordingPlan, gear: PlanGear, rules: PlanRules): RecordingPlan {
  const kept: RecordingPlan = { ...plan, cameras: plan.cameras.map((one) => withoutTrouble(one, plan, gear, rules)) }
  const quick = quickly(kept, gear, rules)
  const missing = missingOf(quick, gear, rules)
  return missing === 0 ? quick : (searchCards(kept, gear, rules, missing) ?? quick)
}

const missingOf = (plan: RecordingPlan, gear: PlanGear, rules: PlanRules) => planBudget(plan, gear, rules).missing

function quickly(plan: RecordingPlan, gear: PlanGear, rules: PlanRules): RecordingPlan {
  let current = plan
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

/** How many choices of cards for a camera are weighed before the best one so far is taken. */
const MOST_WEIGHED = 2000

/** A better way to share out the free cards than one that leaves so many missing, if there is one. */
function searchCards(
  kept: RecordingPlan,
  gear: PlanGear,
  rules: PlanRules,
  missingAtMost: number,
): RecordingPlan | undefined {
  const budgets = [...planBudget(kept, gear, rules).cameras].sort((a, b) => b.bytesPerSecond - a.bytesPerSecond)
  const inside = new Set(kept.cameras.flatMap((one) => one.cardIds))
  const pool = gear.cards
    .filter((card) => !inside.has(card.id) && isUsable(card))
    .sort((a, b) => a.capacityBytes - b.capacityBytes || a.bytesPerSecond - b.bytesPerSecond)
  let weighed = 0
  const missing = ({ planned }: CameraBudget, cards: readonly GearCard[]) => {
    weighed += 1
    const cardIds = [...planned.cardIds, ...cards.map((card) => card.id)]
    return missingOf({ takes: kept.takes, cameras: [{ ...planned, cardIds }] }, gear, rules)
  }
  const suits = (budget: CameraBudget, card: GearCard) => card.bytesPerSecond >= budget.bytesPerSecond
  // Better than with all cards that suit it no camera can do.
  const least = budgets.map((budget) =>
    missing(
      budget,
      pool.filter((card) => suits(budget, card)),
    ),
  )
  const leastFrom = (at: number) => least.slice(at).reduce((sum, one) => sum + one, 0)
  let best: RecordingPlan | undefined
  let bestMissing = missingAtMost
  const share = (at: number, free: readonly GearCard[], current: RecordingPlan, sum: number): void => {
    const budget = budgets[at]
    if (!budget) {
      best = current
      bestMissing = sum
      return
    }
    for (const cards of someOf(free.filter((card) => suits(budget, card)))) {
      if (weighed > MOST_WEIGHED || sum + leastFrom(at) >= bestMissing) return
      const lacking = sum + missing(budget, cards)
      if (lacking + leastFrom(at + 1) >= bestMissing) continue
      const next = cards.reduce((plan, card) => withCard(plan, budget.camera.id, card.id), current)
      share(
        at + 1,
        free.filter((card) => !cards.includes(card)),
        next,
        lacking,
      )
    }
  }
  share(0, pool, kept, 0)
  return best
}

/** Every choice of some of the cards, few before many; cards that are alike stand for each other. */
function* someOf(cards: readonly GearCard[]): Generator<readonly GearCard[]> {
  function* pick(from: number, left: number): Generator<readonly GearCard[]> {
    if (left === 0) {
      yield []
      return
    }
    for (let at = from; at <= cards.length - left; at += 1) {
      const [card, before] = [cards[at], cards[at - 1]]
      if (!card || (at > from && before && isAlike(before, card))) continue
      for (const more of pick(at + 1, left - 1)) yield [card, ...more]
    }
  }
  for (let count = 0; count <= cards.length; count += 1) yield* pick(0, count)
}

const isAlike = (a: GearCard, b: GearCard) =>
  a.capacityBytes === b.capacityBytes && a.bytesPerSecond === b.bytesPerSecond

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
