import { clockIn, zoneHere } from '../../../core/units/day'
import { useState } from 'react'
import { Link } from 'react-router'
import { nightSentence, type NightStep, type NightVolume } from '../../../core/copies/night'
import { proposeVolumes } from '../../../core/copies/proposal'
import { counted, formatBytes, formatLength } from '../../../core/units/quantity'
import { copiesApi, type NightView } from '../../../contract/copies'
import type { VolumeView } from '../../../contract/storage'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { isOpen, useStorage, useTasks } from '../../trade/queries'
import { TaskLine } from '../../trade/TaskLine'
import { Tick } from '../../parts/controls/Tick'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { isOffered } from '../../trade/VolumeChoice'
import { Unattended } from './Unattended'
import { useNight } from './queries'

/**
 * Every card that lies in a reader, copied one after the other, the most endangered first; and when it will be done.
 */
export default function Night({ productionId }: { productionId: string }) {
  return (
    <Ask query={useStorage(productionId)}>
      {({ volumes }) => <Planned productionId={productionId} volumes={volumes.filter(isOffered)} />}
    </Ask>
  )
}

function Planned({ productionId, volumes }: { productionId: string; volumes: readonly VolumeView[] }) {
  const [choice, setChoice] = useState<ReadonlySet<string>>()
  const chosen = choice ?? new Set(proposeVolumes(volumes, 0))
  const night = useNight(productionId, [...chosen].sort())
  const start = useSend(copiesApi.copyAll)
  const empty = useSend(copiesApi.emptyQueue)
  const { data: tasks = [] } = useTasks()
  const copying = tasks.filter((task) => task.kind === 'copy' && task.productionId === productionId && isOpen(task))
  const params = { id: productionId }
  const toggle = (id: string) => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    setChoice(next)
  }
  return (
    <Ask query={night}>
      {(view) => {
        const clock = (seconds: number) => clockIn(zoneHere(), night.dataUpdatedAt + seconds * 1000)
        const busy = copying.length > 0 || view.queue.length > 0
        return (
          <>
            <Answer
              why={<Why view={view} productionId={productionId} />}
              action={
                view.steps.length > 0 &&
                !busy && (
                  <Button
                    look="primary"
                    disabled={start.isPending || chosen.size === 0}
                    onClick={() => start.mutate({ params, body: { volumeIds: [...chosen] } })}
                  >
                    {view.steps.length === 1
                      ? 'Copy it, and prove it'
                      : `Copy all ${view.steps.length} cards, and prove them`}
                  </Button>
                )
              }
            >
              {busy
                ? `Copying; ${counted(view.queue.length, 'card')} waiting.`
                : chosen.size === 0
                  ? 'Choose a volume to copy to.'
                  : nightSentence(view, clock, view.unlooked)}
            </Answer>
            <Trouble error={start.error ?? empty.error} />
            {copying.map((task) => (
              <div key={task.id} className="mb-3 border-y border-rule py-3">
                <TaskLine task={task} />
              </div>
            ))}
            {view.queue.length > 0 && (
              <p className="mb-6 flex flex-wrap items-center gap-x-4 gap-y-1">
                Then {new Intl.ListFormat('en-GB').format(view.queue)}.
                <Button look="quiet" disabled={empty.isPending} onClick={() => empty.mutate({ params })}>
                  Take them out of the queue
                </Button>
              </p>
            )}
            <fieldset className="mb-5 flex flex-wrap gap-x-6 gap-y-2">
              <legend className="mb-1 font-semibold">Copy to</legend>
              {volumes.map((volume) => (
                <Tick key={volume.id} checked={chosen.has(volume.id)} onChange={() => toggle(volume.id)}>
                  {volume.name}
                </Tick>
              ))}
            </fieldset>
            {view.steps.length > 0 && <Steps steps={view.steps} clock={clock} />}
            {view.steps.length > 0 && <Rooms rooms={view.volumes} />}
            <Unattended productionId={productionId} volumes={volumes} />
          </>
        )
      }}
    </Ask>
  )
}

function Why({ view, productionId }: { view: NightView; productionId: string }) {
  if (view.steps.length === 0)
    return (
      <>
        Put cards into the readers and{' '}
        <Link to={`/p/${productionId}/cards`} className="text-accent underline underline-offset-4">
          scan them
        </Link>
        ; each that lacks a proved copy is planned here.
      </>
    )
  const wait = view.bottleneck && ` Most of the time is spent waiting for ${view.bottleneck}.`
  const unlooked =
    view.unlooked.length > 0 && ` ${view.unlooked.map((name) => `“${name}”`).join(' and ')} must be scanned first.`
  const kept = view.keepBytes > 0 && ` ${formatBytes(view.keepBytes)} lie there already and are read again.`
  return (
    <>
      The most endangered card comes first, one after the other: two copies at once on one drive take longer than both
      in turn.{wait}
      {kept}
      {unlooked}
    </>
  )
}

function Steps({ steps, clock }: { steps: readonly NightStep[]; clock: (seconds: number) => string }) {
  return (
    <ol aria-label="Order of the cards" className="mb-8 border-t border-ink">
      {steps.map((step, at) => (
        <li
          key={step.loadId}
          className="grid grid-cols-[2rem_1fr_auto] items-baseline gap-x-3 border-b border-rule py-2.5"
        >
          <span className="figure text-quiet">{at + 1}</span>
          <span>
            <strong>{step.label}</strong> <span className="text-quiet">in {step.readerName}</span>
            <span className={`block ${step.verified === 0 ? 'text-stop' : 'text-doubt'}`}>{step.why}</span>
            <span className="block text-quiet">
              {step.plan.volumes
                .map(({ name, copy, keep }) =>
                  copy.files > 0
                    ? `${name} gets ${counted(copy.files, 'file')}, ${formatBytes(copy.sizeBytes)}`
                    : `${name} keeps ${keep.files}`,
                )
                .join('; ')}
            </span>
          </span>
          <span className="figure text-right">
            {step.plan.seconds === undefined ? 'time not known yet' : formatLength(Math.ceil(step.plan.seconds))}
            {step.endsAfterSeconds !== undefined && (
              <span className="block text-quiet">proved at {clock(step.endsAfterSeconds)}</span>
            )}
          </span>
        </li>
      ))}
    </ol>
  )
}

const room = (bytes: number | undefined) => (bytes === undefined ? 'not measured' : formatBytes(bytes))

function Rooms({ rooms }: { rooms: readonly NightVolume[] }) {
  return (
    <table className="max-w-2xl">
      <thead>
        <tr>
          <th>Volume</th>
          <th className="text-right">Free now</th>
          <th className="text-right">Free afterwards</th>
        </tr>
      </thead>
      <tbody>
        {rooms.map((one) => (
          <tr key={one.volumeId}>
            <td className="font-semibold">{one.name}</td>
            <td className="figure text-right">{room(one.beforeBytes)}</td>
            <td className="figure text-right">
              {one.missingBytes > 0 ? (
                <span className="text-stop">{formatBytes(one.missingBytes)} too little</span>
              ) : (
                room(one.afterBytes)
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
