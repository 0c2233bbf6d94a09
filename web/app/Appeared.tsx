import { lazy, Suspense, useState } from 'react'
import { useLocation } from 'react-router'
import { fullness } from '../../core/cards/load/appeared'
import { formatBytes } from '../../core/units/quantity'
import { cardsApi, type ReaderView } from '../../contract/cards'
import { noticedApi, type AppearedView } from '../../contract/noticed'
import { Button } from '../parts/controls/Button'
import { useProductions } from '../trade/queries'
import { Trouble } from '../parts/Trouble'
import { useAsk } from '../parts/asking/useAsk'
import { whyProposed } from '../trade/whyProposed'
import { useSend } from '../parts/asking/useSend'

const AddFolderSheet = lazy(() =>
  import('../stations/storage/AddFolderSheet').then(({ AddFolderSheet: Sheet }) => ({ default: Sheet })),
)

// What a card asks is no part of the first screen.
const TakeIn = lazy(() => import('../trade/TakeIn').then((module) => ({ default: module.TakeIn })))

const stayOf = (reader: ReaderView) => `${reader.id} ${reader.stay ?? ''}`
const unlooked = (readers: readonly ReaderView[]) =>
  readers.filter((reader) => reader.state === 'card' && reader.loadId === null)

/** Says on every page that a card or a drive has just appeared, and takes it in with one press. */
export function Appeared() {
  const { data: offers = [] } = useAsk(noticedApi.all, {})
  const news = useNewCards()
  const { data: productions } = useProductions(offers.length + news.cards.length > 0)
  const [adding, setAdding] = useState<string>()
  // A card is taken in for a production; a drive may come before there is any.
  const isEmpty = productions?.rows.length === 0
  return (
    <>
      {offers.length + news.cards.length > 0 && (
        <section
          aria-label="Just appeared"
          className="mb-4 border-l-4 border-accent bg-sheet px-4 py-3"
          data-screen-only
        >
          <ul className="space-y-3">
            {offers.map((offer) =>
              isEmpty && offer.offer.kind === 'card' ? (
                <Later key={offer.id} sentence={offer.offer.sentence} />
              ) : (
                <Offered key={offer.id} offer={offer} onAdd={() => setAdding(offer.path)} />
              ),
            )}
            {news.cards.map((reader) =>
              isEmpty ? (
                <Later key={stayOf(reader)} sentence={appearedText(reader)} />
              ) : (
                <InReader key={stayOf(reader)} reader={reader} onLeave={() => news.leave(reader)} />
              ),
            )}
          </ul>
        </section>
      )}
      {/* What was added is no offer any more, while its sheet may still have something to say. */}
      {adding !== undefined && (
        <Suspense>
          <AddFolderSheet what="volume" path={adding} open onClose={() => setAdding(undefined)} />
        </Suspense>
      )}
    </>
  )
}

/** Cards that came into a known reader since this page was opened; the station of cards says it by itself. */
function useNewCards() {
  const { data: readers } = useAsk(cardsApi.readers, {})
  const { pathname } = useLocation()
  const [old, setOld] = useState<ReadonlySet<string>>()
  if (readers && !old) setOld(new Set(unlooked(readers).map(stayOf)))
  // What was taken out and comes again is news.
  const gone = old && readers && [...old].filter((stay) => !unlooked(readers).some((reader) => stayOf(reader) === stay))
  if (old && gone && gone.length > 0) setOld(new Set([...old].filter((stay) => !gone.includes(stay))))
  const isCards = pathname.endsWith('/cards')
  return {
    // What is being scanned needs nobody.
    cards:
      isCards || !readers || !old
        ? []
        : unlooked(readers).filter((reader) => !reader.looking && !old.has(stayOf(reader))),
    leave: (reader: ReaderView) => setOld((before) => new Set([...(before ?? []), stayOf(reader)])),
  }
}

interface OfferedProps {
  readonly offer: AppearedView
  readonly onAdd: () => void
}

function Offered({ offer: { id, path, offer }, onAdd }: OfferedProps) {
  const read = useSend(noticedApi.read)
  const leave = useSend(noticedApi.leave)
  const sent = { params: { id }, body: undefined }
  const isCard = offer.kind === 'card'
  return (
    <li>
      <Line sentence={offer.sentence} note={path}>
        {(isCard || offer.kind === 'card or drive') && (
          <Button
            look={isCard ? 'primary' : 'plain'}
            data-take-in={isCard ? '' : undefined}
            disabled={read.isPending}
            onClick={() => read.mutate(sent)}
          >
            {isCard ? 'See for which production' : 'It is a card'}
          </Button>
        )}
        {(offer.kind === 'marked' || offer.kind === 'card or drive') && (
          <Button onClick={onAdd}>Add it as a volume</Button>
        )}
        <Button look="quiet" onClick={() => leave.mutate(sent)}>
          {isCard ? 'Not now' : 'Leave it alone'}
        </Button>
      </Line>
      <Trouble error={read.error ?? leave.error} />
    </li>
  )
}

function appearedText({ difference, room, proposed, cardName }: ReaderView): string {
  const size = room ? `, ${formatBytes(room.capacityBytes)}, ${fullness(room.capacityBytes, room.freeBytes)}` : ''
  return difference ?? `A card appeared: “${proposed?.label ?? cardName ?? ''}”${size}.`
}

/** What waits for the first production. */
const Later = ({ sentence }: { sentence: string }) => (
  <li role="status">
    <strong>{sentence}</strong> <span className="text-quiet">Begin a production, so that it can be taken in.</span>
  </li>
)

interface InReaderProps {
  readonly reader: ReaderView
  readonly onLeave: () => void
}

function InReader({ reader, onLeave }: InReaderProps) {
  return (
    <li>
      <Line sentence={appearedText(reader)} note={`${reader.name}.${whyProposed(reader)}`}>
        <Suspense>
          <TakeIn reader={reader}>
            <Button look="quiet" onClick={onLeave}>
              Not now
            </Button>
          </TakeIn>
        </Suspense>
      </Line>
    </li>
  )
}

function Line({ sentence, note, children }: { sentence: string; note: string; children: React.ReactNode }) {
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2" role="status">
      <p>
        <strong>{sentence}</strong> <span className="break-words text-quiet">{note}</span>
      </p>
      <div className="flex flex-wrap items-center gap-2">{children}</div>
    </div>
  )
}
