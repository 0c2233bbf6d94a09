import { Plus } from 'lucide-react'
import { lazy, Suspense } from 'react'
import { Link, useSearchParams } from 'react-router'
import { STATION_NAMES } from '../../../core/line/stations'
import { counted } from '../../../core/units/quantity'
import { cardsApi } from '../../../contract/cards'
import type { ProductionView } from '../../../contract/productions'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { Empty } from '../../parts/Empty'
import { calmWords, headlineOf, needsYou, nextPath } from '../../trade/headline'
import { Older } from '../../parts/table/Older'
import { useProductions } from '../../trade/queries'
import { useAsk } from '../../parts/asking/useAsk'
import { whyProposed } from '../../trade/whyProposed'
import { usePageTitle } from '../usePageTitle'
import { Knot } from '../StationLine'
import { AwayProductions } from './AwayProductions'

// Forms are no part of the first screen.
const TakeIn = lazy(() => import('../../trade/TakeIn').then((module) => ({ default: module.TakeIn })))
const NewProductionSheet = lazy(() => import('./NewProductionSheet'))

/** All productions: which one needs somebody, and what its next step is. */
export function Overview() {
  const query = useProductions()
  usePageTitle('All productions')
  const [search, setSearch] = useSearchParams()
  const start = () => setSearch({ new: '' })
  return (
    <>
      <Ask query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <FirstProduction onNew={start} />
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

function ProductionList({ productions, older, onNew }: ProductionListProps) {
  const worried = productions.filter(needsYou)
  const first = worried.length > 0 ? headlineOf(productions) : undefined
  const { data: readers = [] } = useAsk(cardsApi.readers, {})
  // It may be for an older production, or for none that is under way.
  const waiting = first ? undefined : readers.find((reader) => reader.proposed && !reader.looking)
  return (
    <>
      <Answer
        why={
          first ? (
            <>
              Next for <strong className="text-ink">{first.title}</strong>: {first.next.sentence}
            </>
          ) : waiting ? (
            `It has not been scanned.${whyProposed(waiting)}`
          ) : (
            calmWords(productions)
          )
        }
        action={
          <>
            {waiting && (
              <Suspense>
                <TakeIn reader={waiting} />
              </Suspense>
            )}
            <Button onClick={onNew}>
              <Plus className="size-4" aria-hidden />
              New production
            </Button>
            {first && (
              <Link
                to={nextPath(first)}
                data-primary=""
                className="inline-flex min-h-9 items-center rounded-box border border-accent bg-accent px-3.5 py-1 font-semibold text-accent-ink"
              >
                Go there
              </Link>
            )}
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
      <ul className="border-t border-ink">
        {productions.map((production) => (
          <ProductionRow key={production.id} production={production} />
        ))}
      </ul>
    </>
  )
}

function ProductionRow({ production }: { production: ProductionView }) {
  const worries = production.line.filter((status) => status.worry)
  const stored = production.line.find((status) => status.station === 'storage')
  return (
    <li className="border-b border-rule">
      <Link
        to={nextPath(production)}
        className="grid items-center gap-x-6 gap-y-1 py-4 hover:bg-sheet md:grid-cols-[16rem_11rem_1fr_6rem]"
      >
        <span>
          <span className="block text-lg leading-6 font-bold">{production.title}</span>
          <span className="block text-sm text-quiet">
            {production.client || 'no client'}
            {production.shootOn && `, ${production.shootOn}`}
          </span>
        </span>
        <span
          className="relative flex justify-between text-accent"
          role="img"
          aria-label={production.line
            .map(
              (status) =>
                `${STATION_NAMES[status.station]} ` +
                `${status.state === 'done' ? 'in order' : status.state === 'open' ? 'under way' : 'nothing yet'}`,
            )
            .join(', ')}
        >
          <span className="absolute inset-x-1 top-1/2 h-px bg-ink" />
          {production.line.map((status) => (
            <span key={status.station} className="relative">
              <Knot state={status.state} worry={status.worry !== undefined} />
            </span>
          ))}
        </span>
        <span>
          {worries.map((status) => (
            <span key={status.station} className="mr-3 text-stop">
              {STATION_NAMES[status.station]}: {status.worry}.
            </span>
          ))}
          <span className="block">{production.next.sentence}</span>
        </span>
        <span className="figure text-quiet md:text-right">{stored?.state === 'empty' ? '' : stored?.figure}</span>
      </Link>
    </li>
  )
}
