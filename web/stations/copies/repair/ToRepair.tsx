import { useState } from 'react'
import { repairApi } from '../../../../contract/repair'
import { useAsk } from '../../../parts/asking/useAsk'
import { Button } from '../../../parts/controls/Button'
import { isOpen, useTasks } from '../../../trade/queries'
import { TaskLine } from '../../../trade/TaskLine'
import { RepairSheet } from './RepairSheet'

/** What is not as it was proved, of one load or of all, and the way to mend it; nothing where all is well. */
export function ToRepair({ loadId }: { loadId: string | null }) {
  const { data: plan } = useAsk(repairApi.plan, {}, { query: { loadId: loadId ?? '' } })
  const { data: tasks = [] } = useTasks()
  const [open, setOpen] = useState(false)
  const running = tasks.find((task) => task.kind === 'repair' && isOpen(task))
  if (running)
    return (
      <div className="mb-6 border-y border-rule py-3" aria-live="polite">
        <TaskLine task={running} />
      </div>
    )
  if (!plan || plan.lost.length + plan.unsettled.length + plan.steps.length + plan.waiting.length === 0) return null
  return (
    <section
      aria-label="To repair"
      className="mb-4 flex flex-wrap items-center justify-between gap-x-6 gap-y-2 border-y border-rule py-2"
    >
      <p className={`max-w-3xl font-semibold ${plan.lost.length > 0 ? 'text-stop' : 'text-doubt'}`}>{plan.sentence}</p>
      <Button onClick={() => setOpen(true)}>See what is to be repaired …</Button>
      {open && <RepairSheet plan={plan} loadId={loadId} onClose={() => setOpen(false)} />}
    </section>
  )
}
