import { Plus, Wand2 } from 'lucide-react'
import { useState } from 'react'
import { assignCards } from '../../../core/shoot/assign'
import { withTakes } from '../../../core/shoot/planChanges'
import { planBudget, type PlanGear, type RecordingPlan } from '../../../core/shoot/plan'
import { planAnswer } from '../../../core/shoot/sentence'
import { planGear, type CardView, type GearView } from '../../../contract/gear'
import { shootApi, type PlanView } from '../../../contract/shoot'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { Empty } from '../../parts/Empty'
import { useGear } from '../../trade/queries'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { AddCamera } from './AddCamera'
import { CameraPlan } from './CameraPlan'
import { CardChoice } from './CardChoice'
import { Evening } from './Evening'
import { FromEarlier } from './FromEarlier'
import { usePlan } from './queries'
import { usePlanDraft, type PlanDraft } from './usePlanDraft'

/** Station 1: what will be recorded, and whether every take has its card. */
export default function Shoot({ productionId }: { productionId: string }) {
  const plan = usePlan(productionId)
  const gear = useGear()
  return (
    <Ask query={plan}>
      {(view) => <Ask query={gear}>{(book) => <Plan productionId={productionId} view={view} book={book} />}</Ask>}
    </Ask>
  )
}

interface PlanProps {
  readonly productionId: string
  readonly view: PlanView
  readonly book: GearView
}

type Open = { readonly what: 'camera' } | { readonly what: 'cards'; readonly cameraId: string } | undefined

function Plan({ productionId, view, book }: PlanProps) {
  const draft = usePlanDraft(productionId, view)
  const [open, setOpen] = useState<Open>()
  const gear = planGear(book, { id: productionId, shootOn: view.shootOn })
  const budget = planBudget(draft.plan, gear, book.rules)
  const { sentence, why, short } = planAnswer(budget)
  const add = () => setOpen({ what: 'camera' })
  const close = () => setOpen(undefined)
  const addButton = (look: 'primary' | 'plain') => (
    <Button look={look} onClick={add}>
      <Plus className="size-4" aria-hidden />
      Add a camera
    </Button>
  )
  const fixable = short.some((one) => one.kind !== 'internal' && one.kind !== 'longer-than-card')
  const chosen = open?.what === 'cards' ? budget.cameras.find((one) => one.camera.id === open.cameraId) : undefined
  return (
    <>
      {budget.cameras.length === 0 ? (
        <FirstCamera productionId={productionId} view={view} onAdd={add} />
      ) : (
        <>
          <Answer
            why={why}
            action={
              fixable ? (
                <Button look="primary" onClick={() => draft.change((plan) => choose(plan, gear, book, productionId))}>
                  <Wand2 className="size-4" aria-hidden />
                  Choose cards that fit
                </Button>
              ) : (
                addButton('primary')
              )
            }
          >
            {sentence}
          </Answer>
          <KeepingTrouble draft={draft} />
          <div className="border-t border-ink">
            {budget.cameras.map((one) => (
              <CameraPlan
                key={one.camera.id}
                budget={one}
                gear={gear}
                rules={book.rules}
                draft={draft}
                onCards={() => setOpen({ what: 'cards', cameraId: one.camera.id })}
              />
            ))}
          </div>
          {fixable && <div className="mt-4">{addButton('plain')}</div>}
          <Evening budget={budget} offload={view.offload} expansion={view.expansion} />
        </>
      )}
      {open?.what === 'camera' && (
        <AddCamera
          book={book}
          onClose={close}
          onAdd={(cameraId, seconds) => {
            draft.change((plan) => withCamera(plan, { cameraId, seconds, view, gear, book, productionId }))
            close()
          }}
        />
      )}
      {chosen && (
        <CardChoice budget={chosen} book={book} gear={gear} productionId={productionId} draft={draft} onClose={close} />
      )}
    </>
  )
}

interface AddedCamera {
  readonly cameraId: string
  readonly seconds: number
  readonly view: PlanView
  readonly gear: PlanGear
  readonly book: GearView
  readonly productionId: string
}

/** A plan with one camera more, recorded as it was last time, and cards for it. */
function withCamera(plan: RecordingPlan, { cameraId, seconds, view, gear, book, productionId }: AddedCamera) {
  const camera = gear.cameras.find((one) => one.id === cameraId)
  if (!camera) return plan
  const added = {
    ...{ camera, seconds },
    cards: book.cards.filter((card) => !card.away),
    before: [...plan.takes, ...view.last.takes].find((one) => one.cameraId === cameraId),
    cardsBefore: view.last.cameras.find((one) => one.cameraId === cameraId),
  }
  return choose(withTakes(plan, added, book.rules), gear, book, productionId)
}

/**
 * Chooses cards: first such as nobody counts on, then such as another day does, since one can be emptied in between.
 */
function choose(plan: RecordingPlan, gear: PlanGear, book: GearView, productionId: string): RecordingPlan {
  const known = (fits: (card: CardView) => boolean) => {
    const ids = new Set(book.cards.filter(fits).map((card) => card.id))
    return { ...gear, cards: gear.cards.filter((card) => ids.has(card.id)) }
  }
  const inside = new Set(plan.cameras.flatMap((one) => one.cardIds))
  const free = known((card) => inside.has(card.id) || card.plannedFor.every((one) => one.productionId === productionId))
  return assignCards(
    assignCards(plan, free, book.rules),
    known(() => true),
    book.rules,
  )
}

function KeepingTrouble({ draft }: { draft: PlanDraft }) {
  if (!draft.error) return null
  return (
    <div className="mb-4">
      <Trouble error={draft.error} />
      <div className="flex gap-3">
        {draft.error.problem.type !== '/problems/changed-elsewhere' && (
          <Button onClick={() => draft.change((plan) => plan)}>Save it now</Button>
        )}
        <Button onClick={draft.reload}>Show it as it is</Button>
      </div>
    </div>
  )
}

function FirstCamera({ productionId, view, onAdd }: { productionId: string; view: PlanView; onAdd: () => void }) {
  const copy = useSend(shootApi.copyPlan)
  return (
    <>
      <Empty
        title="Plan what will be recorded."
        shows="shoot"
        action={
          <>
            <Button look="primary" onClick={onAdd}>
              Add a camera
            </Button>
            {view.earlier.length > 0 && (
              <FromEarlier
                earlier={view.earlier}
                busy={copy.isPending}
                onCopy={(otherId) => copy.mutate({ params: { id: productionId, otherId } })}
              />
            )}
          </>
        }
      >
        Choose a camera of the gear book and type the minutes: bytes, cards and their speed follow. Arrive with enough
        cards that none is used twice.
      </Empty>
      <Trouble error={copy.error} />
    </>
  )
}
