import { object } from 'yup'
import { ids } from './id'
import { ask, order } from './endpoint'
import { text } from './text'

/** A card of a rig. */
export interface RigCard {
  readonly loadId: string
  readonly label: string
}

/** Rigs of a production: cameras with a card for each lens. */
export interface RigsView {
  readonly rigs: readonly {
    readonly id: string
    readonly name: string
    /** Whether all lenses filmed the same takes, and which is the odd one. */
    readonly sentence: string
    /** The first lens first. */
    readonly cards: readonly (RigCard & { readonly isOdd: boolean })[]
  }[]
  /** Cards that seem to be one rig, and that nobody has answered for; empty where none do. */
  readonly proposed: readonly RigCard[]
  /** Cards in no rig, that could be tied into one. */
  readonly loose: readonly RigCard[]
}

const MOST_LENSES = 40
const loadIds = (least: number) =>
  ids('That is no card.')
    .min(least, `Choose at least ${least} cards.`)
    .max(MOST_LENSES, `A rig has ${MOST_LENSES} lenses at most.`)
    .required('Choose its cards.')

/** Which cards are the lenses of a rig, the first lens first. */
export const newRig = object({
  name: text().required('Name the rig.').max(60, 'Keep the name under 60 characters.'),
  loadIds: loadIds(2).test('once', 'A card is one lens only.', (ids) => !ids || new Set(ids).size === ids.length),
}).noUnknown()

export const noRig = object({ loadIds: loadIds(1) }).noUnknown()

const changes = ['cards', 'review', 'productions', 'copies'] as const

/** Rigs of many cards. 404 for what is not known. */
export const rigsApi = {
  all: ask<RigsView>()('cards', '/productions/:id/rigs'),
  /** Ties cards into a rig. 409 where one is in a rig already; 422 on `name` where it is taken. */
  tie: order()('POST', '/productions/:id/rigs', { changes, body: newRig }),
  /** These cards are none: they are not proposed again. */
  refuse: order()('POST', '/productions/:id/no-rig', { changes, body: noRig }),
  untie: order()('DELETE', '/rigs/:id', { changes }),
}
