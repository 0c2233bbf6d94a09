import { useState } from 'react'
import { useLocation } from 'react-router'
import { TASK_KINDS } from '../../contract/taskKinds'
import type { TaskView } from '../../contract/tasks'
import { Notice } from '../parts/layers/Notice'
import { isOpen, useTasks } from '../trade/queries'
import { TaskLine } from '../trade/TaskLine'
import { useStateNow } from './StateLine'

/** Good news goes by itself; it stays at its station. Trouble stays until somebody has seen it. */
const GOOD_NEWS_MS = 10_000

const isTrouble = (task: TaskView) => task.state === 'failed' || task.state === 'set-aside' || task.troubles.length > 0

/** Work under way, and the last thing that ended since the page was opened, at the foot of every page. */
export function TaskTray() {
  const { data: tasks = [] } = useTasks()
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
  if (open.length === 0 && !ended) return null
  return (
    <section aria-label="Work" className="pointer-events-auto border-t border-ink bg-sheet">
      <div className="mx-auto max-w-[76rem] space-y-2 px-4 py-3 sm:px-8">
        {open.length > 0 && state?.goodNight && <p className="font-semibold">{state.goodNight}</p>}
        {open.slice(0, 3).map((task) => (
          <TaskLine key={task.id} task={task} />
        ))}
        {open.length > 3 && <p className="text-quiet">and {open.length - 3} more waiting</p>}
        {open.length === 0 && ended && (
          <Notice
            key={ended.id}
            staysMs={isTrouble(ended) ? Infinity : GOOD_NEWS_MS}
            onDismiss={() => dismiss(ended.id)}
          >
            <TaskLine task={ended} />
          </Notice>
        )}
      </div>
    </section>
  )
}
