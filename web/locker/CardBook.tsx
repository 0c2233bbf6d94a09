import { Pencil, Plus } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { CARD_STATE_WORDS, PERHAPS_WORDS } from '../../core/shoot/gear'
import { SPEED_CLASSES, speedClassOf } from '../../core/shoot/recording'
import { counted, exactBytes, formatBytes, readBytes } from '../../core/units/quantity'
import { cardBody, gearApi, type CardLoadView, type CardView } from '../../contract/gear'
import { Answer } from '../parts/Answer'
import { Ask } from '../parts/asking/Ask'
import { Button } from '../parts/controls/Button'
import { Empty } from '../parts/Empty'
import { FormChoice, FormName, FormUnit } from '../parts/form/fields'
import { numberIn, useTyped } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'
import { IconButton } from '../parts/controls/IconButton'
import { useGear } from '../trade/queries'
import { useSend } from '../parts/asking/useSend'
import { Wide } from '../parts/Wide'
import { PutAway } from './PutAway'

/** Cards of the gear book, and what is true of each now. */
export function CardBook() {
  const [open, setOpen] = useState<{ card: CardView | undefined }>()
  const add = () => setOpen({ card: undefined })
  return (
    <>
      <Ask query={useGear()}>
        {({ cards }) =>
          cards.length === 0 ? (
            <Empty
              title="No card is known yet."
              action={
                <Button look="primary" onClick={add}>
                  Add a card
                </Button>
              }
            >
              Write a number or a name on each card, and the same here: then plans know which card goes where, and what
              is still on it.
            </Empty>
          ) : (
            <Cards cards={cards} onAdd={add} onOpen={(card) => setOpen({ card })} />
          )
        }
      </Ask>
      {open && <CardForm card={open.card} onClose={() => setOpen(undefined)} />}
    </>
  )
}

function sentenceOf(cards: readonly CardView[]): string {
  const free = cards.filter((card) => card.state === 'empty' || card.state === 'clear')
  const held = cards.length - free.length
  const perhaps = free.filter((card) => card.perhaps).length
  if (held + perhaps === 0) return `All ${counted(cards.length, 'card')} may be used.`
  const why = [
    held > 0 && `${held} ${held === 1 ? 'holds' : 'hold'} clips that are not safe yet`,
    perhaps > 0 && `${perhaps} may hold clips too`,
  ]
  return `${counted(free.length - perhaps, 'card')} may be used; ${why.filter(Boolean).join('; ')}.`
}

interface CardsProps {
  readonly cards: readonly CardView[]
  readonly onAdd: () => void
  readonly onOpen: (card: CardView) => void
}

function Cards({ cards, onAdd, onOpen }: CardsProps) {
  const shown = [...cards].sort((a, b) => Number(a.away) - Number(b.away))
  return (
    <>
      <Answer
        why="What is on a card follows from its loads: at Cards it is said which card a load lies on. A format may change what the system calls a card; its name here stays."
        action={
          <Button look="primary" onClick={onAdd}>
            <Plus className="size-4" aria-hidden />
            Add a card
          </Button>
        }
      >
        {sentenceOf(cards.filter((card) => !card.away))}
      </Answer>
      <Wide label="Cards">
        <table className="min-w-[46rem]">
          <thead>
            <tr>
              <th>Card</th>
              <th className="text-right">Holds</th>
              <th>Speed</th>
              <th>State</th>
              <th>Planned for</th>
              <th>
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((card) => (
              <tr key={card.id} data-card={card.name}>
                <td className={`font-bold ${card.away ? 'text-quiet' : ''}`}>{card.name}</td>
                <td className="figure text-right whitespace-nowrap">{formatBytes(card.capacityBytes)}</td>
                <td className="figure">{speedClassOf(card.bytesPerSecond)}</td>
                <td className={card.away ? 'text-quiet' : toneOf(card)}>
                  {card.away ? 'put away' : card.perhaps ? PERHAPS_WORDS : CARD_STATE_WORDS[card.state]}
                  <OnIt load={card.perhaps ?? card.load} />
                </td>
                <td className="text-quiet">{card.plannedFor.map((one) => one.title).join(', ')}</td>
                <td className="text-right whitespace-nowrap !pr-0">
                  <IconButton icon={Pencil} label={`Change ${card.name}`} onClick={() => onOpen(card)} />
                  <PutAway {...card} put={gearApi.putCard} erase={gearApi.eraseCard} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </>
  )
}

const toneOf = ({ state, perhaps }: CardView): string =>
  state === 'full' ? 'text-stop' : state === 'in-use' || perhaps ? 'text-doubt' : ''

/** The load on a card, with the way to the place where it is said which card it is. */
const OnIt = ({ load }: { load: CardLoadView | null }) =>
  load && (
    <Link to={`/p/${load.productionId}/cards`} className="block text-sm text-quiet underline underline-offset-4">
      “{load.label}”, {formatBytes(load.sizeBytes)}
    </Link>
  )

function CardForm({ card, onClose }: { card: CardView | undefined; onClose: () => void }) {
  const add = useSend(gearApi.addCard)
  const change = useSend(gearApi.changeCard)
  const [seen] = useState(card?.version)
  const { control, handleSubmit } = useTyped(
    cardBody,
    {
      name: card?.name ?? '',
      capacityBytes: card ? exactBytes(card.capacityBytes) : '128 GB',
      bytesPerSecond: String(card?.bytesPerSecond ?? 30e6),
    },
    (typed) => ({ ...typed, capacityBytes: numberIn(typed.capacityBytes, readBytes) }),
  )
  const own = card && !SPEED_CLASSES.some((one) => one.bytesPerSecond === card.bytesPerSecond)
  const save = handleSubmit((body) => {
    if (card) change.mutate({ params: { id: card.id }, body, seen }, { onSuccess: onClose })
    else add.mutate({ params: {}, body }, { onSuccess: onClose })
  })
  return (
    <FormSheet
      title={card ? `Change ${card.name}` : 'Add a card'}
      about="The class is printed on the card: V with two figures, or E with three."
      onClose={onClose}
      onSave={save}
      save={card ? 'Save the change' : 'Add the card'}
      busy={add.isPending || change.isPending}
      error={add.error ?? change.error}
    >
      <FormName control={control} name="name" />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <FormUnit control={control} name="capacityBytes" label="Holds" unit="bytes" />
        <FormChoice
          control={control}
          name="bytesPerSecond"
          label="Speed class"
          className="mb-5"
          options={[
            ...SPEED_CLASSES.map((one) => ({
              value: String(one.bytesPerSecond),
              label: `${one.name}: ${one.bytesPerSecond / 1e6} MB/s`,
            })),
            ...(own ? [{ value: String(card.bytesPerSecond), label: speedClassOf(card.bytesPerSecond) }] : []),
          ]}
        />
      </div>
    </FormSheet>
  )
}
