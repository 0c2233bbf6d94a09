import { useState } from 'react'
import { Link } from 'react-router'
import { shelfAnswer } from '../../../core/shelf/sentence'
import { onOneDrive } from '../../../core/storage/oneDrive'
import type { DeliverableView } from '../../../contract/exports'
import { shelfApi } from '../../../contract/shelf'
import type { VolumeView } from '../../../contract/storage'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { Empty } from '../../parts/Empty'
import { Field } from '../../parts/controls/Field'
import { Choice } from '../../parts/controls/Choice'
import { Older } from '../../parts/table/Older'
import { isOpen, useStorage, useTasks } from '../../trade/queries'
import type { Sorting } from '../../parts/table/tableColumn'
import { TaskLine } from '../../trade/TaskLine'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { preferredVolume, VolumeChoice } from '../../trade/VolumeChoice'
import { BagTable, type BagSort } from './BagTable'
import { useBags, useFilms } from './queries'

/** Station 7: what is kept, as bags that anybody can check in ten years. */
export default function Shelf({ productionId }: { productionId: string }) {
  const offered = useFilms(productionId)
  return (
    <Ask query={offered}>
      {({ rows: films }) =>
        films.length === 0 ? (
          <Empty
            title="Nothing to shelve yet."
            shows="shelf"
            action={
              <Link
                to={`/p/${productionId}/exports`}
                className="font-semibold text-accent underline underline-offset-4"
              >
                Make a deliverable first
              </Link>
            }
          >
            A finished film goes onto the shelf as a bag: a folder with the film, notes, and a list of checksums that
            any computer can check without Yendra (BagIt, RFC 8493).
          </Empty>
        ) : (
          <>
            <Bags films={films} productionId={productionId} />
            <Older pages={offered}>Offer older films as well</Older>
          </>
        )
      }
    </Ask>
  )
}

function Bags({ films, productionId }: { films: readonly DeliverableView[]; productionId: string }) {
  const [sorting, setSorting] = useState<Sorting<BagSort>>({ sort: 'written', down: true })
  const pages = useBags(productionId, sorting)
  return (
    <Ask query={pages}>
      {({ rows, first: { written, volumeNames } }) => (
        <>
          <Shelving films={films} productionId={productionId} written={written} volumeNames={volumeNames} />
          <BagTable bags={rows} pages={pages} sorting={sorting} onSort={setSorting} />
        </>
      )}
    </Ask>
  )
}

interface ShelvingProps {
  readonly films: readonly DeliverableView[]
  readonly productionId: string
  /** Bags in all, and the volumes they are on. */
  readonly written: number
  readonly volumeNames: readonly string[]
}

function Shelving({ films, productionId, written, volumeNames }: ShelvingProps) {
  const send = useSend(shelfApi.shelve)
  const { data: storage } = useStorage(productionId)
  const { data: tasks = [] } = useTasks()
  const [chosen, setChosen] = useState<string>()
  const [volume, setVolume] = useState<string>()
  const [allTheSame, setAllTheSame] = useState('')
  const deliverableId = chosen ?? films.find((one) => one.pass)?.id ?? films[0]?.id ?? ''
  const film = films.find((one) => one.id === deliverableId)
  const fails = film !== undefined && !film.pass
  // A drive that has a bag already, or no room for this one, is no second place.
  const holds = (one: VolumeView) => [one.name, ...one.sharesDriveWith].some((name) => volumeNames.includes(name))
  const holding = (storage?.volumes ?? []).filter((one) => volumeNames.includes(one.name))
  const fit = (storage?.volumes ?? []).filter(
    (one) => !holds(one) && one.budget.freeBytes > (film?.sizeBytes ?? 0) * 1.01,
  )
  const volumeId = volume ?? preferredVolume(fit, 'archive')
  const task = tasks.find((one) => one.kind === 'bag' && one.productionId === productionId)
  const busy = task !== undefined && isOpen(task)
  const { sentence, why } = shelfAnswer(written, volumeNames, onOneDrive(holding))
  return (
    <>
      <Answer
        why={why}
        action={
          storage && (
            <div className="flex flex-wrap items-end gap-3">
              <Choice
                label="Film"
                className="w-64"
                value={deliverableId}
                onChange={setChosen}
                options={films.map((one) => ({
                  value: one.id,
                  label: `${one.pass ? '' : 'Fails: '}${one.destinationName}, ${one.clipName}`,
                }))}
              />
              <VolumeChoice label="Onto" volumes={storage.volumes} value={volumeId} onChange={setVolume} />
              <Button
                look="primary"
                disabled={busy || send.isPending || !volumeId || (fails && !allTheSame.trim())}
                onClick={() =>
                  send.mutate({
                    params: {},
                    body: { deliverableId, volumeId, ...(fails ? { why: allTheSame } : {}) },
                  })
                }
              >
                Pack it as a bag
              </Button>
            </div>
          )
        }
      >
        {sentence}
      </Answer>
      {fails && (
        <Field
          label="Why it goes on the shelf all the same"
          hint="This film fails a check. Better render it again; what you write here is kept in the bag."
          className="mb-4 max-w-xl"
          value={allTheSame}
          maxLength={500}
          onChange={(event) => setAllTheSame(event.target.value)}
        />
      )}
      <Trouble error={send.error} />
      {task && (
        <div className="mb-6 border-y border-rule py-3">
          <TaskLine task={task} />
        </div>
      )}
    </>
  )
}
