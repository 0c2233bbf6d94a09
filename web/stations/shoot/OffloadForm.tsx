import { offloadBody, shootApi } from '../../../contract/shoot'
import { readBytes, readLength } from '../../../core/units/quantity'
import { Button } from '../../parts/controls/Button'
import { FormField, FormUnit } from '../../parts/form/fields'
import { bodyFault, numberIn, numberOr, useTyped } from '../../parts/form/useTyped'
import { Leaving } from '../../parts/layers/Leaving'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'

/** A card that was emptied without Yendra: what it held, and the time it took or what became of its raw frames. */
export function OffloadForm({ productionId }: { productionId: string }) {
  const send = useSend(shootApi.addOffload)
  const { control, handleSubmit, watch, reset, formState } = useTyped(
    offloadBody,
    { label: '', sizeBytes: '', seconds: '', exportedBytes: '' },
    ({ label, ...typed }) => {
      const seconds = numberOr(typed.seconds, readLength, null)
      return {
        label,
        sizeBytes: numberIn(typed.sizeBytes, readBytes),
        seconds: seconds === null ? null : Math.max(1, Math.round(seconds)),
        exportedBytes: numberOr(typed.exportedBytes, readBytes, null),
      }
    },
  )
  const { isSubmitted, errors } = formState
  const typed = watch()
  const begun = Object.values(typed).some((text) => text.trim() !== '')
  const says = typed.seconds.trim() !== '' || typed.exportedBytes.trim() !== ''
  const save = handleSubmit((body) => send.mutate({ params: { id: productionId }, body }, { onSuccess: () => reset() }))
  return (
    <form
      noValidate
      aria-label="A card that was emptied elsewhere"
      className="mt-8 max-w-3xl border-t border-ink pt-4"
      onSubmit={(event) => void save(event)}
    >
      <Leaving when={begun} />
      <h2 className="mb-3">A card that was emptied elsewhere</h2>
      <div className="grid gap-x-4 sm:grid-cols-4">
        <FormField control={control} name="label" label="Card" maxLength={80} />
        <FormUnit control={control} name="sizeBytes" label="Held" unit="bytes" optional={!isSubmitted} />
        <FormUnit control={control} name="seconds" label="Took" unit="length" optional />
        <FormUnit control={control} name="exportedBytes" label="After export" unit="bytes" optional />
      </div>
      {!says && <p className="mb-3 text-stop empty:hidden">{bodyFault(errors)}</p>}
      <Trouble error={send.error} />
      <Button type="submit" disabled={send.isPending}>
        Write it down
      </Button>
    </form>
  )
}
