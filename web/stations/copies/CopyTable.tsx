import { useState } from 'react'
import { Link } from 'react-router'
import { planWords } from '../../../core/copies/plan'
import { proposeVolumes } from '../../../core/copies/proposal'
import { counted, formatBytes } from '../../../core/units/quantity'
import { copiesApi, type CopyView, type LoadCopies } from '../../../contract/copies'
import type { VolumeView } from '../../../contract/storage'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { Trouble } from '../../parts/Trouble'
import { isOffered } from '../../trade/VolumeChoice'
import { useSend } from '../../parts/asking/useSend'
import { Wide } from '../../parts/Wide'
import { usePlan } from './queries'
import { toPlay } from './toPlay'
import { VolumeRow } from './VolumeRow'

interface CopyTableProps {
  readonly load: LoadCopies
  readonly volumes: readonly VolumeView[]
  readonly busy: boolean
  readonly onPlay: (copy: CopyView) => void
}

/** Where a load lies and where it is copied to, with the orders that copy it. */
export function CopyTable({ load, volumes, busy, onPlay }: CopyTableProps) {
  const copy = useSend(copiesApi.copy)
  const params = { id: load.loadId }
  const [choice, setChoice] = useState<ReadonlySet<string>>()
  const held = load.copies.filter((one) => one.mark >= 2)
  const chosen = choice ?? new Set(proposeVolumes(volumes, load.sizeBytes, held, load.rule.copies))
  const [source, setSource] = useState<string>()
  const fromDrive = load.sources.find(({ volumeId }) => !chosen.has(volumeId))
  const from = source ?? (load.card ? CARD : (fromDrive?.volumeId ?? CARD))
  const fromId = from === CARD ? null : from
  const plan = usePlan(load.loadId, [...chosen].sort(), fromId)
  const toggle = (id: string) => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    setChoice(next)
  }
  const conflicts = load.copies.some((copy) => copy.filesInConflict + copy.filesMismatched > 0)
  // While another choice is planned, the plan that is shown is of the one before.
  const decisions = plan.isPlaceholderData ? null : (plan.data?.decisions ?? null)
  const start = (setAside: boolean) =>
    copy.mutate({ params, body: { from: fromId, volumeIds: [...chosen], setAside, decisions } })
  const names = volumes.filter((volume) => chosen.has(volume.id)).map((volume) => volume.name)
  const fromName = load.sources.find((one) => one.volumeId === fromId)?.volumeName
  const shown = shownVolumes(load, volumes)
  if (shown.length === 0) return <NoVolume />
  return (
    <>
      <Volumes load={load} shown={shown} chosen={chosen} busy={busy} onChoose={toggle} onPlay={onPlay} />
      <Troubles load={load} />
      <div className="mt-5 flex flex-wrap items-end gap-3">
        <SourceChoice load={load} value={from} onChange={setSource} />
        <Button
          look={held.length < 2 ? 'primary' : 'plain'}
          data-walk={`copy ${load.loadId}`}
          disabled={busy || chosen.size === 0 || copy.isPending || (fromId !== null && chosen.has(fromId))}
          onClick={() => start(false)}
        >
          {names.length === 0 ? 'Choose a volume for one more copy' : `Copy to ${names.join(' and ')}, and prove it`}
        </Button>
        {conflicts && (
          <Button disabled={busy} onClick={() => start(true)}>
            Set the other files aside, and copy again
          </Button>
        )}
      </div>
      <p className="mt-2 text-quiet" aria-live="polite">
        {counted(load.fileCount, 'file')}, {formatBytes(load.sizeBytes)},{' '}
        {fromName === undefined
          ? 'read once from the card, which is never written to.'
          : `read from ${fromName}, and proved there again while it is read.`}
        {chosen.size > 0 && plan.data && !busy && ` ${planWords(plan.data)}`}
      </p>
      <Trouble error={copy.error} />
    </>
  )
}

/** Where it lies already comes first, then where it could go. */
function shownVolumes(load: LoadCopies, volumes: readonly VolumeView[]): readonly VolumeView[] {
  const holds = (volume: VolumeView) => load.copies.some((copy) => copy.volumeId === volume.id)
  return [...volumes.filter(holds), ...volumes.filter((volume) => !holds(volume) && isOffered(volume))]
}

