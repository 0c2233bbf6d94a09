import { checkDelivery } from '../../core/exports/check'
import { destinationOf } from '../../core/exports/destination'
import type { DeliverableRow } from '../db/queries/exports'

/** The checks of a deliverable's real file against its destination. */
export function deliveryChecks(row: DeliverableRow) {
  const destination = destinationOf(row.destinationId)
  const master = row.master?.video
  if (!destination || !master) return []
  return checkDelivery(
    { destination, rate: master.rate, seconds: master.seconds, withSound: row.master?.audio !== undefined },
    row.probe,
    row.bars,
  )
}
