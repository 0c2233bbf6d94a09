import { Copy, Trash2 } from 'lucide-react'
import { changeCards, changeTakes, withoutTakes } from '../../../core/shoot/planChanges'
import {
  secondsLeft,
  type CameraBudget,
  type PlanGear,
  type PlanRules,
  type TakesBudget,
} from '../../../core/shoot/plan'
import {
  counted,
  formatBinaryBytes,
  formatBytes,
  formatByteRate,
  formatLength,
  readLength,
} from '../../../core/units/quantity'
import type { Typed } from '../../../core/units/typed'
import { IconButton } from '../../parts/controls/IconButton'
import { Cell, readCount, readSurplus } from '../../parts/controls/Cell'
import { Choice } from '../../parts/controls/Choice'
import { Tick } from '../../parts/controls/Tick'
import { CardStrip } from './CardStrip'
import { OtherModes } from './OtherModes'
import type { PlanDraft } from './usePlanDraft'

interface CameraPlanProps {
  readonly budget: CameraBudget
  readonly gear: PlanGear
  readonly rules: PlanRules
  readonly draft: PlanDraft
  readonly onCards: () => void
}

const MOST_SECONDS = 86_400

function readTake(typed: string): Typed<number> {
  const read = readLength(typed)
  if ('fault' in read) return read
  const value = Math.round(read.value)
  return value >= 1 && value <= MOST_SECONDS ? { value } : { fault: 'From a second to a day.' }
}

const surplus = (factor: number) => `${Number(((factor - 1) * 100).toFixed(1))} %`

/** One camera of the plan: its takes, what they come to, and its cards to scale. */
export function CameraPlan({ budget, gear, rules, draft, onCards }: CameraPlanProps) {
  const { camera, rows, planned } = budget
  const first = rows[0]
  const left = first ? secondsLeft(budget, first.mode, rules) : 0
  return (
    <section aria-label={camera.name} className="border-b border-rule py-4">
      <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
        <h2 className="text-xl">{camera.name}</h2>
        <p>
          <span className="figure">{formatBytes(budget.sizeBytes)}</span>{' '}
          <span className="text-quiet">
            ({formatBinaryBytes(budget.sizeBytes)}), {formatLength(budget.seconds)},{' '}
            {formatByteRate(budget.bytesPerSecond)}
            {camera.media === 'cards' && budget.neededClass && `: ${budget.neededClass}`}
          </span>
        </p>
      </div>
      {rows.map((row, at) => (
        <TakesRow key={draft.plan.takes.indexOf(row.planned)} row={row} head={at === 0} budget={budget} draft={draft} />
      ))}
      {camera.media === 'cards' ? (
        <CardStrip budget={budget} fillLimit={rules.fillLimit} onPress={onCards} />
      ) : (
        <p className="mt-2 text-quiet">
          {camera.media === 'tape'
            ? `${formatLength(budget.seconds)} of tape, captured in as much time. Set the automatic stop above it.`
            : `Recorded inside: ${formatBytes(camera.internalBytes)} in all.`}
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-sm">
        {camera.media !== 'tape' && first && (
          <span className={left > 0 ? '' : 'text-quiet'} data-testid={`left-${camera.name}`}>
            {left > 0
              ? `Room for ${formatLength(left)} more in ${first.mode.name}.`
              : `No room for more in ${first.mode.name}.`}
          </span>
        )}
        {camera.slots === 2 && camera.media === 'cards' && (
          <Tick
            checked={planned.bothSlots}
            onChange={(bothSlots) => draft.change((plan) => changeCards(plan, camera.id, { bothSlots }))}
          >
            Record to both slots
          </Tick>
        )}
        {camera.modes.length > 1 && <OtherModes budget={budget} gear={gear} rules={rules} draft={draft} />}
      </div>
    </section>
  )
}

interface TakesRowProps {
  readonly row: TakesBudget
  readonly head: boolean
  readonly budget: CameraBudget
  readonly draft: PlanDraft
}

function TakesRow({ row, head, budget, draft }: TakesRowProps) {
  const { camera } = budget
  const { planned } = row
  const at = draft.plan.takes.indexOf(planned)
  const change = (more: Partial<typeof planned>) => draft.change((plan) => changeTakes(plan, at, more))
  const name = `${camera.name}, row ${budget.rows.indexOf(row) + 1}`
  const top = (words: string) => (head ? words : undefined)
  return (
    <div className="mb-2 flex flex-wrap items-end gap-x-3 gap-y-2">
      <Choice
        label={head ? 'Mode' : `Mode of ${name}`}
        hideLabel={!head}
        className="w-56"
        value={planned.modeId}
        onChange={(modeId) => change({ modeId })}
        options={camera.modes
          .filter((mode) => !mode.away || mode.id === planned.modeId)
          .map((mode) => ({ value: mode.id, label: mode.name }))}
      />
      <Cell
        label={`Length of a take, ${name}`}
        head={top('A take')}
        className="w-28"
        shown={formatLength(planned.secondsPerTake)}
        read={readTake}
        onValue={(secondsPerTake) => change({ secondsPerTake })}
      />
      <Cell
        label={`Takes, ${name}`}
        head={top('Takes')}
        className="w-16"
        shown={String(planned.takes)}
        read={readCount(1, 1000)}
        onValue={(takes) => change({ takes })}
      />
      <Cell
        label={`Repeats, ${name}`}
        head={top('Repeats')}
        className="w-16"
        shown={String(planned.angles)}
        read={readCount(1, 50)}
        onValue={(angles) => change({ angles })}
      />
      <Cell
        label={`Runs over, ${name}`}
        head={top('Runs over')}
        className="w-20"
        shown={surplus(planned.factor)}
        read={readSurplus}
        onValue={(factor) => change({ factor })}
      />
      <p className="min-h-8 self-end pb-1 text-sm text-quiet">
        {counted(row.count, 'take')} of {formatBytes(row.takeBytes)}
      </p>
      <span className="ml-auto flex">
        <IconButton
          icon={Copy}
          label={`Another row like ${name}`}
          hint="Another row like this"
          onClick={() => draft.change((plan) => ({ ...plan, takes: [...plan.takes, { ...planned }] }))}
        />
        <IconButton
          icon={Trash2}
          label={`Remove ${name}`}
          hint="Remove this row"
          onClick={() => draft.change((plan) => withoutTakes(plan, at))}
        />
      </span>
    </div>
  )
}
