import { Pencil, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { planAnswer } from '../../../core/shoot/sentence'
import { frameRateLabel, parseFrameRate } from '../../../core/units/frameRate'
import { counted, formatBinaryBytes, formatBytes, formatByteRate, formatLength } from '../../../core/units/quantity'
import { shootApi, type CameraPlanView } from '../../../contract/shoot'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/Ask'
import { Button } from '../../parts/Button'
import { Confirm } from '../../parts/Confirm'
import { Empty } from '../../parts/Empty'
import { Sheet } from '../../parts/Sheet'
import { useSend } from '../../parts/useSend'
import { PlanForm } from './PlanForm'
import { usePlans } from './queries'
import { Wide } from '../../parts/Wide'

type Open = { readonly plan: CameraPlanView | undefined } | undefined

/** Station 1: what will be recorded, how many bytes and cards that is, and whether the cards keep up. */
export default function Shoot({ productionId }: { productionId: string }) {
  const plans = usePlans(productionId)
  const [open, setOpen] = useState<Open>()
  const add = () => setOpen({ plan: undefined })
  return (
    <>
      <Ask query={plans}>
        {(all) =>
          all.length === 0 ? (
            <Empty
              title="Plan what will be recorded."
              action={
                <Button look="primary" onClick={add}>
                  Add a camera
                </Button>
              }
            >
              Frame size, rate, bit rate, minutes and takes give the bytes, the cards to carry, the speed they need and
              the shutter to set. Arrive with enough cards that none is used twice.
            </Empty>
          ) : (
            <PlanList plans={all} onAdd={add} onChange={(plan) => setOpen({ plan })} />
          )
        }
      </Ask>
      <Sheet
        title={open?.plan ? `Change ${open.plan.camera}` : 'Add a camera'}
        about="Write units as you like: 100 Mb/s, 12 min, 128 GB. The result moves while you type."
        open={open !== undefined}
        onClose={() => setOpen(undefined)}
        width="max-w-2xl"
      >
        {open && <PlanForm productionId={productionId} plan={open.plan} onDone={() => setOpen(undefined)} />}
      </Sheet>
    </>
  )
}

function PlanList({
  plans,
  onAdd,
  onChange,
}: {
  plans: readonly CameraPlanView[]
  onAdd: () => void
  onChange: (plan: CameraPlanView) => void
}) {
  const send = useSend(shootApi.removePlan)
  const [leaving, setLeaving] = useState<CameraPlanView>()
  const { sentence, why } = planAnswer(plans)
  return (
    <>
      <Answer
        why={why}
        action={
          <Button look="primary" onClick={onAdd}>
            Add a camera
          </Button>
        }
      >
        {sentence}
      </Answer>
      {leaving && (
        <Confirm
          title={`Remove ${leaving.camera} from the plan?`}
          about="Only the plan goes; nothing that was filmed or copied is touched."
          action={`Remove ${leaving.camera}`}
          onAction={() => send.mutate({ params: { id: leaving.id } }, { onSuccess: () => setLeaving(undefined) })}
          busy={send.isPending}
          error={send.error}
          onClose={() => setLeaving(undefined)}
        >
          <p className="mb-5">
            {leaving.takes} × {formatLength(leaving.secondsPerTake)}, {formatBytes(leaving.budget.sizeBytes)} on{' '}
            {counted(leaving.budget.cards, 'card')} will no longer be counted.
          </p>
        </Confirm>
      )}
      <Wide label="Cameras">
        <table className="min-w-[58rem]">
          <thead>
            <tr>
              <th>Camera</th>
              <th>Frame and rate</th>
              <th className="text-right">Stream</th>
              <th className="text-right">Length</th>
              <th className="text-right">Bytes</th>
              <th className="text-right">Cards</th>
              <th>Card speed</th>
              <th>Shutter</th>
              <th>
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {plans.map((plan) => {
              const { budget } = plan
              const rate = parseFrameRate(plan.rate)
              return (
                <tr key={plan.id}>
                  <td className="text-lg font-bold">{plan.camera}</td>
                  <td className="figure whitespace-nowrap">
                    {plan.widthPx}×{plan.heightPx}, {rate ? frameRateLabel(rate) : plan.rate}
                  </td>
                  <td className="figure text-right whitespace-nowrap">{formatByteRate(budget.streamBytesPerSecond)}</td>
                  <td className="figure text-right whitespace-nowrap">
                    {plan.takes} × {formatLength(plan.secondsPerTake)}
                    <span className="block text-quiet">{formatLength(budget.seconds)}</span>
                  </td>
                  <td className="figure text-right whitespace-nowrap">
                    {formatBytes(budget.sizeBytes)}
                    <span className="block text-quiet">{formatBinaryBytes(budget.sizeBytes)}</span>
                  </td>
                  <td className="figure text-right whitespace-nowrap">
                    {budget.cards} × {formatBytes(plan.cardBytes)}
                    <span className="block text-quiet">
                      {budget.takesPerCard > 0 ? `${counted(budget.takesPerCard, 'take')} each` : 'takes go over cards'}
                    </span>
                  </td>
                  <td>
                    {budget.sustained ? (
                      <span className="text-good">keeps up</span>
                    ) : (
                      <strong className="text-stop">too slow</strong>
                    )}
                    <span className="block text-sm text-quiet">
                      {budget.neededClass ? `needs ${budget.neededClass}` : 'above every published class'}
                    </span>
                  </td>
                  <td className="figure">1/{budget.shutter.stop}</td>
                  <td className="text-right whitespace-nowrap !pr-0">
                    <Button
                      look="quiet"
                      className="!px-1.5"
                      aria-label={`Change ${plan.camera}`}
                      onClick={() => onChange(plan)}
                    >
                      <Pencil className="size-4" aria-hidden />
                    </Button>
                    <Button
                      look="quiet"
                      className="!px-1.5"
                      aria-label={`Remove ${plan.camera} from the plan`}
                      onClick={() => setLeaving(plan)}
                    >
                      <Trash2 className="size-4" aria-hidden />
                    </Button>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </Wide>
      <p className="mt-6 max-w-2xl text-sm text-quiet">
        Cards are counted for whole takes. Speeds are compared with the published video speed classes (V6 to V90) and
        express speed classes (E150 to E600). Bytes in powers of ten as on cards and drives, with powers of two below as
        many file browsers show them. Lithium batteries, drones, ladders and mains near water: follow local rules and
        the maker’s instructions. Filming people and places needs their permission.
      </p>
    </>
  )
}
