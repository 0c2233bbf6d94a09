import { Link, NavLink, useParams, useSearchParams } from 'react-router'
import { isStation, STATION_NAMES, type Station } from '../../core/line/stations'
import type { ProductionView } from '../../contract/productions'
import { Ask } from '../parts/asking/Ask'
import { nextPath } from '../trade/headline'
import { useProduction } from '../trade/queries'
import { KnownStation } from './KnownStation'
import { DESKS, MAIN_DESK, type Desk } from './desks'
import { NotFound } from './pages/ErrorPage'
import { StationLine } from './StationLine'
import type { StationPage } from './stationPage'
import { usePageTitle } from './usePageTitle'

function PageTitle({ name, title }: { name: string; title: string }) {
  usePageTitle(name, title)
  return null
}

/** Finished, with nothing of this station in Yendra itself. */
const isOnlyKnown = ({ known, line }: ProductionView, station: Station) =>
  known !== null && line.find((status) => status.station === station)?.state === 'empty'

/** One station of one production, or one of its desks, under the line of all seven. */
export function ProductionFrame({ pages }: { pages: Record<Station, StationPage> }) {
  const { productionId, station, desk: deskId } = useParams()
  const query = useProduction(productionId)
  const desks = isStation(station) ? (DESKS[station] ?? []) : []
  const desk = desks.find((one) => one.id === deskId)
  const Page = desk?.Page ?? (isStation(station) ? pages[station] : undefined)
  if (!productionId || !Page || !isStation(station)) return <NotFound />
  if ((deskId !== undefined && !desk) || query.error?.problem.status === 404) return <NotFound />
  return (
    <>
      <StationLine productionId={productionId} production={query.data} current={station} />
      <div
        data-testid="desks"
        className="mb-4 flex h-7 items-stretch justify-end gap-x-5 border-b border-rule"
        data-screen-only
      >
        {desks.length > 0 && <DeskNames base={`/p/${productionId}/${station}`} station={station} desks={desks} />}
        {query.data && <NextStep production={query.data} />}
      </div>
      <Ask query={query}>{({ title }) => <PageTitle name={desk?.name ?? STATION_NAMES[station]} title={title} />}</Ask>
      <Place
        key={`${productionId} ${station} ${deskId ?? ''}`}
        productionId={productionId}
        production={query.data}
        station={station}
        Page={Page}
      />
    </>
  )
}

interface PlaceProps {
  readonly productionId: string
  readonly production: ProductionView | undefined
  readonly station: Station
  readonly Page: StationPage
}

/**
 * The page itself, or what the records know of a finished production. The page asks its own questions at once, and is
 * seen when it is known which of the two it is.
 */
function Place({ productionId, production, station, Page }: PlaceProps) {
  const [search] = useSearchParams()
  if (production && station !== 'storage' && isOnlyKnown(production, station) && !search.has('scan'))
    return <KnownStation production={production} station={station} />
  return (
    <div hidden={!production}>
      <Page productionId={productionId} />
    </div>
  )
}

interface DeskNamesProps {
  readonly base: string
  readonly station: Station
  readonly desks: readonly Desk[]
}

const look = ({ isActive }: { isActive: boolean }) =>
  'inline-flex h-7 items-center border-b-2 whitespace-nowrap ' +
  `${isActive ? 'border-accent font-semibold' : 'border-transparent text-quiet hover:text-ink'}`

/** What the production waits for, and the way there. */
function NextStep({ production }: { production: ProductionView }) {
  const { next } = production
  return (
    <Link
      to={nextPath(production)}
      className={`flex min-w-0 items-center gap-x-1.5 text-accent max-sm:shrink-0 ${next.grade ? '' : 'max-sm:hidden'}`}
    >
      <span className="truncate underline decoration-1 underline-offset-4">
        {next.grade && 'Next'}
        <span className="max-sm:sr-only">
          {next.grade && ': '}
          {next.sentence}
        </span>
      </span>
      <kbd className="figure border border-rule px-1 leading-5 text-quiet max-sm:hidden">n</kbd>
    </Link>
  )
}

/** The desks of a station in a row, its main page first. */
function DeskNames({ base, station, desks }: DeskNamesProps) {
  return (
    <nav
      aria-label={`Desks of ${STATION_NAMES[station]}`}
      className="min-w-0 shrink-0 grow overflow-x-auto max-sm:shrink"
    >
      <ul className="flex gap-x-4">
        <li>
          <NavLink to={base} end className={look}>
            {MAIN_DESK[station]}
          </NavLink>
        </li>
        {desks.map(({ id, name }) => (
          <li key={id}>
            <NavLink to={`${base}/${id}`} className={look}>
              {name}
            </NavLink>
          </li>
        ))}
      </ul>
    </nav>
  )
}
