import { Footprints, Plus } from 'lucide-react'
import { lazy, Suspense, useState } from 'react'
import { useSearchParams } from 'react-router'
import { counted } from '../../../../core/units/quantity'
import { cardsApi } from '../../../../contract/cards'
import type { ProductionView } from '../../../../contract/productions'
import { Answer } from '../../../parts/Answer'
import { Ask } from '../../../parts/asking/Ask'
import { Button } from '../../../parts/controls/Button'
import { Empty } from '../../../parts/Empty'
import { calmWords, needsYou } from '../../../trade/headline'
import { Older } from '../../../parts/table/Older'
import { useNextPage } from '../../../parts/table/usePages'
import { useProductions, useTasks, useVolumes } from '../../../trade/queries'
import { useAsk } from '../../../parts/asking/useAsk'
import { whyProposed } from '../../../trade/whyProposed'
import { usePageTitle } from '../../usePageTitle'
import { startWalk } from '../../walk/walking'
import { AwayProductions } from '../AwayProductions'
import { DeskItems, itemsOf } from './DeskItems'
import { Drives } from './Drives'
import { ProductionTable } from './ProductionTable'

// Forms are no part of the first screen.
const TakeIn = lazy(() => import('../../../trade/TakeIn').then((module) => ({ default: module.TakeIn })))
const FirstSteps = lazy(() => import('./FirstSteps'))
const NewProductionSheet = lazy(() => import('../NewProductionSheet'))

/** All productions: which one needs somebody, and what its next step is. */
export function Overview() {
  const query = useProductions()
  // A few are there at once, and the next ones come by themselves.
  useNextPage(query, 0, query.data?.rows.length ?? 0)
  usePageTitle('All productions')
  const [search, setSearch] = useSearchParams()
  const start = () => setSearch({ new: '' })
  return (
    <>
      <Ask query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Beginning onNew={start} />
          ) : (
            <ProductionList productions={rows} older={query.hasNextPage} onNew={start} />
          )
        }
      </Ask>
      <Older pages={query}>Show older productions</Older>
      <AwayProductions />
      <Suspense>{search.has('new') && <NewProductionSheet onClose={() => setSearch({})} />}</Suspense>
    </>
  )
}

/** What a person needs first: card and drives, then a production. */
function Beginning({ onNew }: { onNew: () => void }) {
  const readers = useAsk(cardsApi.readers, {})
  const volumes = useVolumes()
  return (
    <Ask query={readers}>
      {(cards) => (
        <Ask query={volumes}>{(drives) => <Begun isEmpty={cards.length + drives.length === 0} onNew={onNew} />}</Ask>
      )}
    </Ask>
  )
}

/** What was begun stays on the page while one thing after the other becomes known. */
function Begun({ isEmpty, onNew }: { isEmpty: boolean; onNew: () => void }) {
  const [beganEmpty] = useState(isEmpty)
  if (!beganEmpty) return <FirstProduction onNew={onNew} />
  return (
    <Suspense>
      <FirstSteps onNew={onNew} />
    </Suspense>
  )
}

function FirstProduction({ onNew }: { onNew: () => void }) {
  return (
    <Empty
      title="No production yet."
      action={
        <Button look="primary" onClick={onNew}>
          <Plus className="size-4" aria-hidden />
          New production
        </Button>
      }
    >
      A production is one video, from the plan to the shelf. Name the first one; then plan its cameras or put a card
      into the reader. To look around with made-up footage first, stop this and run{' '}
      <span className="figure">npm start</span> without <span className="figure">--empty</span>.
    </Empty>
  )
}

interface ProductionListProps {
  readonly productions: readonly ProductionView[]
  /** Older ones are not shown yet, and nothing is said of them. */
  readonly older: boolean
  readonly onNew: () => void
}

/** The desk in the evening: one sentence, what needs somebody, where everything lies, and all productions. */
function ProductionList({ productions, older, onNew }: ProductionListProps) {
  const worried = productions.filter(needsYou)
  const { data: readers = [] } = useAsk(cardsApi.readers, {})
  const { data: tasks = [] } = useTasks()
  const { data: volumes = [] } = useVolumes()
  const items = itemsOf(productions, tasks, volumes)
  // It may be for an older production, or for none that is under way.
  const waiting = worried.length > 0 ? undefined : readers.find((reader) => reader.proposed && !reader.looking)
  return (
    <>
      <Answer
        why={
          waiting ? `It has not been scanned.${whyProposed(waiting)}` : worried.length === 0 && calmWords(productions)
        }
        action={
          <>
            {waiting && (
              <Suspense>
                <TakeIn reader={waiting} />
              </Suspense>
            )}
            <Button onClick={startWalk}>
              <Footprints className="size-4" aria-hidden />
              Start here
            </Button>
            <Button onClick={onNew}>
              <Plus className="size-4" aria-hidden />
              New production
            </Button>
          </>
        }
      >
        {waiting
          ? `A card waits: “${waiting.proposed?.label ?? ''}”.`
          : worried.length === 0
            ? older
              ? `None of the newest ${productions.length} productions needs you now.`
              : 'Nothing needs you now.'
            : `${counted(worried.length, 'production')} of ${older ? 'the newest ' : ''}${productions.length} ` +
              `${worried.length === 1 ? 'needs' : 'need'} you.`}
      </Answer>
      <div className="mb-5 grid gap-x-10 gap-y-5 lg:grid-cols-[1fr_21rem]">
        {items.length > 0 ? (
          <DeskItems items={items} />
        ) : (
          <p className="text-quiet">No production asks for anything.</p>
        )}
        <Drives volumes={volumes} />
      </div>
      <ProductionTable productions={productions} />
    </>
  )
}
