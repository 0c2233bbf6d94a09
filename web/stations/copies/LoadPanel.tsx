import { format } from 'date-fns'
import { Check, Play, X } from 'lucide-react'
import { useState } from 'react'
import { counted, formatBytes } from '../../../core/units/quantity'
import type { CopyView, LoadCopies } from '../../../contract/copies'
import type { VolumeView } from '../../../contract/storage'
import { Ask } from '../../parts/Ask'
import { Button } from '../../parts/Button'
import { Mark } from '../../parts/Mark'
import { isOpen, useStorage, useTasks } from '../../parts/queries'
import { TaskLine } from '../../parts/TaskLine'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/useSend'
import { FormatSheet } from './FormatSheet'
import { PlaySheet } from './PlaySheet'

/** One load: why it is or is not clear, how far each copy has come, and the copying itself. */
export function LoadPanel({ load, productionId }: { load: LoadCopies; productionId: string }) {
  const { data: tasks = [] } = useTasks()
  const storage = useStorage(productionId)
  const [playing, setPlaying] = useState<CopyView>()
  const [formatting, setFormatting] = useState(false)
  const task = tasks.find((one) => one.kind === 'copy' && one.loadId === load.loadId)
  const busy = task !== undefined && isOpen(task)
  return (
    <>
      {!load.formattedAt && (
        <ul className="mb-6 space-y-1.5" aria-label="Reasons">
          {load.clear.reasons.map((reason) => (
            <li key={reason.sentence} className="flex gap-2.5">
              {reason.met ? (
                <Check className="mt-0.5 size-5 shrink-0 text-good" aria-label="met" />
              ) : (
                <X className="mt-0.5 size-5 shrink-0 text-stop" aria-label="not met" />
              )}
              {reason.sentence}
            </li>
          ))}
        </ul>
      )}
      {load.clear.clear && (
        <p className="mb-6">
          <Button look="danger" onClick={() => setFormatting(true)}>
            I formatted it, in the camera …
          </Button>
        </p>
      )}
      {task && (
        <div className="mb-6 border-y border-rule py-3" aria-live="polite">
          <TaskLine task={task} />
        </div>
      )}
      <Ask query={storage}>
        {({ volumes }) => <VolumeTable load={load} volumes={volumes} busy={busy} onPlay={setPlaying} />}
      </Ask>
      {playing && <PlaySheet load={load} copy={playing} onClose={() => setPlaying(undefined)} />}
      <FormatSheet load={load} open={formatting} onClose={() => setFormatting(false)} />
    </>
  )
}

interface VolumeTableProps {
  readonly load: LoadCopies
  readonly volumes: readonly VolumeView[]
  readonly busy: boolean
  readonly onPlay: (copy: CopyView) => void
}

/** Proposed until somebody chooses: what is still missing of two verified copies, the edit drive first, drives with room only. */
function proposal(volumes: readonly VolumeView[], load: LoadCopies): Set<string> {
  const verified = new Set(load.copies.filter((copy) => copy.mark >= 2).map((copy) => copy.volumeId))
  const roomy = volumes.filter(
    (volume) => volume.connected && volume.budget.freeBytes > load.sizeBytes && !verified.has(volume.id),
  )
  const edit = roomy.find((volume) => volume.kind === 'edit')
  const others = roomy.filter((volume) => volume !== edit && volume.kind !== 'cloud')
  return new Set([edit, ...others].flatMap((volume) => volume?.id ?? []).slice(0, Math.max(0, 2 - verified.size)))
}

