import { useState } from 'react'
import { Link } from 'react-router'
import { counted, formatBytes } from '../../../core/units/quantity'
import { cardsApi, type LoadView, type ReaderView } from '../../../contract/cards'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { LetGo, LetGoSaid, useLetGo } from '../../trade/LetGo'
import { Older } from '../../parts/table/Older'
import { isOpen, useTasks } from '../../trade/queries'
import { TakeIn } from '../../trade/TakeIn'
import { TaskLine } from '../../trade/TaskLine'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { whyProposed } from '../../trade/whyProposed'
import { AddFolderSheet } from '../storage/AddFolderSheet'
import { ClipTable } from './ClipTable'
import { Findings } from './Findings'
import { LoadGear } from './LoadGear'
import { Rigs } from './Rigs'
import { useLoads, useReaders } from './queries'

/** Station 2: what lies in the reader, what is on it, and what is wrong with it. */
export default function Cards({ productionId }: { productionId: string }) {
  const readers = useReaders()
  const loads = useLoads(productionId)
  const { data: tasks = [] } = useTasks()
  const [adding, setAdding] = useState(false)
  const scanning = tasks.filter((task) => task.kind === 'scan' && task.productionId === productionId && isOpen(task))
  const failed = tasks.find((task) => task.kind === 'scan' && task.productionId === productionId)
  return (
    <>
      <Ask query={readers}>
        {(known) => (
          <Readers
            readers={known}
            productionId={productionId}
            loads={loads.data?.rows ?? []}
            onAdd={() => setAdding(true)}
          />
        )}
      </Ask>
      {scanning.map((task) => (
        <div key={task.id} className="mb-6 border-y border-rule py-3">
          <TaskLine task={task} />
        </div>
      ))}
      {scanning.length === 0 && failed?.state === 'failed' && (
        <div className="mb-6 border-y border-rule py-3">
          <TaskLine task={failed} />
        </div>
      )}
      <Rigs productionId={productionId} />
      <Ask query={loads}>
        {({ rows }) =>
          rows.map((load, at) => (
            <LoadSection key={load.id} load={load} productionId={productionId} unfolded={at < UNFOLDED} />
          ))
        }
      </Ask>
      <Older pages={loads}>Show older loads</Older>
      <AddFolderSheet what="reader" open={adding} onClose={() => setAdding(false)} />
    </>
  )
}

interface ReadersProps {
  readonly readers: readonly ReaderView[]
  readonly productionId: string
  readonly loads: readonly LoadView[]
  readonly onAdd: () => void
}

