import { ask, order } from './endpoint'

/** What is true of everything at this moment. */
export interface StateView {
  /** What is under way and what waits, in one sentence; `null` while nothing is. */
  readonly goodNight: string | null
  /** What a person must know of this computer: it slept, its disk is nearly full. */
  readonly notices: readonly string[]
  /** What of the demo is still being made; `null` when all is there. */
  readonly demo: string | null
  /** There are simulated devices to practise with. */
  readonly hasBench: boolean
}

/** What was let go of, or who holds it. */
export interface LetGoView {
  /** It may be pulled out; else the sentence says what is to be done first. */
  readonly out: boolean
  readonly sentence: string
}

export const stateApi = {
  state: ask<StateView>()('tasks', '/state'),
  /**
   * Lets go of a card: waits for what is written, unmounts it where the system allows. 409 with the names of who holds
   * it.
   */
  letGoOfReader: order<LetGoView>()('POST', '/readers/:id/let-go', { status: 200, changes: ['cards', 'copies'] }),
  /** The same of a drive. */
  letGoOfVolume: order<LetGoView>()('POST', '/volumes/:id/let-go', {
    status: 200,
    changes: ['storage', 'copies', 'productions'],
  }),
}
