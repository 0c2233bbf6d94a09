import { counted, formatByteRate, formatBytes } from '../units/quantity'
import type { PlanBudget } from './plan'

/** One thing that is short, in a sentence that says what to do. */
export interface Shortage {
  readonly cameraId: string
  readonly kind: 'too-slow' | 'not-clear' | 'promised' | 'missing' | 'longer-than-card' | 'internal'
  readonly sentence: string
}

const CLASS_ABOVE = 'a card above every published class'

/** Everything that is short, the worst first: what cannot record at all before what is too few. */
export function shortages({ cameras }: PlanBudget): Shortage[] {
  const found = cameras.flatMap((budget): Shortage[] => {
    const { camera, neededClass, bytesPerSecond } = budget
    const say = (kind: Shortage['kind'], sentence: string): Shortage => ({ cameraId: camera.id, kind, sentence })
    const size = formatBytes(budget.missingBytes)
    return [
      ...budget.cards
        .filter((one) => one.trouble === 'too-slow')
        .map(({ card }) =>
          say(
            'too-slow',
            `${card.name} is too slow for ${camera.name}: it writes ${formatByteRate(card.bytesPerSecond)}, ` +
              `and ${formatByteRate(bytesPerSecond)} need ${neededClass ?? CLASS_ABOVE}.`,
          ),
        ),
      ...budget.cards
        .filter((one) => one.trouble === 'not-clear')
        .map(({ card }) =>
          say('not-clear', `${card.name} still holds clips that are not safe: prove them first, or take another card.`),
        ),
      ...budget.cards
        .filter((one) => one.trouble === 'promised')
        .map(({ card }) => say('promised', `${card.name} is planned for ${card.promisedTo ?? ''} on the same day.`)),
      ...(budget.longerThanCard
        ? [
            say(
              'longer-than-card',
              `A take of ${camera.name} is longer than a card of ${formatBytes(budget.planned.cardBytes)}, and ` +
                'it stops at a full one.',
            ),
          ]
        : []),
      ...(budget.missing > 0
        ? [
            say(
              'missing',
              `${camera.name} ${budget.sure ? '' : 'perhaps '}lacks ${counted(budget.missing, 'card')} of ` +
                `${size}${budget.openBytes > 0 ? ` for ${formatBytes(budget.openBytes)}` : ', the spare'}.`,
            ),
          ]
        : []),
      ...(budget.internalShort > 0
        ? [
            say(
              'internal',
              `${camera.name} holds ${formatBytes(camera.internalBytes)}, and ` +
                `${formatBytes(budget.internalShort)} more are planned: empty it in between, or plan less.`,
            ),
          ]
        : []),
    ]
  })
  const order: Shortage['kind'][] = ['too-slow', 'not-clear', 'promised', 'longer-than-card', 'internal', 'missing']
  return found.sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind))
}
