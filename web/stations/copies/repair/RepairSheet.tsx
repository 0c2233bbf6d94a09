import { fromWords, type NotMended, type RepairStep } from '../../../../core/copies/repair'
import { counted, formatBytes } from '../../../../core/units/quantity'
import { repairApi, type RepairView } from '../../../../contract/repair'
import { useSend } from '../../../parts/asking/useSend'
import { Button } from '../../../parts/controls/Button'
import { Sheet } from '../../../parts/layers/Sheet'
import { Trouble } from '../../../parts/Trouble'

interface RepairSheetProps {
  readonly plan: RepairView
  readonly loadId: string | null
  readonly onClose: () => void
}

/** What would be mended, from where and what becomes of the bad files; nothing is done before a yes. */
export function RepairSheet({ plan, loadId, onClose }: RepairSheetProps) {
  const send = useSend(repairApi.mend)
  const fitting = plan.steps.filter((step) => step.missingBytes === 0)
  const files = fitting.reduce((sum, step) => sum + step.entryIds.length, 0)
  const aside = fitting.reduce((sum, step) => sum + step.aside, 0)
  return (
    <Sheet title="Repair copies" about={plan.sentence} open onClose={onClose} width="max-w-2xl">
      <NotNow heading="No good copy is left" look="text-stop" some={plan.lost} />
      <NotNow heading="Nothing says which copy is right" look="text-stop" some={plan.unsettled} />
      {plan.steps.length > 0 && (
        <ol aria-label="Steps" className="mb-4 border-t border-ink">
          {plan.steps.map((step) => (
            <li key={`${step.loadId} ${step.volumeId} ${fromWords(step)}`} className="border-b border-rule py-2.5">
              <Step step={step} />
            </li>
          ))}
        </ol>
      )}
      {plan.waiting.map((one) => (
        <NotNow
          key={`${one.wants} ${one.label} ${one.volumeName}`}
          heading={`Once ${one.wants}`}
          look="text-doubt"
          some={[one]}
        />
      ))}
      {aside > 0 && (
        <p className="mb-4 text-quiet">
          A good file is written, read back and equal before it takes the name. What was there is moved to “Set aside”
          on its volume, and stays until you empty that folder.
        </p>
      )}
      <Trouble error={send.error} />
      <div className="flex flex-wrap gap-3">
        {files > 0 && (
          <Button
            look="primary"
            disabled={send.isPending}
            onClick={() =>
              send.mutate(
                { params: {}, body: { loadId: loadId ?? '', decisions: plan.decisions } },
                { onSuccess: onClose },
              )
            }
          >
            {fitting.every((step) => step.from === 'nothing')
              ? `Read ${counted(files, 'file')} again`
              : `Yes, repair ${counted(files, 'file')}`}
          </Button>
        )}
        <Button onClick={onClose}>{files > 0 ? 'Not now' : 'Close'}</Button>
      </div>
    </Sheet>
  )
}

function Step({ step }: { step: RepairStep }) {
  const { label, volumeName, from, entryIds, sizeBytes, names, missingBytes, unread } = step
  const more = entryIds.length - names.length
  return (
    <>
      <p>
        <strong>{volumeName}</strong>, “{label}”:{' '}
        {from === 'nothing'
          ? `${counted(entryIds.length, 'file')} read again, since no other good copy is known`
          : `${counted(entryIds.length, 'file')}, ${formatBytes(sizeBytes)}, from ${fromWords(step)}`}
        {unread > 0 && from !== 'nothing' && (
          <span className="text-quiet">; {unread} of them read first, and left as they are where they are whole</span>
        )}
      </p>
      {missingBytes > 0 && (
        <p className="font-semibold text-stop">
          {volumeName} lacks {formatBytes(missingBytes)}: make room there first. Nothing is done to these files.
        </p>
      )}
      <ul className="mt-1 text-quiet">
        {names.map((name) => (
          <li key={name}>{name}</li>
        ))}
        {more > 0 && <li>and {counted(more, 'more file')}</li>}
      </ul>
    </>
  )
}

function NotNow({ heading, look, some }: { heading: string; look: string; some: readonly NotMended[] }) {
  if (some.length === 0) return null
  return (
    <section className="mb-4" aria-label={heading}>
      <h3 className={`font-semibold ${look}`}>{heading}</h3>
      <ul>
        {some.map((one) => (
          <li key={`${one.label} ${one.volumeName}`}>
            {counted(one.files, 'file')} of “{one.label}” on {one.volumeName}: {one.names.join('; ')}
            {one.files > one.names.length && ` and ${one.files - one.names.length} more`}.
          </li>
        ))}
      </ul>
    </section>
  )
}
