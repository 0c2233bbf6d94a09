import { Suspense, type ComponentType } from 'react'
import { NavLink, useParams, useSearchParams } from 'react-router'
import { STATION_NAMES, STATIONS, type Station } from '../../core/line/stations'
import type { ProductionView } from '../../contract/productions'
import { Ask } from '../parts/asking/Ask'
import { useProduction } from '../trade/queries'
import { KnownStation } from './KnownStation'
import { DESKS, MAIN_DESK, type Desk } from './desks'
import { NotFound } from './pages/ErrorPage'
import { StationLine } from './StationLine'
import { usePageTitle } from './usePageTitle'

const isStation = (text: string | undefined): text is Station => STATIONS.some((station) => station === text)

function PageTitle({ name, title }: { name: string; title: string }) {
  usePageTitle(name, title)
  return null
}

/** Finished, with nothing of this station in Yendra itself. */
const isOnlyKnown = ({ known, line }: ProductionView, station: Station) =>
  known !== null && line.find((status) => status.station === station)?.state === 'empty'

/** One station of one production, or one of its desks, under the line of all seven. */
export function ProductionFrame({ pages }: { pages: Record<Station, ComponentType<{ productionId: string }>> }) {
  const { productionId, station, desk: deskId } = useParams()
  const [search] = useSearchParams()
  const query = useProduction(productionId)
  if (!productionId || !isStation(station)) return <NotFound />
  const desks = DESKS[station] ?? []
  const desk = desks.find((one) => one.id === deskId)
  if ((deskId !== undefined && !desk) || query.error?.problem.status === 404) return <NotFound />
  const Page = desk?.Page ?? pages[station]
  return (
    <Ask query={query}>
      {(production) => (
        <>
          <StationLine production={production} current={station} />
          {desks.length > 0 && <DeskNames base={`/p/${productionId}/${station}`} station={station} desks={desks} />}
          <PageTitle name={desk?.name ?? STATION_NAMES[station]} title={production.title} />
          {station !== 'storage' && isOnlyKnown(production, station) && !search.has('scan') ? (
            <KnownStation production={production} station={station} />
          ) : (
            <Suspense fallback={<p className="text-quiet">One moment …</p>}>
              <Page key={`${productionId}-${station}-${deskId ?? ''}`} productionId={productionId} />
            </Suspense>
          )}
        </>
      )}
    </Ask>
  )
}

interface DeskNamesProps {
  readonly base: string
  readonly station: Station
  readonly desks: readonly Desk[]
}

const look = ({ isActive }: { isActive: boolean }) =>
  'inline-flex min-h-8 items-center border-b-2 whitespace-nowrap ' +
  `${isActive ? 'border-accent font-semibold' : 'border-transparent text-quiet hover:text-ink'}`

/** The desks of a station in a row, its main page first. */
function DeskNames({ base, station, desks }: DeskNamesProps) {
  return (
    <nav
      aria-label={`Desks of ${STATION_NAMES[station]}`}
      className="-mt-3 mb-5 overflow-x-auto border-b border-rule"
      data-screen-only
    >
      <ul className="flex gap-x-5">
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
