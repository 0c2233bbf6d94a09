import { counted, formatBytes } from '../units/quantity'
import type { RecordingBudget } from './recording'

/** One camera of a plan, as far as the answer of the station needs it. */
export interface PlannedCamera {
  readonly camera: string
  readonly budget: RecordingBudget
}

export interface PlanAnswer {
  readonly sentence: string
  readonly why: string
}

/**
 * What to carry, and why that is enough. Cards are counted for whole takes up to the fill limit (`cardsFor`), so none
 * is used twice; a card that is too slow (`sustained`) comes before any comfort.
 */
export function planAnswer(plans: readonly PlannedCamera[]): PlanAnswer {
  const bytes = plans.reduce((sum, plan) => sum + plan.budget.sizeBytes, 0)
  const cards = plans.reduce((sum, plan) => sum + plan.budget.cards, 0)
  const slow = plans.filter((plan) => !plan.budget.sustained)
  return {
    sentence: `Carry ${counted(cards, 'card')} for ${formatBytes(bytes)}.`,
    why:
      slow.length > 0
        ? `${slow.map((plan) => plan.camera).join(' and ')}: the card cannot take the stream. Change card or bit rate before the day.`
        : `${counted(cards, 'card')} and one spare: none is filled above its limit, none is used twice.`,
  }
}
