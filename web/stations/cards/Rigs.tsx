import { useState } from 'react'
import { newRig, rigsApi, type RigCard, type RigsView } from '../../../contract/rigs'
import { counted } from '../../../core/units/quantity'
import { Button } from '../../parts/controls/Button'
import { FormField } from '../../parts/form/fields'
import { useTyped } from '../../parts/form/useTyped'
import { Sheet } from '../../parts/layers/Sheet'
import { Tick } from '../../parts/controls/Tick'
import { Trouble } from '../../parts/Trouble'
import { useAsk } from '../../parts/asking/useAsk'
import { useSend } from '../../parts/asking/useSend'

const listed = (cards: readonly RigCard[]) =>
  new Intl.ListFormat('en-GB').format(cards.map((card) => `“${card.label}”`))

/** Rigs of many cards: whether all lenses filmed the same takes, and which is the odd one. */
export function Rigs({ productionId }: { productionId: string }) {
  const { data } = useAsk(rigsApi.all, { id: productionId })
  const refuse = useSend(rigsApi.refuse)
  const untie = useSend(rigsApi.untie)
  const [tying, setTying] = useState<readonly RigCard[]>()
  if (!data || (data.rigs.length === 0 && data.loose.length < 2)) return null
  const { rigs, proposed } = data
  return (
    <section aria-label="Rigs" className="mb-6">
      {proposed.length > 0 && (
        <div className="mb-3 border-y border-rule py-3" role="status">
          <p className="mb-2">
            <strong>Are these {proposed.length} cards the lenses of one rig?</strong> {listed(proposed)} filmed the same
            takes, as their lengths and clocks tell.
          </p>
          <div className="flex flex-wrap gap-3">
            <Button onClick={() => setTying(proposed)}>Yes, tie them …</Button>
            <Button
              look="quiet"
              disabled={refuse.isPending}
              onClick={() =>
                refuse.mutate({
                  params: { id: productionId },
                  body: { loadIds: proposed.map((card) => card.loadId) },
                })
              }
            >
              No, they are not
            </Button>
          </div>
        </div>
      )}
      {rigs.map((rig) => (
        <p key={rig.id} data-rig={rig.name} className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <span className={rig.cards.some((card) => card.isOdd) ? 'font-semibold text-doubt' : 'font-semibold'}>
            Rig {rig.sentence}
          </span>
          <span className="text-quiet">One row for all lenses in Review.</span>
          <Button
            look="quiet"
            className="!px-0"
            disabled={untie.isPending}
            onClick={() => untie.mutate({ params: { id: rig.id } })}
          >
            Untie it
          </Button>
        </p>
      ))}
      {data.loose.length > 1 && proposed.length === 0 && (
        <Button look="quiet" className="!px-0 !font-normal text-quiet" onClick={() => setTying([])}>
          Cards of one rig? Tie them …
        </Button>
      )}
      <Trouble error={refuse.error ?? untie.error} />
      {tying && <TieSheet productionId={productionId} known={data} first={tying} onClose={() => setTying(undefined)} />}
    </section>
  )
}

interface TieSheetProps {
  readonly productionId: string
  readonly known: RigsView
  /** Cards that are chosen to begin with. */
  readonly first: readonly RigCard[]
  readonly onClose: () => void
}

function TieSheet({ productionId, known, first, onClose }: TieSheetProps) {
  const send = useSend(rigsApi.tie)
  const { control, handleSubmit, setValue, watch } = useTyped(newRig, {
    name: '',
    loadIds: first.map((card) => card.loadId),
  })
  const [name, chosen] = watch(['name', 'loadIds'])
  const toggle = (id: string) =>
    setValue('loadIds', chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id])
  const save = handleSubmit((body) => send.mutate({ params: { id: productionId }, body }, { onSuccess: onClose }))
  const cards = [...known.loose].sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }))
  return (
    <Sheet
      title="Tie cards into a rig"
      about="One card per lens. Tick them in order, the first lens first. Each keeps its own folder, copies and answer; takes, lengths and counts are compared across all of them."
      open
      onClose={onClose}
    >
      <form noValidate onSubmit={(event) => void save(event)}>
        <FormField control={control} name="name" label="Name of the rig" maxLength={60} />
        <ul className="my-4 space-y-1.5" aria-label="Cards">
          {cards.map((card) => (
            <li key={card.loadId} className="flex items-center gap-3">
              <Tick checked={chosen.includes(card.loadId)} onChange={() => toggle(card.loadId)}>
                {card.label}
              </Tick>
              {chosen.includes(card.loadId) && (
                <span className="figure text-quiet">lens {chosen.indexOf(card.loadId) + 1}</span>
              )}
            </li>
          ))}
        </ul>
        <Trouble error={send.error} />
        <Button look="primary" type="submit" disabled={chosen.length < 2 || name.trim() === '' || send.isPending}>
          Tie {counted(chosen.length, 'card')}
        </Button>
      </form>
    </Sheet>
  )
}
