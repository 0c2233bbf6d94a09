import { counted, formatBytes, inWords, upperFirst } from '../units/quantity'
import type { PlanBudget } from './plan'
import { shortages, type Shortage } from './shortages'

export interface PlanAnswer {
  readonly sentence: string
  readonly why: string
  readonly short: readonly Shortage[]
}

const cardsAre = (count: number) => `${inWords(count)} ${count === 1 ? 'card is' : 'cards are'}`

/**
 * Whether every take of the day has a card: how many are too slow, how many hold something that is not safe, and how
 * many are missing.
 */
export function planAnswer(budget: PlanBudget): PlanAnswer {
  const short = shortages(budget)
  const sure = budget.cameras.every((one) => one.sure || one.missing === 0)
  const parts = [
    budget.tooSlow.length > 0 ? `${cardsAre(budget.tooSlow.length)} too slow` : '',
    budget.notClear.length > 0 ? `${cardsAre(budget.notClear.length)} not clear` : '',
    budget.promised.length > 0 ? `${cardsAre(budget.promised.length)} planned for another shoot of that day` : '',
    budget.missing > 0
      ? `${sure ? '' : 'perhaps '}${inWords(budget.missing)} more ` +
        `${budget.missing === 1 ? 'card is' : 'cards are'} needed`
      : '',
    short.some((one) => one.kind === 'longer-than-card') ? 'a take is longer than its card' : '',
    short.some((one) => one.kind === 'internal') ? 'an internal medium is too small' : '',
  ].filter(Boolean)
  const bytes = formatBytes(budget.sizeBytes)
  if (parts.length > 0) {
    const last = parts.length > 1 ? ` and ${parts.at(-1)}` : ''
    const sentence = `${upperFirst(parts.length > 1 ? parts.slice(0, -1).join(', ') : (parts[0] ?? ''))}${last}.`
    // “One card is too slow and two are not clear” reads better than the word twice.
    return {
      sentence: sentence.replaceAll(/(and|,) (\w+) cards? (is|are) /g, '$1 $2 $3 '),
      why: short.map((one) => one.sentence).join(' '),
      short,
    }
  }
  const spare = budget.cameras.flatMap((one) => one.cards).filter((one) => one.spare).length
  if (budget.cards === 0)
    return {
      sentence: `The day comes to ${bytes}, and every device has room for it.`,
      why: 'No cards are needed.',
      short,
    }
  return {
    sentence: `Every take has its card: ${counted(budget.cards, 'card')} for ${bytes}.`,
    why:
      `${spare > 0 ? `${counted(spare, 'card')} to spare. ` : ''}None is filled above the limit, none ` +
      'is used twice.',
    short,
  }
}
