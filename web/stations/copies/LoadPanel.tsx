import { Check, X } from 'lucide-react'
import { useState } from 'react'
import { copiesApi, type CopyView, type LoadCopies } from '../../../contract/copies'
import type { TaskKind } from '../../../contract/taskKinds'
import type { TaskView } from '../../../contract/tasks'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { isOpen, useStorage, useTasks } from '../../trade/queries'
import { TaskLine } from '../../trade/TaskLine'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { CheckCommands } from './CheckCommands'
import { CopyTable } from './CopyTable'
import { FormatSheet } from './FormatSheet'
import { FoundWrong } from './FoundWrong'
import { PlaySheet } from './PlaySheet'
import { ReadCard, TakeBack } from './SaidOfCard'
import { ToRepair } from './repair/ToRepair'
import { toPlay } from './toPlay'
import { BackupCards } from './BackupCards'

const WORK: ReadonlySet<string> = new Set<TaskKind>(['copy', 'check', 'repair', 'twin'])

/** What is shown of the work on a load: what is under way, else what ended last. */
function workOn(tasks: readonly TaskView[], loadId: string): TaskView | undefined {
  const own = tasks.filter((one) => WORK.has(one.kind) && one.loadId === loadId)
  const latest = [...own].sort((a, b) => (b.endedAt ?? '').localeCompare(a.endedAt ?? ''))
  return own.find(isOpen) ?? latest[0]
}

/** A copy that is played from, and the clip where a certain one is meant. */
interface Playing {
  readonly copy: CopyView
  readonly clipId?: string | null
}

interface LoadPanelProps {
  readonly load: LoadCopies
  readonly productionId: string
  /** It was taken in from here: as soon as it is proved twice, a clip of it is ready to play. */
  readonly taken?: boolean
}

/** One load: why it is or is not clear, how far each copy has come, and the copying itself. */
export function LoadPanel({ load, productionId, taken = false }: LoadPanelProps) {
  const { data: tasks = [] } = useTasks()
  const storage = useStorage(productionId)
  const [playing, setPlaying] = useState<Playing>()
  const [formatting, setFormatting] = useState(false)
  const [offered, setOffered] = useState(false)
  const unplayed = taken && !offered && !formatting ? toPlay(load) : undefined
  if (unplayed && !playing) {
    setOffered(true)
    setPlaying({ copy: unplayed })
  }
  const task = workOn(tasks, load.loadId)
  const busy = task !== undefined && isOpen(task)
  // What has happened is written down, also against the answer.
  const mayAsk = !load.formattedAt && !load.checking && !load.clear.clear && load.copies.some((copy) => copy.mark >= 1)
  return (
    <>
      <Answers load={load} busy={busy} onFormat={() => setFormatting(true)} />
      <FoundWrong load={load} onPlay={(copy, clipId) => setPlaying({ copy, clipId })} />
      {!busy && <ToRepair loadId={load.loadId} />}
      {task && (
        <div className="mb-6 border-y border-rule py-3" aria-live="polite">
          <TaskLine task={task} />
        </div>
      )}
      <Ask query={storage}>
        {({ volumes }) => (
          <>
            <CopyTable load={load} volumes={volumes} busy={busy} onPlay={(copy) => setPlaying({ copy })} />
            <BackupCards load={load} busy={busy} />
            <CheckCommands load={load} volumes={volumes} />
            {mayAsk && (
              <Button look="quiet" className="mt-2 !px-0 !font-normal text-quiet" onClick={() => setFormatting(true)}>
                {load.asked === null ? 'The card' : 'The backup card'} is formatted already …
              </Button>
            )}
          </>
        )}
      </Ask>
      {playing && (
        <PlaySheet
          load={load}
          productionId={productionId}
          {...playing}
          waits={offered}
          onClose={() => setPlaying(undefined)}
        />
      )}
      {formatting && <FormatSheet load={load} onClose={() => setFormatting(false)} />}
    </>
  )
}

interface AnswersProps {
  readonly load: LoadCopies
  readonly busy: boolean
  readonly onFormat: () => void
}

/** Why it is or is not clear, and what can be done about it at once. */
function Answers({ load, busy, onFormat }: AnswersProps) {
  const send = useSend(copiesApi.check)
  const { clear } = load
  const readSample = () =>
    send.mutate({ params: { id: load.loadId }, body: { volumeIds: [...clear.sampleFirst], how: 'sample' } })
  const asksForCard = load.card !== null && load.copies.some((copy) => copy.filesCopied > 0) && load.asked === null
  return (
    <>
      {load.formattedAgainst && (
        <p className="mb-6 font-semibold text-stop">
          It was written down as formatted against this answer: {load.formattedAgainst}
          {load.formattedBecause && ` Why: ${load.formattedBecause}`}
        </p>
      )}
      {(load.formattedAt !== null || load.saidButThere) && <TakeBack load={load} />}
      {!load.formattedAt && (
        <ul className="mb-6 space-y-1.5" aria-label="Reasons">
          {clear.reasons.map((reason) => (
            <li key={reason.sentence} className="flex gap-2.5">
              {reason.met ? (
                <Check className="mt-0.5 size-5 shrink-0 text-good" aria-label="met" />
              ) : (
                <X className="mt-0.5 size-5 shrink-0 text-stop" aria-label="not met" />
              )}
              <span>{reason.sentence}</span>
            </li>
          ))}
        </ul>
      )}
      {!load.formattedAt && (
        <p className="mb-6 flex flex-wrap gap-3 empty:hidden">
          {clear.sampleFirst.length > 0 && (
            <Button look="primary" disabled={busy || send.isPending} onClick={readSample}>
              Read a sample again
            </Button>
          )}
          {asksForCard && <ReadCard load={load} busy={busy} wanted={load.card?.isKnown !== true} />}
          {clear.clear && (
            <Button look="danger" onClick={onFormat}>
              I formatted it, in the camera …
            </Button>
          )}
        </p>
      )}
      <Trouble error={send.error} />
    </>
  )
}