function Readers({ readers, productionId, loads, onAdd }: ReadersProps) {
  const send = useSend(cardsApi.look)
  const letting = useLetGo('reader')
  const cards = readers.filter((reader) => reader.state === 'card')
  // Whatever is being looked at needs nobody: the next one that waits is asked about.
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
  const add = <Button onClick={onAdd}>Add a reader folder</Button>
  // Of a card that tells nothing of its production it is asked first.
  const unlooked = cards.filter((reader) => !reader.loadId && !reader.looking && reader.proposed?.production)
  const target = waiting ?? holding
  const sentence = waiting
    ? waiting.looking
      ? `“${waiting.cardName}” is being scanned.`
      : (waiting.difference ?? `${cardWords(waiting)} and has not been scanned.`)
    : load
      ? holding?.isTwin
        ? `${holding.cardName ?? 'This card'} is the backup card of “${load.label}”: the same files on another card. ${load.whereabouts.sentence}`
        : `“${load.label}”: ${load.sentence}`
      : holding
        ? given
          ? `The card in the reader is that of “${given.label}” of ${given.productionTitle}; ${given.clipsHere} of its ${counted(given.clips, 'clip')} ${given.clipsHere === 1 ? 'belongs' : 'belong'} here.`
          : 'The card in the reader belongs to another production.'
        : readers.length === 0
          ? 'No reader is known yet.'
          : 'No card is in the reader.'
  const why = waiting
    ? `${whyProposed(waiting).trim() || 'Nothing on it tells for which production it was filmed.'} Taking it in reads every clip, copies all of it to two drives and proves that; nothing is ever written to the card. Its name becomes its folder on every volume.`
    : load
      ? `${counted(load.fileCount, 'file')}, ${formatBytes(load.sizeBytes)}. Its copies are made and proved at the next station.`
      : readers.length === 0
        ? 'Add the folder where your card appears when it is in the reader.'
        : 'Write-protect the card where it has a switch, then put it in.'
  const protection = target?.writeProtected ? ' It is write-protected: nothing can be changed on it here.' : ''
  return (
    <>
      <Answer
        why={why + protection}
        action={
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
            {target && !target.looking && (
              <LetGo letting={letting} id={target.id} name={target.cardName ?? target.name} />
            )}
            {add}
          </div>
        }
      >
        {sentence}
      </Answer>
      <Trouble error={send.error} />
      <LetGoSaid letting={letting} here={cards.map((reader) => reader.id)} />
      {cards.length > 1 && (
        <ul aria-label="Cards in readers" className="mb-6 divide-y divide-rule border-y border-rule">
          {cards.map((reader) => {
            const known = loads.find((one) => one.id === reader.loadId)
            return (
              <li key={reader.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
                <strong>{reader.cardName}</strong>
                <span className="text-quiet">
                  in {reader.name}
                  {reader.room && `, ${formatBytes(reader.room.capacityBytes)}`}
                  {reader.writeProtected && ', write-protected'}
                </span>
                <span className="grow">
                  {reader.looking
                    ? 'Being scanned.'
                    : known
                      ? reader.isTwin
                        ? `The backup card of “${known.label}”: the same files on another card.`
                        : `${known.label === reader.cardName ? '' : `“${known.label}”: `}${known.whereabouts.sentence}`
                      : reader.loadId
                        ? 'Belongs to another production.'
                        : (reader.difference ?? 'Not scanned yet.')}
                </span>
                {reader !== target && (
                  <>
                    {reader.loadId ? (
                      <Button disabled={reader.looking || send.isPending} onClick={() => look(reader)}>
                        Scan again
                      </Button>
                    ) : (
                      <Button disabled={reader.looking} onClick={() => setAskedId(reader.id)}>
                        Take in “{reader.proposed?.label ?? reader.cardName}” …
                      </Button>
                    )}
                    {!reader.looking && (
                      <LetGo letting={letting} id={reader.id} name={reader.cardName ?? reader.name} />
                    )}
                  </>
                )}
              </li>
            )
          })}
        </ul>
      )}
    </>
  )
}

/** A folder that somebody chose as a reader does not tell how the card in it is called. */
const cardWords = ({ name, cardName, proposed }: ReaderView) =>
  cardName === name && proposed?.label !== cardName ? `A card is in ${name}` : `“${cardName}” is in the reader`

/** The newest loads show their clips at once; older ones when somebody asks. */
const UNFOLDED = 2

const WHERE_LOOK = { twice: 'text-good', once: 'text-doubt', part: 'text-doubt', nowhere: 'text-stop' } as const

interface LoadSectionProps {
  readonly load: LoadView
  readonly productionId: string
  readonly unfolded: boolean
}

function LoadSection({ load, productionId, unfolded }: LoadSectionProps) {
  const [open, setOpen] = useState(unfolded)
  const isOwn = load.productionId === productionId
  const away = load.clips - load.clipsHere
  return (
    <section aria-label={`Load ${load.label}`} className="mb-10">
      <h2 className="mb-1 text-xl">{load.label}</h2>
      <p className="mb-3 text-quiet">
        {isOwn ? (
          <>
            {counted(load.clips, 'clip')}, {counted(load.fileCount, 'file')},{' '}
            <span className="figure">{formatBytes(load.sizeBytes)}</span>
            {away > 0 && `, ${counted(away, 'clip')} reassigned to other productions`}.{' '}
          </>
        ) : (
          <>
            {load.clipsHere} of its {counted(load.clips, 'clip')}, reassigned from{' '}
            <Link to={`/p/${load.productionId}/cards`} className="text-accent underline underline-offset-4">
              {load.productionTitle}
            </Link>
            , where the card is asked about.{' '}
          </>
        )}
        <strong className={WHERE_LOOK[load.whereabouts.state]}>{load.whereabouts.sentence}</strong>
      </p>
      {isOwn && (
        <>
          <LoadGear load={load} />
          <Findings findings={load.findings} loadId={load.id} />
        </>
      )}
      {open ? (
        <ClipTable load={load} productionId={productionId} />
      ) : (
        load.clips > 0 && (
          <Button onClick={() => setOpen(true)}>Show {counted(isOwn ? load.clips : load.clipsHere, 'clip')}</Button>
        )
      )}
    </section>
  )
}
