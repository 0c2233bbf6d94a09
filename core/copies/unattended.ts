import { counted } from '../units/quantity'

/** What lies in a reader while nobody watches, with what was done about it. */
export interface WatchedCard {
  readonly name: string
  /** The rule is switched on: else nothing is promised. */
  readonly ruleOn: boolean
  readonly looking: boolean
  /** Why the latest scan of it failed. */
  readonly scanFault: string | undefined
  /** It is of a camera that filmed an earlier load. */
  readonly cameraKnown: boolean
  readonly load:
    | {
        readonly label: string
        readonly lookDone: boolean
        /** Whole verified copies on drives of their own. */
        readonly verified: number
        readonly wrong: number
        readonly played: boolean
        /** Share of a copy that is under way, 0–1. */
        readonly copying: number | undefined
        /** How the copy since the latest scan ended that did not give two proved copies. */
        readonly copyFault: string | undefined
      }
    | undefined
}

/** One of seven states, each in a few words that can be read across a room. */
export type BigState = 'waiting' | 'busy' | 'proved' | 'wrong' | 'unknown' | 'unsafe' | 'danger'

export const BIG_WORDS: Readonly<Record<BigState, string>> = {
  waiting: 'No card is in a reader',
  busy: 'Copying: keep it in',
  proved: 'Proved twice: play one clip',
  wrong: 'Something is wrong: do not format',
  unknown: 'A card needs you',
  unsafe: 'Not everything is safe yet',
  danger: 'Footage is in danger: it comes first',
}

export interface BigCard {
  readonly name: string
  readonly state: BigState
  readonly sentence: string
  /** Share that is done, 0–1, while it is copied. */
  readonly share: number | undefined
  /** What is to be ordered now, where the rule is on. */
  readonly act: 'look' | 'copy' | undefined
}

/**
 * What is said of a card that nobody watches, and what is to be done about it. It is never said that it may be
 * formatted.
 */
export function bigCard({ name, ruleOn, looking, scanFault, cameraKnown, load }: WatchedCard): BigCard {
  const say = (state: BigState, sentence: string, more: Partial<BigCard> = {}): BigCard => ({
    ...{ name, state, sentence, share: undefined, act: undefined },
    ...more,
  })
  if (looking) return say('busy', 'It is being scanned.')
  if (!load) {
    if (scanFault !== undefined) return say('wrong', scanFault)
    if (!ruleOn) return say('unknown', 'It has not been scanned, and the rule is off: scan it yourself.')
    return cameraKnown
      ? say('busy', 'It will be scanned.', { act: 'look' })
      : say('unknown', 'No camera of the gear book is known by its files: scan it yourself, and say what filmed it.')
  }
  if (!load.lookDone) return say('wrong', 'Its scan did not finish. Scan it again.')
  if (load.copying !== undefined)
    return say('busy', 'It is copied to two volumes and read back.', { share: load.copying })
  if (load.wrong > 0 && load.verified >= 2)
    return say(
      'wrong',
      `It is copied twice, but ${counted(load.wrong, 'thing')} ${load.wrong === 1 ? 'is' : 'are'} wrong with it.`,
    )
  if (load.verified >= 2)
    return say(
      'proved',
      load.played
        ? 'The card may be taken out.'
        : 'The card may be taken out. Play one clip from a copy before you decide.',
    )
  if (load.copyFault !== undefined) return say('wrong', load.copyFault)
  if (!ruleOn) return say('unknown', 'It is not proved twice, and the rule is off: copy it yourself.')
  return say('busy', 'It will be copied.', { act: 'copy' })
}

/** Of several cards the state that somebody has to know first. */
export function bigState(cards: readonly Pick<BigCard, 'state'>[]): BigState {
  const order: readonly BigState[] = ['danger', 'wrong', 'unknown', 'busy', 'proved', 'unsafe']
  return order.find((state) => cards.some((card) => card.state === state)) ?? 'waiting'
}
