import { planBudget, type PlanBudget, type RecordingPlan } from '../../core/shoot/plan'
import { planGear, type GearView } from '../../contract/gear'

/** What a production’s plan comes to with the gear book of now. */
export const budgetOf = (plan: RecordingPlan, gear: GearView, productionId: string): PlanBudget =>
  planBudget(plan, planGear(gear, productionId), gear.rules)
