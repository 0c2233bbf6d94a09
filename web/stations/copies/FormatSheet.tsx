import { useState } from 'react'
import { formatBytes } from '../../../core/units/quantity'
import { copiesApi, type LoadCopies } from '../../../contract/copies'
import { Field } from '../../parts/controls/Field'
import { Confirm } from '../../parts/layers/Confirm'
import { Mark } from '../../trade/Mark'
import { useSend } from '../../parts/asking/useSend'

/** Writes down that the person formatted the card; says what is gone with it and where it still is. */
export function FormatSheet({ load, onClose }: { load: LoadCopies; onClose: () => void }) {
  const send = useSend(copiesApi.formatted)
  const [reason, setReason] = useState('')
  const safe = load.copies.filter((copy) => copy.mark >= 2)
  const against = !load.clear.clear
  const backup = load.twins.find((one) => one.id === load.asked)
  const kept = load.twins.filter(
    (one) => one.id !== load.asked && one.readerName !== null && one.filesEqual === load.fileCount,
  )
  return (
    <Confirm
      title={`Is ${backup ? `the backup card “${backup.name}”` : 'the card'} of “${load.label}” formatted?`}
      about="Yendra does not format anything. You do it, in the camera; here it is written down, and the next clips on this card start a new load."
      action={against ? 'It is formatted: write it down against the answer' : 'Write down that I formatted it'}
      onAction={() =>
        send.mutate(
          { params: { id: load.loadId }, body: { anyway: against, reason: against ? reason : '', twinId: load.asked } },
          { onSuccess: onClose },
        )
      }
      busy={send.isPending || (against && reason.trim() === '')}
      error={send.error}
      onClose={onClose}
    >
      {against && (
        <p className="mb-3 font-semibold text-stop">
          The answer is not yes. {load.clear.sentence} If it is not formatted yet, leave it as it is. If it is, write it
          down all the same: the reasons against it are kept with it, and yours.
        </p>
      )}
      {against && (
        <Field
          label="Why it was formatted all the same"
          maxLength={300}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          hint="It stays on the chart and on its print."
        />
      )}
      {load.card && !against && (
        <p className="mb-3 font-semibold text-doubt">
          It is in {load.card.readerName} now, with everything on it. Format it in the camera first.
        </p>
      )}
      <p className="mb-2">
        Gone from the card: {load.fileCount} files, <span className="figure">{formatBytes(load.sizeBytes)}</span>.{' '}
        {safe.length > 0 ? 'They are still here:' : 'No volume holds a verified copy.'}
      </p>
      <ul className="mb-5 space-y-1">
        {safe.map((copy) => (
          <li key={copy.volumeId} className="flex gap-3">
            <Mark mark={copy.mark} /> <strong>{copy.volumeName}</strong>{' '}
            <span className="text-quiet">
              {copy.site}
              {!copy.connected && ', not seen now'}
            </span>
          </li>
        ))}
        {kept.map((one) => (
          <li key={one.id}>
            <strong>The backup card “{one.name}”</strong>{' '}
            <span className="text-quiet">in {one.readerName}, a card</span>
          </li>
        ))}
      </ul>
    </Confirm>
  )
}
