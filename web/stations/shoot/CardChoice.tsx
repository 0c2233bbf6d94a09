import { withCard, withoutCard } from '../../../core/shoot/assign'
import { CARD_STATE_WORDS, isUsable, PERHAPS_WORDS } from '../../../core/shoot/gear'
import type { CameraBudget, PlanGear } from '../../../core/shoot/plan'
import { speedClassOf } from '../../../core/shoot/recording'
import { counted, formatBytes, formatByteRate } from '../../../core/units/quantity'
import type { CardView, GearView } from '../../../contract/gear'
import { Sheet } from '../../parts/layers/Sheet'
import { Tick } from '../../parts/controls/Tick'
import type { PlanDraft } from './usePlanDraft'

interface CardChoiceProps {
  readonly budget: CameraBudget
  readonly book: GearView
  readonly gear: PlanGear
  readonly productionId: string
  readonly draft: PlanDraft
  readonly onClose: () => void
}

/** Why a card is not the one for this camera, in words; empty when it is. */
function reservation(
  card: CardView,
  { budget, gear, productionId }: CardChoiceProps,
  inCamera: string | undefined,
): string {
  const state = gear.cards.find((one) => one.id === card.id)?.state ?? card.state
  const other = card.plannedFor.find((one) => one.productionId !== productionId)
  if (card.bytesPerSecond < budget.bytesPerSecond)
    return `too slow: ${formatByteRate(budget.bytesPerSecond)} are needed`
  if (!isUsable({ ...card, state })) return CARD_STATE_WORDS[state]
  // What this production filmed is where it belongs.
  if (card.perhaps && card.perhaps.productionId !== productionId) return PERHAPS_WORDS
  if (inCamera) return `in ${inCamera} now`
  return other ? `planned for ${other.title}` : ''
}

/** Which cards of the gear book go into a camera. */
export function CardChoice(props: CardChoiceProps) {
  const { budget, book, draft, onClose } = props
  const { camera, needed, missing, cards: given } = budget
  const bad = given.filter((one) => one.trouble !== undefined).length
  const inside = new Set(budget.planned.cardIds)
  const cards = book.cards
    .filter((card) => !card.away || inside.has(card.id))
    .map((card) => {
      const at = draft.plan.cameras.find((one) => one.cardIds.includes(card.id))?.cameraId
      const other = at === camera.id ? undefined : book.cameras.find((one) => one.id === at)?.name
      return { card, why: reservation(card, props, other) }
    })
    .sort(
      (a, b) =>
        Number(inside.has(b.card.id)) - Number(inside.has(a.card.id)) || Number(a.why !== '') - Number(b.why !== ''),
    )
  return (
    <Sheet
      title={`Cards of ${camera.name}`}
      about={
        `${counted(needed, 'card')} for the takes, and the spare. ` +
        `${[bad > 0 ? `${counted(bad, 'card')} cannot be used` : '', missing > 0 ? `${missing} more ${missing === 1 ? 'card is' : 'cards are'} needed` : ''].filter(Boolean).join(', ') || 'There are enough'}. ` +
        'Each card goes into one camera.'
      }
      open
      onClose={onClose}
    >
      {cards.length === 0 && <p>No card is in the gear book yet: write yours into the locker.</p>}
      <ul>
        {cards.map(({ card, why }) => (
          <li key={card.id} className="border-t border-rule py-2">
            <Tick
              checked={inside.has(card.id)}
              onChange={(checked) =>
                draft.change((plan) => (checked ? withCard(plan, camera.id, card.id) : withoutCard(plan, card.id)))
              }
            >
              <span className="font-semibold">{card.name}</span>{' '}
              <span className="figure text-quiet">
                {formatBytes(card.capacityBytes)} {speedClassOf(card.bytesPerSecond)}
              </span>
              {why !== '' && <span className="block text-sm text-doubt">{why}</span>}
            </Tick>
          </li>
        ))}
      </ul>
    </Sheet>
  )
}