interface VolumesProps {
  readonly load: LoadCopies
  readonly shown: readonly VolumeView[]
  readonly chosen: ReadonlySet<string>
  readonly busy: boolean
  readonly onChoose: (volumeId: string) => void
  readonly onPlay: (copy: CopyView) => void
}

function Volumes({ load, shown, chosen, busy, onChoose, onPlay }: VolumesProps) {
  const check = useSend(copiesApi.check)
  const different = useSend(copiesApi.differentDrives)
  const params = { id: load.loadId }
  const readAgain = (volumeId: string) => check.mutate({ params, body: { volumeIds: [volumeId], how: 'whole' } })
  const sayDifferent = (volumeId: string, otherVolumeId: string) =>
    different.mutate({ params: {}, body: { volumeId, otherVolumeId } })
  const unplayed = toPlay(load)?.volumeId
  return (
    <>
      <Wide label="Volumes">
        <table className="sm:min-w-[46rem]">
          <thead>
            <tr>
              <th>Copy to</th>
              <th>State</th>
              <th className="max-sm:hidden">Kept at</th>
              <th className="text-right max-sm:hidden">Files</th>
              <th className="text-right max-sm:hidden">Bytes</th>
              <th className="max-sm:hidden">Last proved</th>
              <th>
                <span className="sr-only">Action</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((volume) => (
              <VolumeRow
                key={volume.id}
                volume={volume}
                copy={load.copies.find((one) => one.volumeId === volume.id)}
                chosen={chosen.has(volume.id)}
                busy={busy}
                checking={check.isPending}
                playsNext={volume.id === unplayed}
                loadId={load.loadId}
                onChoose={() => onChoose(volume.id)}
                onReadAgain={() => readAgain(volume.id)}
                onPlay={onPlay}
                onDifferent={sayDifferent}
              />
            ))}
          </tbody>
        </table>
      </Wide>
      <Trouble error={check.error ?? different.error} />
    </>
  )
}

interface SourceChoiceProps {
  readonly load: LoadCopies
  readonly value: string
  readonly onChange: (source: string) => void
}

/** The card, or a drive with a proved copy, where there is one. */
function SourceChoice({ load, value, onChange }: SourceChoiceProps) {
  if (load.sources.length === 0) return null
  return (
    <Choice
      label="Read from"
      className="w-64"
      value={value}
      onChange={onChange}
      options={[
        { value: CARD, label: load.card ? `The card in ${load.card.readerName}` : 'The card, when it is put in' },
        ...load.sources.map((one) => ({
          value: one.volumeId,
          label: `${one.volumeName}, ${counted(one.files, 'proved file')}`,
        })),
      ]}
    />
  )
}

/** Nothing can be copied while no drive is known. */
const NoVolume = () => (
  <section aria-label="Volumes" className="border-t border-rule pt-4">
    <h2>No drive is connected to copy to.</h2>
    <p className="mt-1 mb-4 max-w-2xl text-quiet">
      A card is copied to two drives at once and read back from each. Connect a drive, and say at Storage what it is
      called and where it is kept.
    </p>
    <Link to="../storage" relative="path" className="font-semibold text-accent underline underline-offset-4">
      Add a drive
    </Link>
  </section>
)

/** The card itself, among the places that a copy can be read from. */
const CARD = 'card'

const SHOWN = 8

function Troubles({ load }: { load: LoadCopies }) {
  return load.copies.map((copy) => (
    <div key={copy.volumeId}>
      {copy.troubles.slice(0, SHOWN).map((trouble) => (
        <p key={trouble.path} className="mt-2 text-stop">
          <span className="figure break-all">{trouble.path}</span> on {copy.volumeName}: {trouble.sentence}.
        </p>
      ))}
      {copy.troubles.length > SHOWN && (
        <p className="mt-2 text-stop">
          And {copy.filesMissing + copy.filesMismatched + copy.filesInConflict - SHOWN} more on {copy.volumeName}.
        </p>
      )}
    </div>
  ))
}
