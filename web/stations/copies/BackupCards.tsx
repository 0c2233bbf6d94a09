import { timeIn, zoneHere } from '../../../core/units/day'
import { CopyCheck } from 'lucide-react'
import { counted } from '../../../core/units/quantity'
import { copiesApi, type LoadCopies, type BackupCardView } from '../../../contract/copies'
import { Button } from '../../parts/controls/Button'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'

const when = (at: string) => timeIn(zoneHere(), at)

function backupCardWords(
  { readerName, readAt, filesEqual, filesWrong, formattedAt }: BackupCardView,
  fileCount: number,
): string {
  if (formattedAt !== null) return `formatted ${when(formattedAt)}, as you said`
  const where = readerName === null ? 'in no reader now' : `in ${readerName}`
  if (readAt === null) return `${where}; the same files by names, sizes, times and samples, not read whole`
  return filesWrong > 0
    ? `${where}; read ${when(readAt)}: ${counted(filesWrong, 'file')} not as copied`
    : `${where}; read ${when(readAt)}: ${filesEqual} of ${counted(fileCount, 'file')} equal`
}

/** Other cards with the content of a load: each is a copy once it was read, until it is formatted. */
export function BackupCards({ load, busy }: { load: LoadCopies; busy: boolean }) {
  const send = useSend(copiesApi.readTwin)
  if (load.twins.length === 0) return null
  const isProved = load.copies.some((copy) => copy.mark >= 1)
  return (
    <section className="mt-6" aria-label="Backup cards of this card">
      <h2 className="mb-1">{load.twins.length === 1 ? 'Its backup card' : 'Its backup cards'}</h2>
      <p className="mb-2 text-quiet">
        A camera with two slots writes every clip twice. A backup card counts as one of two copies while it lies in a
        reader and was read whole; what is on it may be written over any day, so a second volume is better.
      </p>
      <ul className="divide-y divide-rule border-y border-rule">
        {load.twins.map((card) => (
          <li key={card.id} data-twin={card.name} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
            <strong>{card.name}</strong>
            <span className="grow">{backupCardWords(card, load.fileCount)}</span>
            {card.readerName !== null && card.formattedAt === null && (
              <Button
                disabled={busy || !isProved || send.isPending}
                onClick={() => send.mutate({ params: { id: load.loadId, twinId: card.id } })}
              >
                <CopyCheck className="size-4" aria-hidden />
                {!isProved
                  ? 'Read it once the card is copied'
                  : card.readAt === null
                    ? 'Read it whole'
                    : 'Read it again'}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Trouble error={send.error} />
    </section>
  )
}
