import type { MediaFacts, VideoTrack } from '../media/facts'
import { testFacts, testPicture } from '../media/testFacts'
import { DESTINATIONS, type Destination } from './destination'
import { deliveryPlan, USUAL_CHOICE, type DeliveryPlan } from './plan'

/** A destination by its id, for tests. */
export function testDestination(id: string): Destination {
  const found = DESTINATIONS.find((one) => one.id === id)
  if (!found) throw new Error(`There is no destination ${id}`)
  return found
}

/** A tall window in the middle of a master of 3840×2160. */
export const TALL_WINDOW = { x: 1312, y: 0, widthPx: 1216, heightPx: 2160 }

/** The plan of a master for a destination, tall where none is named. */
export function testPlan(master: MediaFacts = testFacts(), choice = USUAL_CHOICE, to = 'tall-short'): DeliveryPlan {
  const plan = deliveryPlan(master, testDestination(to), TALL_WINDOW, choice)
  if (!plan) throw new Error('This master has no picture')
  return plan
}

/** A master whose picture is a little another one. */
export const testMaster = (more: Partial<VideoTrack>): MediaFacts => testFacts({ video: testPicture(more) })
