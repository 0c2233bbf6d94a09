import { useState } from 'react'
import { counted, formatBytes } from '../../../core/units/quantity'
import { cardsApi, type LoadView, type ReaderView } from '../../../contract/cards'
import { Answer } from '../../parts/Answer'
import { Button } from '../../parts/controls/Button'
import { LetGo, LetGoSaid, useLetGo } from '../../trade/LetGo'
import { TakeIn } from '../../trade/TakeIn'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { whyProposed } from '../../trade/whyProposed'

interface ReadersProps {
  readonly readers: readonly ReaderView[]
  readonly productionId: string
  readonly loads: readonly LoadView[]
  readonly onAdd: () => void
}

export function Readers({ readers, productionId, loads, onAdd }: ReadersProps) {
  const send = useSend(cardsApi.look)
  const letting = useLetGo('reader')
  const cards = readers.filter((reader) => reader.state === 'card')
  // Whatever is being scanned needs nobody: the next one that waits is asked about.
  const [askedId, setAskedId] = useState<string>()
  const waiting =
    cards.find((reader) => !reader.loadId && reader.id === askedId) ??
    cards.find((reader) => !reader.loadId && !reader.looking) ??
    cards.find((reader) => !reader.loadId)
  const holding = cards.find((reader) => reader.loadId && !reader.isTwin) ?? cards.find((reader) => reader.loadId)
  const load = loads.find((one) => one.id === holding?.loadId && one.productionId === productionId)
  const given = load ? undefined : loads.find((one) => one.id === holding?.loadId)
  const look = (reader: ReaderView) =>
    send.mutate({
      params: { id: reader.id },
      body: {
        productionId: reader.proposed?.production?.id ?? productionId,
        label: '',
        copy: false,
        stay: reader.stay,
      },
    })
  // Of a card that tells nothing of its production it is asked first.
  const unlooked = cards.filter((reader) => !reader.loadId && !reader.looking && reader.proposed?.production)
  const target = waiting ?? holding
  const known: ReadersKnown = { waiting, holding, load, given, hasReader: readers.length > 0 }
  const protection = target?.writeProtected ? ' It is write-protected: nothing can be changed on it here.' : ''
  const actions = (
    <div className="flex flex-wrap items-end gap-3">
      {waiting ? (
        <TakeIn key={`${waiting.id} ${waiting.stay}`} reader={waiting} here={productionId} whole />
      ) : (
        target && (
          <Button disabled={target.looking || send.isPending} onClick={() => look(target)}>
            Scan again
          </Button>
        )
      )}
      {unlooked.length > 1 && (
        <Button disabled={send.isPending} onClick={() => unlooked.forEach(look)}>
          Scan all {unlooked.length}
        </Button>
      )}
      {target && !target.looking && <LetGo letting={letting} id={target.id} name={target.cardName ?? target.name} />}
      <Button onClick={onAdd} data-walk={known.hasReader ? undefined : 'card'}>
        Add a reader folder
      </Button>
    </div>
  )
  return (
    <>
      <Answer why={readersWhy(known) + protection} action={actions}>
        {readersSentence(known)}
      </Answer>
      <Trouble error={send.error} />
      <LetGoSaid letting={letting} here={cards.map((reader) => reader.id)} />
      {cards.length > 1 && (
        <ul aria-label="Cards in readers" className="mb-6 divide-y divide-rule border-y border-rule">
          {cards.map((reader) => (
            <ReaderRow
              key={reader.id}
              reader={reader}
              load={loads.find((one) => one.id === reader.loadId)}
              busy={send.isPending}
              letting={letting}
              isAsked={reader === target}
              onScan={() => look(reader)}
              onAsk={() => setAskedId(reader.id)}
            />
          ))}
        </ul>
      )}
    </>
  )
}

