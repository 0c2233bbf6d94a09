import type { CameraKind, RecordingMode } from './mode'

/** Where a camera keeps what it records. */
export const MEDIA_KINDS = ['cards', 'internal', 'tape'] as const
export type MediaKind = (typeof MEDIA_KINDS)[number]

/** A camera, recorder, phone or deck of the gear book. */
export interface Camera {
  readonly id: string
  readonly name: string
  readonly kind: CameraKind
  readonly media: MediaKind
  /** Room of its internal medium in bytes; 0 where it has none. */
  readonly internalBytes: number
  /** Cards that it takes at once. */
  readonly slots: 1 | 2
  /** Whether a take goes on on the next card when one is full. */
  readonly spans: boolean
  /** How long one battery lasts while recording, in minutes; 0 where nobody has said. */
  readonly batteryMinutes: number
  readonly modes: readonly RecordingMode[]
}

/**
 * What is true of a card: nothing on it that is needed, a load that is not safe yet and leaves room or not, or a load
 * that is safe, so that it may be formatted.
 */
export const CARD_STATES = ['empty', 'in-use', 'full', 'clear'] as const
export type CardState = (typeof CARD_STATES)[number]

/** A card of the gear book. */
export interface GearCard {
  readonly id: string
  readonly name: string
  readonly capacityBytes: number
  /** Sustained write at least, in bytes per second. */
  readonly bytesPerSecond: number
  readonly state: CardState
  /** Another production that counts on it on the same day. */
  readonly promisedTo?: string | undefined
}

export const CARD_STATE_WORDS: Record<CardState, string> = {
  empty: 'empty',
  'in-use': 'in use: holds clips that are not safe yet',
  full: 'full and unproved',
  clear: 'proved: ask at Copies before you format it',
}

/** Said of a card that may hold a load of its name, until somebody says on which card that load lies. */
export const PERHAPS_WORDS = 'perhaps in use: nobody has said yet on which card a load of its name lies'

/** What the load on a card comes to; without one the card is empty. */
export interface CardLoad {
  readonly sizeBytes: number
  /** The person said that it was formatted since, and nothing of it came back. */
  readonly formatted: boolean
  readonly clear: boolean
}

/** State of a card from its newest load: full from the fill limit on. */
export function cardState(capacityBytes: number, load: CardLoad | undefined, fillLimit: number): CardState {
  if (!load || load.formatted) return 'empty'
  if (load.clear) return 'clear'
  return load.sizeBytes >= capacityBytes * fillLimit ? 'full' : 'in-use'
}

/** Whether a card may be put into a camera on the day. */
export const isUsable = ({ state, promisedTo }: GearCard): boolean =>
  (state === 'empty' || state === 'clear') && promisedTo === undefined
