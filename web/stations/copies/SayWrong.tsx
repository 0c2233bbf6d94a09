import { useState } from 'react'
import { copiesApi, type CopyView, type LoadCopies } from '../../../contract/copies'
import { useSend } from '../../parts/asking/useSend'
import { showAnew } from '../../parts/asking/useShowing'
import { Button } from '../../parts/controls/Button'
import { Field } from '../../parts/controls/Field'
import { Trouble } from '../../parts/Trouble'

interface SayWrongProps {
  readonly load: LoadCopies
  readonly copy: CopyView
  readonly clipId: string | null
  readonly onSaid: () => void
  /** It was said already that something is, and asked what. */
  readonly begun?: boolean
}

/** What was seen or heard is written down as it is: the copy counts for nothing until it is settled. */
export function SayWrong({ load, copy, clipId, onSaid, begun = false }: SayWrongProps) {
  const send = useSend(copiesApi.foundWrong, showAnew)
  const [note, setNote] = useState(begun ? '' : undefined)
  if (note === undefined)
    return (
      <Button look="quiet" className="mt-2 !px-0 !font-normal text-quiet" onClick={() => setNote('')}>
        Something is wrong with it …
      </Button>
    )
  return (
    <form
      noValidate
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault()
        send.mutate(
          { params: { id: load.loadId }, body: { volumeId: copy.volumeId, clipId, note } },
          { onSuccess: onSaid },
        )
      }}
    >
      <Field
        label="What is wrong with it"
        maxLength={300}
        autoFocus
        value={note}
        onChange={(event) => setNote(event.target.value)}
        hint={`The file on ${copy.volumeName} is read again, and the card is not cleared until this is settled.`}
      />
      <Trouble error={send.error} />
      <Button look="danger" type="submit" disabled={send.isPending}>
        Write down that something is wrong with it
      </Button>
    </form>
  )
}
