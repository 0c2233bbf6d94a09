import { object, string } from 'yup'
import type { RepairPlan } from '../core/copies/repair'
import { ask, order, type Ordered } from './endpoint'
import { idOrNothing } from './id'

/** Of which load; without one all are meant. */
export const repairQuery = object({ loadId: idOrNothing('That is no load.') }).noUnknown()

/** What a person said yes to, as the plan named it. */
export const repairOrder = object({
  loadId: idOrNothing('That is no load.'),
  decisions: string().max(20, 'That is no plan that was shown.').required('Look at the plan first.'),
}).noUnknown()

export interface RepairView extends RepairPlan {
  readonly sentence: string
}

/** Mending copies from other copies. Nothing is done without a person's yes. */
export const repairApi = {
  /** What can be mended, from where, what is put aside, and what is lost. */
  plan: ask<RepairView>()('copies', '/repair', repairQuery),
  /** Mends what the plan named. 409 where it is another plan by now, nothing of it fits, or one is under way. */
  mend: order<Ordered>()('POST', '/repair', { status: 202, changes: ['copies', 'tasks'], body: repairOrder }),
}
