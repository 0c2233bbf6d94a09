import { useState } from 'react'
import { counted } from '../../../core/units/quantity'
import { cardsApi } from '../../../contract/cards'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { useProductions } from '../../trade/queries'
import { Sheet } from '../../parts/layers/Sheet'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'

interface GiveSheetProps {
  readonly clipIds: readonly string[]
  /** The production that is looked at. */
  readonly productionId: string
  /** The production that the card was read for, which may be an old one. */
  readonly owner: { readonly id: string; readonly title: string }
  readonly onClose: () => void
}

/** Reassigns clips of a card to another production: one card may serve two. */
export function ReassignSheet({ clipIds, productionId, owner, onClose }: GiveSheetProps) {
  const send = useSend(cardsApi.reassign)
  const productions = useProductions()
  const [chosen, setChosen] = useState<string>()
  const known = (productions.data?.rows ?? []).filter((one) => one.id !== owner.id)
  const others = [owner, ...known].filter((one) => one.id !== productionId)
  const target = chosen ?? others[0]?.id
  return (
    <Sheet
      title={`Reassign ${counted(clipIds.length, 'clip')} to another production`}
      about="Review, sorted view and exports go on there. Nothing on any disk moves: the card stays one load, and is copied and proved whole. What was said in review stays, but for the shot and the name, which are of this production."
      open
      onClose={onClose}
    >
      {others.length === 0 ? (
        <p>There is no other production yet.</p>
      ) : (
        <div className="mb-5">
          <Choice
            label="Production"
            value={target ?? ''}
            onChange={setChosen}
            options={others.map((one) => ({ value: one.id, label: one.title }))}
          />
        </div>
      )}
      <Trouble error={send.error} />
      {target && (
        <Button
          look="primary"
          disabled={send.isPending}
          onClick={() =>
            send.mutate({ params: { id: target }, body: { clipIds: [...clipIds] } }, { onSuccess: onClose })
          }
        >
          Reassign {clipIds.length === 1 ? 'it' : 'them'}
        </Button>
      )}
    </Sheet>
  )
}
