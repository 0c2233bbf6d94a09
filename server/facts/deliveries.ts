import { checkDelivery } from '../../core/exports/check'
import { destinationOf } from '../../core/exports/destination'
import { deliveryPlan } from '../../core/exports/plan'
import { allPass } from '../../core/media/check'
import type { DeliverableRow } from '../db/queries/exports'

/** What a deliverable was to be, worked out again from what is kept; `undefined` when its destination is gone. */
export function deliveryPlanOf({ destinationId, master, cropWindow, choice }: DeliverableRow) {
  const destination = destinationOf(destinationId)
  return destination && master ? deliveryPlan(master, destination, cropWindow, choice) : undefined
}

/** The checks of a deliverable's real file against its destination. */
export function deliveryChecks(row: DeliverableRow) {
  const plan = deliveryPlanOf(row)
  return plan ? checkDelivery(plan, row.probe, row.measured) : []
}

/** Whether the real file of a deliverable is right in every check, by what is asked of it today. */
export const passes = (row: DeliverableRow): boolean => allPass(deliveryChecks(row))
