import { copiesApi, type CopyView, type LoadCopies } from '../../../contract/copies'
import { useSend } from '../../parts/asking/useSend'
import { Button } from '../../parts/controls/Button'
import { Trouble } from '../../parts/Trouble'

interface FoundWrongProps {
  readonly load: LoadCopies
  readonly onPlay: (copy: CopyView, clipId: string | null) => void
}

/** What somebody found wrong with files of copies, each with the ways out of it. */
export function FoundWrong({ load, onPlay }: FoundWrongProps) {
  const whole = useSend(copiesApi.foundWhole)
  const found = load.copies.flatMap((copy) => copy.foundWrong.map((one) => ({ copy, ...one })))
  if (found.length === 0) return null
  return (
    <section aria-label="Found wrong while playing" className="mb-6 border-y border-rule py-3">
      <ul className="grid gap-3">
        {found.map(({ copy, entryId, clipId, path, readSince }) => (
          <li key={`${copy.volumeId} ${entryId}`}>
            <p className="mb-1.5">
              <strong className="text-stop">{path.split('/').at(-1)}</strong> on {copy.volumeName}:{' '}
              {readSince
                ? 'read again since, it is what was read from the card, byte for byte. Play it from another copy, and ' +
                  'in the camera: the recording itself may be at fault.'
                : copy.connected
                  ? 'it is being read again. Play it from another copy meanwhile.'
                  : 'connect the drive, then it is read again. Play it from another copy meanwhile.'}
            </p>
            <p className="flex flex-wrap gap-3">
              {load.copies
                .filter((other) => other !== copy && other.connected && other.filesCopied > 0)
                .map((other) => (
                  <Button key={other.volumeId} onClick={() => onPlay(other, clipId)}>
                    Play it from {other.volumeName}
                  </Button>
                ))}
              {copy.connected && (
                <Button onClick={() => onPlay(copy, clipId)}>Play it again from {copy.volumeName}</Button>
              )}
              <Button
                disabled={whole.isPending}
                onClick={() =>
                  whole.mutate({ params: { id: load.loadId }, body: { volumeId: copy.volumeId, entryId } })
                }
              >
                It plays as it should after all
              </Button>
            </p>
          </li>
        ))}
      </ul>
      <Trouble error={whole.error} />
    </section>
  )
}
