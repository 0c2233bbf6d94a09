import { checkDelivery } from '../../core/exports/check'
import { destinationOf } from '../../core/exports/destination'
import type { deliverablesOf } from '../db/queries/exports'

type DeliverableRow = Awaited<ReturnType<typeof deliverablesOf>>[number]

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
