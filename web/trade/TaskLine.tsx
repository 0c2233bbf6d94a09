import { Pause, Play, RotateCcw, Square } from 'lucide-react'
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
    return `${formatBytes(done)} of ${formatBytes(total)}${kind === 'copy' ? ' written and read back' : ''}${perSecond > 0 ? `, ${formatByteRate(perSecond)}` : ''}${done < total ? left : ''}`
  return `${done} of ${total} ${unit}${perSecond > 0 ? `, ${perSecond}/s` : ''}${done < total ? left : ''}`
}

const CANNOT: ReadonlySet<TaskView['state']> = new Set(['failed', 'set-aside'])

const share = (part: number, whole: number) => (whole > 0 ? part / whole : 0)

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
  const { progress } = task
  if (!isOpen(task)) {
    const lines = task.troubles.filter(isToolLine)
    const troubles = task.troubles.filter((trouble) => !lines.includes(trouble))
    return (
      <div data-task={task.kind} data-state={task.state}>
        <p className={CANNOT.has(task.state) || task.troubles.length > 0 ? 'text-stop' : ''}>
          <span className="sr-only">{task.title}: </span>
          {task.sentence}
        </p>
        {troubles.length > 0 && (
          <ul className="mt-1 list-disc space-y-1 pl-5">
            {troubles.slice(0, 8).map((trouble) => (
              <li key={trouble} className="break-words">
                {trouble}
              </li>
            ))}
            {troubles.length > 8 && <li>and {troubles.length - 8} more</li>}
          </ul>
        )}
        <ToolLines lines={lines} />
        {task.state === 'set-aside' && (
          <Button className="mt-2" disabled={sends.again.isPending} onClick={() => order('again')}>
            <RotateCcw className="size-4" aria-hidden /> Try again
          </Button>
        )}
        <Trouble error={fault} />
      </div>
    )
  }
  return (
    <div data-task={task.kind} data-state={task.state}>
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <p className="font-semibold">
          {task.title}
          {task.state === 'paused' && ' — paused'}
        </p>
        <div className="flex items-center gap-2">
          <span className="figure text-quiet">
            {progress
              ? progressText(progress, task.kind)
              : task.state === 'queued'
                ? 'waiting for its turn'
                : 'starting'}
          </span>
          {task.state === 'paused' ? (
            <Button
              look="quiet"
              className="!px-1.5"
              aria-label={`Resume: ${task.title}`}
              onClick={() => order('resume')}
            >
              <Play className="size-4" aria-hidden />
            </Button>
          ) : (
            task.state === 'running' && (
              <Button
                look="quiet"
                className="!px-1.5"
                aria-label={`Pause: ${task.title}`}
                onClick={() => order('pause')}
              >
                <Pause className="size-4" aria-hidden />
              </Button>
            )
          )}
          <Button look="quiet" className="!px-1.5" aria-label={`Stop: ${task.title}`} onClick={() => order('stop')}>
            <Square className="size-4" aria-hidden />
          </Button>
        </div>
      </div>
      {progress?.volumes && progress.volumes.length > 0 ? (
        <div className="mt-1 grid grid-cols-[auto_1fr_auto] items-center gap-x-3 gap-y-1 text-sm">
          {progress.volumes.map((volume) => (
            <VolumeRow key={volume.volumeId} volume={volume} />
          ))}
        </div>
      ) : (
        <Bar
          label={`${Math.round(share(progress?.done ?? 0, progress?.total ?? 0) * 100)} %`}
          parts={[{ share: share(progress?.done ?? 0, progress?.total ?? 0), tone: 'solid' }]}
        />
      )}
      <Trouble error={fault} />
    </div>
  )
}

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
