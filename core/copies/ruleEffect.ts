import { counted } from '../units/quantity'

/** A card that is not formatted, before and after a change of its rule. */
export interface Judged {
  readonly label: string
  readonly before: boolean
  readonly after: boolean
}

const SHOWN = 5
const quoted = (cards: readonly Judged[]) => {
  const names = cards.slice(0, SHOWN).map(({ label }) => `“${label}”`)
  const more = cards.length - names.length
  return new Intl.ListFormat('en-GB').format(more > 0 ? [...names, counted(more, 'other')] : names)
}

/**
 * What a change of rules would do to the cards that obey it, in a sentence; `newest` where no more than so many were
 * looked at.
 */
export function effectSentence(cards: readonly Judged[], newest?: number): string {
  const sentence = effectOf(cards)
  return newest === undefined ? sentence : `${sentence} Only the newest ${newest} cards were looked at.`
}

function effectOf(cards: readonly Judged[]): string {
  const all = counted(cards.length, 'card')
  if (cards.length === 0) return 'No card that is not formatted would be asked anything else.'
  const turned = (to: boolean) => cards.filter(({ before, after }) => before !== after && after === to)
  const part = (changed: readonly Judged[], to: string) =>
    changed.length === 0 ? [] : [`${changed.length} of ${all} would turn to ${to}: ${quoted(changed)}`]
  const parts = [...part(turned(false), 'no'), ...part(turned(true), 'yes')]
  return parts.length === 0 ? `With it the answer of none of ${all} would change.` : `With it ${parts.join('; ')}.`
}

/** Whether some card would turn to a yes that is a no now. */
export const isWeaker = (cards: readonly Judged[]): boolean => cards.some(({ before, after }) => after && !before)
