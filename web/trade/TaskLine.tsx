import { Pause, Play, RotateCcw, Square, type LucideIcon } from 'lucide-react'
import { isToolLine } from '../../core/media/toolReason'
import { formatByteRate, formatBytes, formatLength } from '../../core/units/quantity'
import { tasksApi, type TaskOrder, type TaskProgress, type TaskView } from '../../contract/tasks'
import { Bar } from '../parts/Bar'
import { Button } from '../parts/controls/Button'
import { isOpen } from './queries'
import { ToolLines } from './ToolLines'
import { Trouble } from '../parts/Trouble'
import { useSend } from '../parts/asking/useSend'

/** A copy writes to every drive and reads back from each, so that it moves more bytes than the card holds. */
function progressText({ done, total, unit, perSecond }: TaskProgress, kind: TaskView['kind']): string {
  const left = perSecond > 0 ? `, ${formatLength(Math.ceil((total - done) / perSecond))} left` : ''
  if (unit === 'bytes')
    return (
      `${formatBytes(done)} of ` +
      `${formatBytes(total)}${kind === 'copy' ? ' written and read back' : ''}${perSecond > 0 ? `, ${formatByteRate(perSecond)}` : ''}${done < total ? left : ''}`
    )
  return `${done} of ${total} ${unit}${perSecond > 0 ? `, ${perSecond}/s` : ''}${done < total ? left : ''}`
}

const CANNOT: ReadonlySet<TaskView['state']> = new Set(['failed', 'set-aside'])

const share = (part: number, whole: number) => (whole > 0 ? part / whole : 0)

interface OrdersOf {
  readonly task: TaskView
  readonly order: (name: TaskOrder | 'again') => void
}

/** One piece of long work: how far, how fast, how long still; pause and stop; then the sentence it ended with. */
export function TaskLine({ task }: { task: TaskView }) {
  const params = { id: task.id }
  const sends = {
    pause: useSend(tasksApi.pause),
    resume: useSend(tasksApi.resume),
    stop: useSend(tasksApi.stop),
    again: useSend(tasksApi.again),
  }
  const order = (name: TaskOrder | 'again') => sends[name].mutate({ params })
  const fault = Object.values(sends).find((send) => send.error)?.error ?? null
  return (
    <div data-task={task.kind} data-state={task.state}>
      {isOpen(task) ? (
        <UnderWay task={task} order={order} />
      ) : (
        <Ended task={task} order={order} isPending={sends.again.isPending} />
      )}
      <Trouble error={fault} />
    </div>
  )
}

const MOST_TROUBLES = 8

/** What became of it. */
function Ended({ task, order, isPending }: OrdersOf & { isPending: boolean }) {
  const lines = task.troubles.filter(isToolLine)
  const troubles = task.troubles.filter((trouble) => !lines.includes(trouble))
  return (
    <>
      <p className={CANNOT.has(task.state) || task.troubles.length > 0 ? 'text-stop' : ''}>
        <span className="sr-only">{task.title}: </span>
        {task.sentence}
      </p>
      {troubles.length > 0 && (
        <ul className="mt-1 list-disc space-y-1 pl-5">
          {troubles.slice(0, MOST_TROUBLES).map((trouble) => (
            <li key={trouble} className="break-words">
              {trouble}
            </li>
          ))}
          {troubles.length > MOST_TROUBLES && <li>and {troubles.length - MOST_TROUBLES} more</li>}
        </ul>
      )}
      <ToolLines lines={lines} />
      {task.state === 'set-aside' && (
        <Button className="mt-2" disabled={isPending} onClick={() => order('again')}>
          <RotateCcw className="size-4" aria-hidden /> Try again
        </Button>
      )}
    </>
  )
}

/** How far it is, and what can be said to it. */
function UnderWay({ task, order }: OrdersOf) {
  const { progress, state, title } = task
  const said = progress ? progressText(progress, task.kind) : state === 'queued' ? 'waiting for its turn' : 'starting'
  const isPaused = state === 'paused'
  const done = share(progress?.done ?? 0, progress?.total ?? 0)
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <p className="font-semibold">
          {title}
          {isPaused && ' — paused'}
        </p>
        <div className="flex items-center gap-2">
          <span className="figure text-quiet">{said}</span>
          {/* One button, which keeps the focus when it changes its meaning. */}
          {(isPaused || state === 'running') && (
            <Order
              icon={isPaused ? Play : Pause}
              label={`${isPaused ? 'Resume' : 'Pause'}: ${title}`}
              onClick={() => order(isPaused ? 'resume' : 'pause')}
            />
          )}
          <Order icon={Square} label={`Stop: ${title}`} onClick={() => order('stop')} />
        </div>
      </div>
      {progress?.volumes && progress.volumes.length > 0 ? (
        <div className="mt-1 grid grid-cols-[auto_1fr_auto] items-center gap-x-3 gap-y-1 text-sm">
          {progress.volumes.map((volume) => (
            <VolumeRow key={volume.volumeId} volume={volume} />
          ))}
        </div>
      ) : (
        <Bar label={`${Math.round(done * 100)} %`} parts={[{ share: done, tone: 'solid' }]} />
      )}
    </>
  )
}

const Order = ({ icon: Icon, label, onClick }: { icon: LucideIcon; label: string; onClick: () => void }) => (
  <Button look="quiet" className="!px-1.5" aria-label={label} onClick={onClick}>
    <Icon className="size-4" aria-hidden />
  </Button>
)

function VolumeRow({ volume }: { volume: NonNullable<TaskProgress['volumes']>[number] }) {
  const proved = share(volume.proved, volume.total)
  const written = share(volume.written, volume.total)
  const words = volume.failed
    ? 'stopped'
    : `${Math.floor(written * 100)} % written, ${Math.floor(proved * 100)} % proved`
  return (
    <>
      <span className="font-semibold">{volume.name}</span>
      <Bar
        label={`${volume.name}: ${words}`}
        parts={[
          { share: proved, tone: 'solid' },
          { share: Math.max(0, written - proved), tone: 'light' },
        ]}
      />
      <span className="figure text-quiet">{words}</span>
    </>
  )
}