function VolumeTable({ load, volumes, busy, onPlay }: VolumeTableProps) {
  const send = useSend()
  const [choice, setChoice] = useState<ReadonlySet<string>>()
  const chosen = choice ?? proposal(volumes, load)
  const toggle = (id: string) => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    setChoice(next)
  }
  const shown = volumes.filter((volume) => volume.connected || load.copies.some((copy) => copy.volumeId === volume.id))
  const verified = load.copies.filter((copy) => copy.mark >= 2).length
  const conflicts = load.copies.some((copy) => copy.filesInConflict > 0)
  const start = (setAside: boolean) =>
    send.mutate({ path: `/loads/${load.loadId}/copies`, body: { volumeIds: [...chosen], setAside } })
  const names = volumes.filter((volume) => chosen.has(volume.id)).map((volume) => volume.name)
  return (
    <>
      <div className="overflow-x-auto">
        <table className="sm:min-w-[46rem]">
          <thead>
            <tr>
              <th>Copy to</th>
              <th>State</th>
              <th className="max-sm:hidden">Kept at</th>
              <th className="text-right">Files</th>
              <th className="text-right max-sm:hidden">Bytes</th>
              <th className="max-sm:hidden">Last proved</th>
              <th>
                <span className="sr-only">Action</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((volume) => {
              const copy = load.copies.find((one) => one.volumeId === volume.id)
              return (
                <tr key={volume.id} data-volume={volume.name} data-mark={copy?.mark ?? 'none'}>
                  <td>
                    <label className="flex items-center gap-2.5 font-semibold">
                      <input
                        type="checkbox"
                        checked={chosen.has(volume.id)}
                        disabled={busy || !volume.connected}
                        onChange={() => toggle(volume.id)}
                      />
                      {volume.name}
                    </label>
                  </td>
                  <td>
                    {copy?.mirrorLost ? (
                      <span className="text-stop">gone from the volume</span>
                    ) : copy ? (
                      <Mark mark={copy.mark} />
                    ) : (
                      <span className="text-quiet">{volume.connected ? '' : 'not connected'}</span>
                    )}
                  </td>
                  <td className="text-quiet max-sm:hidden">
                    {volume.site}
                    {!volume.connected && copy && ', not connected'}
                  </td>
                  <td className="figure text-right whitespace-nowrap">
                    {copy && `${copy.mirrorLost ? 0 : copy.filesVerified} of ${copy.filesWanted}`}
                  </td>
                  <td className="figure text-right max-sm:hidden">
                    {copy && formatBytes(copy.mirrorLost ? 0 : copy.sizeBytes)}
                  </td>
                  <td className="figure text-quiet max-sm:hidden">
                    {copy?.lastVerifiedAt && format(new Date(copy.lastVerifiedAt), 'yyyy-MM-dd HH:mm')}
                  </td>
                  <td className="text-right !pr-0">
                    {copy && copy.mark >= 2 && volume.connected && (
                      <Button
                        look={
                          verified >= 2 && copy.mark === 2 && !load.copies.some((one) => one.mark === 3)
                            ? 'primary'
                            : 'plain'
                        }
                        onClick={() => onPlay(copy)}
                      >
                        <Play className="size-4" aria-hidden />
                        <span className="max-sm:sr-only">Play from it</span>
                      </Button>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
      {load.copies.flatMap((copy) =>
        copy.troubles.map((trouble) => (
          <p key={copy.volumeId + trouble.path} className="mt-2 text-stop">
            <span className="figure">{trouble.path}</span> on {copy.volumeName}: {trouble.sentence}.
          </p>
        )),
      )}
      <div className="mt-5 flex flex-wrap items-center gap-3">
        <Button
          look={verified < 2 ? 'primary' : 'plain'}
          disabled={busy || chosen.size === 0 || send.isPending}
          onClick={() => start(false)}
        >
          {names.length === 0 ? 'Choose a volume for one more copy' : `Copy to ${names.join(' and ')}, and prove it`}
        </Button>
        {conflicts && (
          <Button disabled={busy} onClick={() => start(true)}>
            Set the other files aside, and copy again
          </Button>
        )}
        <span className="text-quiet">
          {counted(load.fileCount, 'file')}, <span className="figure">{formatBytes(load.sizeBytes)}</span>. The card is
          read once and never written to.
        </span>
      </div>
      <Trouble error={send.error} />
    </>
  )
}
