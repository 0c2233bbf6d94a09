import { planBudget, type PlanBudget, type RecordingPlan } from '../../core/shoot/plan'
import { planGear, type GearView } from '../../contract/gear'

/** What a production’s plan comes to with the gear book of now. */
export const budgetOf = (
  plan: RecordingPlan,
  gear: GearView,
  production: { id: string; shootOn: string | null },
): PlanBudget => planBudget(plan, planGear(gear, production), gear.rules)
