import { Pencil } from 'lucide-react'
import { useState } from 'react'
import { likelyGear } from '../../../core/shoot/loadGear'
import type { LoadView } from '../../../contract/cards'
import type { GearView } from '../../../contract/gear'
import { shootApi } from '../../../contract/shoot'
import { Button } from '../../parts/controls/Button'
import { IconButton } from '../../parts/controls/IconButton'
import { Choice } from '../../parts/controls/Choice'
import { useGear } from '../../trade/queries'
import { Sheet } from '../../parts/layers/Sheet'
import { Trouble } from '../../parts/Trouble'
import { useAsk } from '../../parts/asking/useAsk'
import { useSend } from '../../parts/asking/useSend'

/** Which card of the gear book a load lies on, and which camera filmed it: guessed, and confirmed by a person. */
export function LoadGear({ load }: { load: LoadView }) {
  const { data: gear } = useGear()
  if (!gear || (gear.cards.length === 0 && gear.cameras.length === 0)) return null
  return <Known load={load} gear={gear} />
}

const NONE = 'none'

function Known({ load, gear }: { load: LoadView; gear: GearView }) {
  const send = useSend(shootApi.setLoadGear)
  const [open, setOpen] = useState(false)
  const { data: plan } = useAsk(shootApi.plan, { id: load.productionId })
  const cards = gear.cards.filter((card) => !card.away)
  const cameras = gear.cameras.filter((camera) => !camera.away)
  const guess = likelyGear({ label: load.label, cards, cameras, plan })
  const nameOf = (all: readonly { id: string; name: string }[], id: string | null | undefined) =>
    all.find((one) => one.id === id)?.name
  const [card, camera] = [nameOf(gear.cards, load.cardId), nameOf(gear.cameras, load.cameraId)]
  const say = (cardId: string | null, cameraId: string | null) =>
    send.mutate({ params: { id: load.id }, body: { cardId, cameraId } }, { onSuccess: () => setOpen(false) })
  const [likelyCard, likelyCamera] = [nameOf(cards, guess.cardId), nameOf(cameras, guess.cameraId)]
  const known = [
    camera && `filmed by ${camera}`,
    card && `on the card ${card}${load.cardByUid ? ' (its file system is the one that lay on it before)' : ''}`,
  ]
    .filter(Boolean)
    .join(', ')
  const asked = [likelyCard && `the card ${likelyCard}`, likelyCamera && `filmed by ${likelyCamera}`]
    .filter(Boolean)
    .join(', ')
  return (
    <>
      <p className="-mt-2 mb-3 flex flex-wrap items-center gap-x-3 gap-y-1">
        {known ? (
          <>
            <span className="text-quiet">{known.charAt(0).toUpperCase() + known.slice(1)}.</span>
            <IconButton icon={Pencil} label={`Change card and camera of ${load.label}`} onClick={() => setOpen(true)} />
          </>
        ) : asked ? (
          <>
            <span>Is it {asked}?</span>
            <Button disabled={send.isPending} onClick={() => say(guess.cardId ?? null, guess.cameraId ?? null)}>
              Yes, it is
            </Button>
            <Button look="quiet" onClick={() => setOpen(true)}>
              No, another
            </Button>
          </>
        ) : (
          <Button look="quiet" className="!px-0" onClick={() => setOpen(true)}>
            Say which card it is and what filmed it
          </Button>
        )}
      </p>
      <Trouble error={send.error} />
      {open && (
        <GearSheet
          load={load}
          cards={cards}
          cameras={cameras}
          busy={send.isPending}
          onSay={say}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  )
}

interface GearSheetProps {
  readonly load: LoadView
  readonly cards: GearView['cards']
  readonly cameras: GearView['cameras']
  readonly busy: boolean
  readonly onSay: (cardId: string | null, cameraId: string | null) => void
  readonly onClose: () => void
}

function GearSheet({ load, cards, cameras, busy, onSay, onClose }: GearSheetProps) {
  const [cardId, setCardId] = useState(load.cardId ?? NONE)
  const [cameraId, setCameraId] = useState(load.cameraId ?? NONE)
  const options = (all: readonly { id: string; name: string }[]) => [
    { value: NONE, label: 'not known' },
    ...all.map((one) => ({ value: one.id, label: one.name })),
  ]
  return (
    <Sheet
      title={`Card and camera of “${load.label}”`}
      about="The name on the card decides, not what the system calls it: a format may change that."
      open
      onClose={onClose}
    >
      <div className="mb-5 grid gap-x-4 gap-y-4 sm:grid-cols-2">
        <Choice label="Card" value={cardId} onChange={setCardId} options={options(cards)} />
        <Choice label="Filmed by" value={cameraId} onChange={setCameraId} options={options(cameras)} />
      </div>
      <Button
        look="primary"
        disabled={busy}
        onClick={() => onSay(cardId === NONE ? null : cardId, cameraId === NONE ? null : cameraId)}
      >
        Write it down
      </Button>
    </Sheet>
  )
}
