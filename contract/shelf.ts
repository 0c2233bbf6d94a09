import { object, string } from 'yup'
import { ask, order, type Ordered } from './endpoint'

export const bagOrder = object({
  deliverableId: string().uuid().required('Choose a deliverable.'),
  volumeId: string().uuid().required('Choose the volume for the bag.'),
}).noUnknown()

export interface BagView {
  readonly id: string
  readonly title: string
  readonly volumeName: string
  readonly site: string
  readonly path: string
  readonly fileCount: number
  readonly sizeBytes: number
  readonly writtenAt: string
  readonly verifiedAt: string | null
}

export const shelfApi = {
  bags: ask<readonly BagView[]>()('shelf', '/productions/:id/bags'),
  /** Puts a deliverable on the shelf as a bag (RFC 8493). */
  shelve: order<Ordered>()('POST', '/bags', { status: 202, changes: ['shelf', 'tasks'], body: bagOrder }),
}
