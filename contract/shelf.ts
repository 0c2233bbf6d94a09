import { object } from 'yup'
import { id } from './id'
import { ask, order, type Ordered } from './endpoint'
import { pageQuery, type Page } from './page'
import { text } from './text'

/** Which deliverable goes onto which volume. */
export const bagOrder = object({
  deliverableId: id('Choose a deliverable.').required('Choose a deliverable.'),
  volumeId: id('Choose the volume for the bag.').required('Choose the volume for the bag.'),
  /** Why a film that fails a check goes on the shelf all the same; it is written into the bag. */
  why: text().max(500, 'Say it in 500 characters or fewer.'),
}).noUnknown()

/** A bag on the shelf: files and bytes of its payload, and when it was read back. */
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

/** A page of bags, with how many there are on which volumes. */
export interface BagsView extends Page<BagView> {
  readonly written: number
  readonly volumeNames: readonly string[]
}

/**
 * Station 7. 404 for what is not known; 409 while just this bag is being written; 422 for a film that fails a check and
 * no word why it is kept.
 */
export const shelfApi = {
  /** Bags of a production, the newest first. */
  bags: ask<BagsView>()('shelf', '/productions/:id/bags', pageQuery(['written'], {}, { rows: 100, down: true })),
  /** Puts a deliverable on the shelf as a bag (RFC 8493). */
  shelve: order<Ordered>()('POST', '/bags', { status: 202, changes: ['shelf', 'tasks'], body: bagOrder }),
}
