import { Suspense, type ComponentType } from 'react'
import { useParams } from 'react-router'
import { STATION_NAMES, STATIONS, type Station } from '../../core/line/stations'
import { Ask } from '../parts/Ask'
import { useProduction } from '../parts/queries'
import { NotFound } from './pages/ErrorPage'
import { StationLine } from './StationLine'
import { usePageTitle } from './usePageTitle'

const isStation = (text: string | undefined): text is Station => STATIONS.some((station) => station === text)

function PageTitle({ station, title }: { station: Station; title: string }) {
  usePageTitle(STATION_NAMES[station], title)
  return null
}

/** One station of one production, under the line of all seven. */
export function ProductionFrame({ pages }: { pages: Record<Station, ComponentType<{ productionId: string }>> }) {
  const { productionId, station } = useParams()
  const query = useProduction(productionId)
  if (!productionId || !isStation(station)) return <NotFound />
  if (query.error?.problem.status === 404) return <NotFound />
  const Page = pages[station]
  return (
    <Ask query={query}>
      {(production) => (
        <>
          <StationLine production={production} current={station} />
          <PageTitle station={station} title={production.title} />
          <Suspense fallback={<p className="text-quiet">One moment …</p>}>
            <Page key={`${productionId}-${station}`} productionId={productionId} />
          </Suspense>
        </>
      )}
    </Ask>
  )
}
