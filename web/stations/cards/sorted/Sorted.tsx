import { clockIn, zoneHere } from '../../../../core/units/day'
import { useState } from 'react'
import { Link } from 'react-router'
import { counted, formatBytes } from '../../../../core/units/quantity'
import { sortedApi, type SortBody, type SortedView } from '../../../../contract/sorted'
import { Answer } from '../../../parts/Answer'
import { Ask } from '../../../parts/asking/Ask'
import { Button } from '../../../parts/controls/Button'
import { DemoPicture } from '../../../parts/DemoPicture'
import { isOpen, useStorage, useTasks } from '../../../trade/queries'
import { TaskLine } from '../../../trade/TaskLine'
import { Trouble } from '../../../parts/Trouble'
import { useAsk } from '../../../parts/asking/useAsk'
import { useSend } from '../../../parts/asking/useSend'
import { FolderBoard } from './FolderBoard'
import { SortRules } from './SortRules'

/**
 * The sorted view: the folders of a production on the edit volume, filled from its proved copies, shown before it is
 * made.
 */
export default function Sorted({ productionId }: { productionId: string }) {
  return (
    <Ask query={useAsk(sortedApi.one, { id: productionId })}>
      {(view) => <View view={view} productionId={productionId} />}
    </Ask>
  )
}

function View({ view, productionId }: { view: SortedView; productionId: string }) {
  const params = { id: productionId }
  const sort = useSend(sortedApi.sort)
  const undo = useSend(sortedApi.undo)
  const set = useSend(sortedApi.set)
  const { data: storage } = useStorage(productionId)
  const { data: tasks = [] } = useTasks()
  const own = tasks.filter((task) => task.kind === 'sort' && task.productionId === productionId)
  const running = own.find(isOpen)
  // The sentence with which the last one ended, as long as this page is open.
  const [since] = useState(() => Date.now())
  const ended = running ? undefined : own.find((task) => Date.parse(task.endedAt ?? '') > since)
  const shown = running ?? ended
  const volume = storage?.volumes.find((one) => one.id === view.volumeId)
  const change = (more: Partial<SortBody>) => {
    if (view.volumeId === null) return
    const { template, aRoll, ...settings } = view.settings
    set.mutate({
      params,
      body: { ...settings, template: [...template], aRoll: [...aRoll], volumeId: view.volumeId, ...more },
    })
  }
  if (view.volumeId === null)
    return (
      <Answer why="The sorted view lies on the edit volume, beside the copies that it is made of.">
        Connect an edit volume first.
      </Answer>
    )
  const nothing = view.clips.length === 0
  return (
    <>
      <Answer
        slim
        why={<Why view={view} productionId={productionId} volumeName={volume?.name ?? 'the volume'} />}
        action={
          <>
            {nothing && (
              <Link
                to={`/p/${productionId}/cards/review`}
                className="font-semibold text-accent underline underline-offset-4"
              >
                Keep clips at Review
              </Link>
            )}
            {view.plan.changes > 0 && (
              <Button
                look="primary"
                disabled={running !== undefined || sort.isPending}
                onClick={() => sort.mutate({ params })}
              >
                Bring the view up to date
              </Button>
            )}
            {view.last && (
              <Button disabled={running !== undefined || undo.isPending} onClick={() => undo.mutate({ params })}>
                Undo the {counted(view.last.files, 'change')} of {clockIn(zoneHere(), Date.parse(view.last.at))}
              </Button>
            )}
          </>
        }
      >
        {nothing && view.unproved === 0 ? 'Keep clips at Review, and they are sorted here.' : view.plan.sentence}
      </Answer>
      <Trouble error={sort.error ?? undo.error ?? set.error} />
      {shown && (
        <div className="mb-6 border-y border-rule py-3">
          <TaskLine task={shown} />
        </div>
      )}
      <div className="grid gap-x-8 gap-y-8 lg:grid-cols-[1fr_20rem]">
        <div>
          {nothing ? <DemoPicture of="sorted" /> : <FolderBoard view={view} productionId={productionId} />}
          <Plan view={view} />
        </div>
        <SortRules view={view} volumes={storage?.volumes ?? []} busy={set.isPending} onChange={change} />
      </div>
    </>
  )
}

function Why({ view, productionId, volumeName }: { view: SortedView; productionId: string; volumeName: string }) {
  const { plan, settings, unproved, canLink } = view
  const how =
    settings.links === 'reflink'
      ? `Files on ${volumeName} share their bytes with the proved copies until one of them is changed.`
      : settings.links === 'hard'
        ? `Files on ${volumeName} are hard links to the proved copies: a program that changes one also ` +
          'changes the proved copy.'
        : plan.doubledBytes > 0
          ? `${canLink === 'none' ? `${volumeName} cannot share bytes, so they` : 'They'} are copied and ` +
            `read back: ${formatBytes(plan.doubledBytes)} more on ${volumeName}.`
          : `Files on ${volumeName} are copies, read back and equal.`
  return (
    <>
      The mirror keeps the camera’s names and stays as it is. {how}
      {unproved > 0 && (
        <>
          {' '}
          <Link to={`/p/${productionId}/copies`} className="text-accent underline underline-offset-4">
            Copy the {unproved === 1 ? 'clip that waits' : `${unproved} clips that wait`}
          </Link>
          .
        </>
      )}
    </>
  )
}

const WORDS = { add: 'add', move: 'move', remove: 'take away' } as const

/** What would be done, file by file. */
function Plan({ view: { plan } }: { view: SortedView }) {
  if (plan.changes + plan.held.length === 0) return null
  return (
    <section aria-labelledby="plan" className="mt-8">
      <h2 id="plan" className="mb-1">
        What will be done
      </h2>
      <ul className="border-t border-rule">
        {plan.steps.map((step) => (
          <li key={`${step.kind} ${step.path}`} className="flex gap-3 border-b border-rule py-1.5">
            <span className={`w-20 shrink-0 ${step.kind === 'remove' ? 'text-doubt' : 'text-quiet'}`}>
              {WORDS[step.kind]}
            </span>
            <span className="figure min-w-0 break-words">
              {step.from && <span className="block text-quiet">{step.from}</span>}
              {step.path}
            </span>
          </li>
        ))}
        {plan.held.map((file) => (
          <li key={file.path} className="flex gap-3 border-b border-rule py-1.5">
            <span className="w-20 shrink-0 text-quiet">stays</span>
            <span className="figure min-w-0 break-words">
              {file.path}
              <span className="block text-quiet">
                {file.to === null ? 'is kept no more, but the edit may use it' : `would be ${file.to}`}
              </span>
            </span>
          </li>
        ))}
      </ul>
      {plan.changes > plan.steps.length && (
        <p className="mt-2 text-quiet">and {plan.changes - plan.steps.length} more</p>
      )}
    </section>
  )
}
