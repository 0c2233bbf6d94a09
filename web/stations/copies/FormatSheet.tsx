import { formatBytes } from '../../../core/units/quantity'
import type { LoadCopies } from '../../../contract/copies'
import { Button } from '../../parts/Button'
import { Mark } from '../../parts/Mark'
import { Sheet } from '../../parts/Sheet'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/useSend'

/** Writes down that the person formatted the card; says what is gone with it and where it still is. */
export function FormatSheet({ load, open, onClose }: { load: LoadCopies; open: boolean; onClose: () => void }) {
  const send = useSend()
  return (
    <Sheet
      title={`The card of “${load.label}” is formatted`}
      about="Yendra does not format anything. You do it, in the camera; here it is written down, and the next clips on this card start a new load."
      open={open}
      onClose={onClose}
    >
      <p className="mb-2">
        Gone from the card: {load.fileCount} files, <span className="figure">{formatBytes(load.sizeBytes)}</span>. They
        are still here:
      </p>
      <ul className="mb-5 space-y-1">
        {load.copies
          .filter((copy) => copy.mark >= 2)
          .map((copy) => (
            <li key={copy.volumeId} className="flex gap-3">
              <Mark mark={copy.mark} /> <strong>{copy.volumeName}</strong>{' '}
              <span className="text-quiet">{copy.site}</span>
            </li>
          ))}
      </ul>
      <Trouble error={send.error} />
      <div className="flex flex-wrap gap-3">
        <Button
          look="danger"
          disabled={send.isPending}
          onClick={() => send.mutate({ path: `/loads/${load.loadId}/formatted` }, { onSuccess: onClose })}
        >
          Write down that I formatted it
        </Button>
        <Button onClick={onClose}>Not yet</Button>
      </div>
    </Sheet>
  )
}
