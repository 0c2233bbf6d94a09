import { useState } from 'react'
import { modesForDay, type CameraBudget, type PlanGear, type PlanRules } from '../../../core/shoot/plan'
import { bitsPerSecondOf } from '../../../core/shoot/mode'
import { formatBitRate } from '../../../core/units/quantity'
import { Button } from '../../parts/controls/Button'
import { Sheet } from '../../parts/layers/Sheet'
import type { PlanDraft } from './usePlanDraft'

interface OtherModesProps {
  readonly budget: CameraBudget
  readonly gear: PlanGear
  readonly rules: PlanRules
  readonly draft: PlanDraft
}

/** Which modes of a camera carry the planned day on the cards that it has. */
export function OtherModes({ budget, gear, rules, draft }: OtherModesProps) {
  const [open, setOpen] = useState(false)
  const { camera, rows } = budget
  const take = (modeId: string) => {
    draft.change((plan) => ({
      ...plan,
      takes: plan.takes.map((one) => (one.cameraId === camera.id ? { ...one, modeId } : one)),
    }))
    setOpen(false)
  }
  return (
    <>
      <Button look="quiet" className="!min-h-7 !px-0 !py-0" onClick={() => setOpen(true)}>
        Which mode fits the day?
      </Button>
      <Sheet
        title={`Modes of ${camera.name}`}
        about="The planned takes on the cards that are in it now, without the spare."
        open={open}
        onClose={() => setOpen(false)}
      >
        <ul>
          {modesForDay(budget, gear, rules).map(({ mode, fits, sentence }) => (
            <li key={mode.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-2">
              <span className="grow">
                <span className="block font-semibold">
                  {mode.name}{' '}
                  <span className="figure font-normal text-quiet">{formatBitRate(bitsPerSecondOf(mode))}</span>
                </span>
                <span className={fits ? 'text-good' : 'text-stop'}>{sentence}</span>
              </span>
              {rows.every((row) => row.mode.id === mode.id) ? (
                <span className="text-quiet">planned</span>
              ) : (
                <Button onClick={() => take(mode.id)}>Plan with {mode.name}</Button>
              )}
            </li>
          ))}
        </ul>
      </Sheet>
    </>
  )
}
