import type { RecordingPlan } from './plan'

interface Named {
  readonly id: string
  readonly name: string
}

/** What is known when somebody asks which card this is. */
export interface LoadClues {
  /** What the load was called, which is what the system called the card unless somebody typed another name. */
  readonly label: string
  readonly cards: readonly Named[]
  readonly cameras: readonly Named[]
  readonly plan: Pick<RecordingPlan, 'cameras'> | undefined
}

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()

/** A second load of one name is called `Curlew A (2)`. */
const plain = (label: string) => label.replace(/ \(\d+\)$/, '')

/**
 * Which card and camera a load may belong to: the card of its name, and the camera that the plan puts this card into,
 * or whose name begins the label. Only a guess, which a person confirms: a format may change what the system calls a
 * card.
 */
export function likelyGear({ label, cards, cameras, plan }: LoadClues): {
  readonly cardId: string | undefined
  readonly cameraId: string | undefined
} {
  const cardId = cards.find((card) => same(card.name, plain(label)))?.id
  const planned = plan?.cameras.find((one) => cardId !== undefined && one.cardIds.includes(cardId))?.cameraId
  const named = cameras.find((camera) => plain(label).toLowerCase().startsWith(camera.name.toLowerCase()))?.id
  return { cardId, cameraId: planned ?? named }
}