/** A folder that somebody chose as a reader does not tell how the card in it is called. */
const cardWords = ({ name, cardName, proposed }: ReaderView) =>
  cardName === name && proposed?.label !== cardName ? `A card is in ${name}` : `“${cardName}” is in the reader`

/**
 * What the answer of the page hangs on: the card that is asked about, else the one that was scanned, and whose it is.
 */
interface ReadersKnown {
  readonly waiting: ReaderView | undefined
  readonly holding: ReaderView | undefined
  /** The load of this production that it holds. */
  readonly load: LoadView | undefined
  /** The load of another production of which clips were reassigned to this one. */
  readonly given: LoadView | undefined
  readonly hasReader: boolean
}

function readersSentence({ waiting, holding, load, given, hasReader }: ReadersKnown): string {
  if (waiting?.looking) return `“${waiting.cardName}” is being scanned.`
  if (waiting) return waiting.difference ?? `${cardWords(waiting)} and has not been scanned.`
  if (load && holding?.isTwin)
    return (
      `${holding.cardName ?? 'This card'} is the backup card of “${load.label}”: the same files on ` +
      `another card. ${load.whereabouts.sentence}`
    )
  if (load) return `“${load.label}”: ${load.sentence}`
  if (given)
    return (
      `The card in the reader is that of “${given.label}” of ${given.productionTitle}; ` +
      `${given.clipsHere} of its ${counted(given.clips, 'clip')} ` +
      `${given.clipsHere === 1 ? 'belongs' : 'belong'} here.`
    )
  if (holding) return 'The card in the reader belongs to another production.'
  return hasReader ? 'No card is in the reader.' : 'No reader is known yet.'
}

function readersWhy({ waiting, load, hasReader }: ReadersKnown): string {
  if (waiting) {
    const whose = whyProposed(waiting).trim() || 'Nothing on it tells for which production it was filmed.'
    return (
      `${whose} Taking it in reads every clip, copies all of it to two drives and proves that; nothing ` +
      'is ever written to the card. Its name becomes its folder on every volume.'
    )
  }
  if (load)
    return (
      `${counted(load.fileCount, 'file')}, ${formatBytes(load.sizeBytes)}. Its copies are made and ` +
      'proved at the next station.'
    )
  return hasReader
    ? 'Write-protect the card where it has a switch, then put it in.'
    : 'Add the folder where your card appears when it is in the reader.'
}

interface ReaderRowProps {
  readonly reader: ReaderView
  readonly load: LoadView | undefined
  readonly busy: boolean
  readonly letting: ReturnType<typeof useLetGo>
  /** The page asks about this one already. */
  readonly isAsked: boolean
  readonly onScan: () => void
  readonly onAsk: () => void
}

/** One card of several that lie in readers. */
function ReaderRow({ reader, load, busy, letting, isAsked, onScan, onAsk }: ReaderRowProps) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <strong>{reader.cardName}</strong>
      <span className="text-quiet">
        in {reader.name}
        {reader.room && `, ${formatBytes(reader.room.capacityBytes)}`}
        {reader.writeProtected && ', write-protected'}
      </span>
      <span className="grow">
        {reader.looking
          ? 'Being scanned.'
          : load
            ? reader.isTwin
              ? `The backup card of “${load.label}”: the same files on another card.`
              : `${load.label === reader.cardName ? '' : `“${load.label}”: `}${load.whereabouts.sentence}`
            : reader.loadId
              ? 'Belongs to another production.'
              : (reader.difference ?? 'Not scanned yet.')}
      </span>
      {!isAsked && (
        <>
          {reader.loadId ? (
            <Button disabled={reader.looking || busy} onClick={onScan}>
              Scan again
            </Button>
          ) : (
            <Button disabled={reader.looking} onClick={onAsk}>
              Take in “{reader.proposed?.label ?? reader.cardName}” …
            </Button>
          )}
          {!reader.looking && <LetGo letting={letting} id={reader.id} name={reader.cardName ?? reader.name} />}
        </>
      )}
    </li>
  )
}
