import { Play, RefreshCw } from 'lucide-react'
import { timeIn, zoneHere } from '../../../core/units/day'
import { counted, formatBytes } from '../../../core/units/quantity'
import type { CopyView } from '../../../contract/copies'
import type { VolumeView } from '../../../contract/storage'
import { Button } from '../../parts/controls/Button'
import { Tick } from '../../parts/controls/Tick'
import { Hint } from '../../parts/layers/Hint'
import { Mark } from '../../trade/Mark'

interface VolumeRowProps {
  readonly volume: VolumeView
  readonly copy: CopyView | undefined
  /** It is one of those that are copied to next. */
  readonly chosen: boolean
  readonly busy: boolean
  readonly checking: boolean
  /** A clip has to be played from it before the card is clear. */
  readonly playsNext: boolean
  readonly loadId: string
  readonly onChoose: () => void
  readonly onReadAgain: () => void
  readonly onPlay: (copy: CopyView) => void
  readonly onDifferent: (volumeId: string, otherVolumeId: string) => void
}

/** A volume: what of the load lies there, how far that is proved, and what can be done with it. */
export function VolumeRow(props: VolumeRowProps) {
  const { volume, copy, chosen, busy, checking, playsNext, loadId, onChoose, onReadAgain, onPlay, onDifferent } = props
  return (
    <tr data-volume={volume.name} data-mark={copy?.mark ?? 'none'}>
      <td>
        <Tick className="font-semibold" checked={chosen} disabled={busy || !volume.connected} onChange={onChoose}>
          {volume.name}
        </Tick>
      </td>
      <td>
        <CopyMark copy={copy} volume={volume} onDifferent={onDifferent} />
      </td>
      <td className="text-quiet max-sm:hidden">
        {volume.site}
        {!volume.connected && copy && <span className="block">not seen now</span>}
      </td>
      <td className="figure text-right whitespace-nowrap max-sm:hidden">
        {copy && `${copy.mirrorLost ? 0 : copy.filesCopied} of ${copy.filesWanted}`}
      </td>
      <td className="figure text-right max-sm:hidden">{copy && formatBytes(copy.mirrorLost ? 0 : copy.sizeBytes)}</td>
      <td className="figure text-quiet max-sm:hidden">{copy && <Proved copy={copy} />}</td>
      <td className="text-right !pr-0 whitespace-nowrap">
        {copy && copy.filesCopied > 0 && volume.connected && (
          <Hint words="Reads every file again, past the cache, and compares it with its proof">
            <Button
              look="quiet"
              className="!px-2"
              disabled={busy || checking}
              aria-label={`Read again from ${volume.name}`}
              onClick={onReadAgain}
            >
              <RefreshCw className="size-4" aria-hidden />
              <span className="max-lg:sr-only">Read again</span>
            </Button>
          </Hint>
        )}
        {copy && copy.mark >= 1 && volume.connected && (
          <Button
            look={playsNext ? 'primary' : 'plain'}
            data-walk={playsNext ? `play ${loadId}` : undefined}
            onClick={() => onPlay(copy)}
          >
            <Play className="size-4" aria-hidden />
            <span className="max-sm:sr-only">Play from it</span>
          </Button>
        )}
      </td>
    </tr>
  )
}

interface CopyMarkProps {
  readonly copy: CopyView | undefined
  readonly volume: VolumeView
  readonly onDifferent: (volumeId: string, otherVolumeId: string) => void
}

/** The mark, and what is to be said of the drive it lies on. */
function CopyMark({ copy, volume, onDifferent }: CopyMarkProps) {
  if (!copy) return <span className="text-quiet">{volume.connected ? '' : 'not connected'}</span>
  if (copy.mirrorLost) return <span className="text-stop">gone from the volume</span>
  return (
    <>
      <Mark mark={copy.mark} />
      {copy.filesVerifiedFromCache > 0 && (
        <span className="block text-sm text-doubt">read back, perhaps from memory</span>
      )}
      {copy.filesMissing > 0 && (
        <span className="block text-sm text-stop">{counted(copy.filesMissing, 'file')} no longer as proved</span>
      )}
      {copy.filesDoubted > 0 && (
        <span className="block text-sm text-doubt">
          {counted(copy.filesDoubted, 'file')} perhaps replaced: read again by itself
        </span>
      )}
      {copy.mounted.length > 0 && (
        <span className="block text-sm text-stop">another file system is mounted inside it</span>
      )}
      {copy.sharesDriveWith.length > 0 && (
        <span className="block text-sm text-doubt">same drive as {copy.sharesDriveWith.join(' and ')}</span>
      )}
      {copy.saidDifferentFrom.length > 0 && (
        <span className="block text-sm text-quiet">
          another drive than {copy.saidDifferentFrom.join(' and ')}, as you said
        </span>
      )}
      {copy.mayShareDriveWith.map((other) => (
        <Button
          key={other.volumeId}
          look="quiet"
          className="!min-h-0 !px-0 !py-0 text-left text-sm !font-normal"
          onClick={() => onDifferent(copy.volumeId, other.volumeId)}
        >
          It is another drive than {other.volumeName}
        </Button>
      ))}
    </>
  )
}

const when = (at: string) => timeIn(zoneHere(), at)

function Proved({ copy }: { copy: CopyView }) {
  const { lastVerifiedAt, readAgainAt } = copy
  return (
    <>
      {lastVerifiedAt && when(lastVerifiedAt)}
      {readAgainAt && <span className="block text-sm">read again {when(readAgainAt)}</span>}
    </>
  )
}
