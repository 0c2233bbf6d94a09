import { expandedBytes, FIRST_GUESS, offloadSeconds } from '../../../core/shoot/measured'
import type { PlanBudget } from '../../../core/shoot/plan'
import { counted, formatBytes, formatByteRate, formatLength } from '../../../core/units/quantity'
import type { PlanView } from '../../../contract/shoot'

interface EveningProps {
  readonly budget: PlanBudget
  readonly offload: PlanView['offload']
  readonly expansion: PlanView['expansion']
}

/** What the evening will ask for: how long cards take to empty, and what raw frames become on the drive. */
export function Evening({ budget, offload, expansion }: EveningProps) {
  const raw = budget.cameras
    .flatMap((one) => one.rows)
    .filter((row) => row.mode.picture?.coding.kind === 'raw')
    .reduce((sum, row) => sum + row.sizeBytes, 0)
  const measured = offload.of.filter((one) => !one.outlier).length
  return (
    <div className="mt-5 max-w-3xl">
      <p>
        In the evening: {formatBytes(budget.sizeBytes)} take about{' '}
        <strong>{formatLength(Math.ceil(offloadSeconds(budget.sizeBytes, offload.value) / 60) * 60)}</strong> to copy
        and prove at {formatByteRate(offload.value)}{' '}
        <span className="text-quiet">
          ({offload.guessed ? 'a first guess until the first copy' : `the middle of ${counted(measured, 'time')}`})
        </span>
        .
        {raw > 0 && (
          <>
            {' '}
            {formatBytes(raw)} of raw frames become about{' '}
            <strong>{formatBytes(expandedBytes(raw, expansion.value))}</strong> after export{' '}
            <span className="text-quiet">
              (
              {expansion.guessed
                ? `${FIRST_GUESS.expansion} times, a first guess`
                : `${expansion.value.toFixed(2)} times, as measured`}
              )
            </span>
            .
          </>
        )}
      </p>
      <p className="mt-3 text-sm text-quiet">
        Cards are counted for whole takes up to the fill limit, the dotted line. Bytes in powers of ten as on cards,
        with powers of two as many file browsers show them. Lithium batteries, drones, ladders and mains near water:
        follow local rules and the maker’s instructions. Filming people and places needs their permission.
      </p>
    </div>
  )
}
