import { ChevronUp } from 'lucide-react'
import { Collapsible } from 'radix-ui'
import { useState } from 'react'
import { useLocation } from 'react-router'
import { workLine } from '../../core/line/workLine'
import { clockIn, zoneHere } from '../../core/units/day'
import { TASK_KINDS } from '../../contract/taskKinds'
import type { TaskView } from '../../contract/tasks'
import { Notice } from '../parts/layers/Notice'
import { isOpen, useTasks } from '../trade/queries'
import { TaskLine } from '../trade/TaskLine'
import { useStateNow } from './StateLine'

/** Good news goes by itself; it stays at its station. Trouble stays until somebody has seen it. */
const GOOD_NEWS_MS = 10_000

/** Of more tasks than these the others are counted. */
const MOST_SHOWN = 20

const isTrouble = (task: TaskView) => task.state === 'failed' || task.state === 'set-aside' || task.troubles.length > 0

/** Work under way, and the last thing that ended since the page was opened, at the foot of every page. */
export function TaskTray() {
  const { data: tasks = [], dataUpdatedAt } = useTasks()
  const { data: state } = useStateNow()
  const { pathname } = useLocation()
  const [dismissed, setDismissed] = useState<ReadonlySet<string>>(new Set())
  const [since] = useState(() => Date.now())
  // A station shows its own work itself.
  const elsewhere = (task: TaskView) =>
    !(
      pathname.endsWith(`/${TASK_KINDS[task.kind].station}`) &&
      task.productionId !== null &&
      pathname.includes(task.productionId)
    )
  const open = tasks.filter((task) => isOpen(task) && elsewhere(task))
  const dismiss = (...ids: readonly string[]) => setDismissed((before) => new Set([...before, ...ids]))
  const news = tasks.filter((task) => task.endedAt && Date.parse(task.endedAt) > since && !dismissed.has(task.id))
  // What ended while its own station was open has been seen.
  const seen = news.filter((task) => !elsewhere(task)).map((task) => task.id)
  if (seen.length > 0) dismiss(...seen)
  const unseen = news.filter(elsewhere)
  const ended = unseen.find(isTrouble) ?? unseen[0]
  const demo = state?.demo ?? null
  if (open.length === 0 && !ended && demo === null) return null
  return (
    <section aria-label="Work" className="pointer-events-auto border-t border-ink bg-sheet">
      <div className="mx-auto max-w-[76rem] space-y-2 px-4 py-1.5 sm:px-8">
        {open.length > 0 && <OpenTasks tasks={open} now={dataUpdatedAt} goodNight={state?.goodNight ?? null} />}
        {open.length === 0 && ended && (
          <Notice
            key={ended.id}
            staysMs={isTrouble(ended) ? Infinity : GOOD_NEWS_MS}
            onDismiss={() => dismiss(ended.id)}
          >
            <TaskLine task={ended} />
          </Notice>
        )}
        {open.length === 0 && !ended && <p className="text-quiet">{demo}</p>}
      </div>
    </section>
  )
}

interface OpenTasksProps {
  readonly tasks: readonly TaskView[]
  /** When they were as they are here, in milliseconds. */
  readonly now: number
  readonly goodNight: string | null
}

/** All work under way in one line; a press shows each piece of it. */
function OpenTasks({ tasks, now, goodNight }: OpenTasksProps) {
  const clock = (seconds: number) => clockIn(zoneHere(), now + seconds * 1000)
  const works = tasks.flatMap(({ state, progress }) =>
    state === 'running' || state === 'queued' || state === 'paused' ? [{ state, progress }] : [],
  )
  return (
    <Collapsible.Root>
      <Collapsible.Trigger className="group flex min-h-8 w-full items-center gap-x-4 text-left">
        <ChevronUp className="size-4 shrink-0 group-data-[state=open]:rotate-180" aria-hidden />
        <span className="shrink-0 font-semibold">{workLine(works, clock)}</span>
        <span className="truncate text-quiet max-sm:hidden">{goodNight}</span>
      </Collapsible.Trigger>
      <Collapsible.Content className="max-h-[50vh] space-y-2 overflow-y-auto pb-2">
        {goodNight && <p>{goodNight}</p>}
        {tasks.slice(0, MOST_SHOWN).map((task) => (
          <TaskLine key={task.id} task={task} />
        ))}
        {tasks.length > MOST_SHOWN && <p className="text-quiet">and {tasks.length - MOST_SHOWN} more waiting</p>}
      </Collapsible.Content>
    </Collapsible.Root>
  )
}
