import { useState } from 'react'
import { Link } from 'react-router'
import { deskItems, GRADE_WORDS, type DeskItem } from '../../../../core/line/desk'
import type { Grade } from '../../../../core/line/needs'
import { STATION_NAMES } from '../../../../core/line/stations'
import type { ProductionView } from '../../../../contract/productions'
import type { VolumeView } from '../../../../contract/storage'
import { TASK_KINDS } from '../../../../contract/taskKinds'
import type { TaskView } from '../../../../contract/tasks'
import { Button } from '../../../parts/controls/Button'

const LOOK: Record<Grade, string> = {
  danger: 'text-stop font-bold',
  unsafe: 'text-stop',
  asks: 'text-doubt',
  todo: 'text-quiet',
  'under-way': 'text-quiet',
}

/** So many fit on a desk beside all else. */
const SHOWN = 6

const endedBadly = (task: TaskView) => task.state === 'failed' || task.state === 'set-aside'

/** Everything that needs somebody, over all productions. */
export function itemsOf(
  productions: readonly ProductionView[],
  tasks: readonly TaskView[],
  volumes: readonly VolumeView[],
): DeskItem[] {
  // Of work that was tried again only the last end counts.
  const last = new Map(tasks.toReversed().map((task) => [`${task.kind} ${task.title}`, task]))
  return deskItems(
    productions.map(({ id, title, needs }) => ({ productionId: id, title, needs })),
    [...last.values()].filter(endedBadly).map((task) => ({
      productionId: task.productionId,
      station: TASK_KINDS[task.kind].station,
      sentence: `${task.title}: ${task.sentence ?? ''}`,
    })),
    volumes.flatMap(({ name, connected, away, budget: { state, sentence } }) =>
      connected && !away && state !== 'roomy' ? [{ name, state, sentence }] : [],
    ),
  )
}

const pathOf = ({ productionId, station, desk }: DeskItem) =>
  productionId === null ? '/locker/drives' : ['/p', productionId, station, ...(desk ? [desk] : [])].join('/')

/** The ranked list, each with where it is done; the first is what the keyboard leads to. */
export function DeskItems({ items }: { items: readonly DeskItem[] }) {
  const [all, setAll] = useState(false)
  const shown = all ? items : items.slice(0, SHOWN)
  return (
    <section aria-label="What needs you" className="min-w-0">
      <div className="mb-1 flex min-h-9 items-center justify-between">
        <h2 className="text-xl">What needs you</h2>
        {items.length > SHOWN && (
          <Button look="quiet" onClick={() => setAll(!all)}>
            {all ? 'Show the first six' : `Show all ${items.length}`}
          </Button>
        )}
      </div>
      <ul className="border-t border-ink">
        {shown.map((item, at) => (
          <li key={item.key} className="border-b border-rule">
            <Link
              to={pathOf(item)}
              data-primary={at === 0 ? '' : undefined}
              className="group grid grid-cols-[1fr_auto] items-center gap-x-4 py-1.5 hover:bg-sheet sm:grid-cols-[6rem_1fr_10rem_4.5rem]"
            >
              <span className={`text-sm max-sm:col-span-2 ${LOOK[item.grade]}`}>{GRADE_WORDS[item.grade]}</span>
              <span className="min-w-0 truncate max-sm:whitespace-normal" title={item.sentence}>
                {item.sentence}
              </span>
              <span className="truncate text-sm text-quiet max-sm:order-last max-sm:col-span-2">{item.of}</span>
              <span className="text-right font-semibold text-accent group-hover:underline">
                {STATION_NAMES[item.station]}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}
