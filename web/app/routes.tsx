import { lazy, Suspense, type ComponentType } from 'react'
import { createBrowserRouter, matchPath } from 'react-router'
import { isStation, type Station } from '../../core/line/stations'
import { DESKS } from './desks'
import { ErrorPage, NotFound } from './pages/ErrorPage'
import { Overview } from './pages/overview/Overview'
import { ProductionFrame } from './ProductionFrame'
import { Shell } from './Shell'
import { stationPage, type StationPage } from './stationPage'

// One bundle for each station, loaded when somebody goes there.
const PAGES: Record<Station, StationPage> = {
  shoot: stationPage(() => import('../stations/shoot/Shoot')),
  cards: stationPage(() => import('../stations/cards/Cards')),
  copies: stationPage(() => import('../stations/copies/Copies')),
  proxies: stationPage(() => import('../stations/proxies/Proxies')),
  storage: stationPage(() => import('../stations/storage/Storage')),
  exports: stationPage(() => import('../stations/exports/Exports')),
  shelf: stationPage(() => import('../stations/shelf/Shelf')),
}
const STATION_PAGE = 'p/:productionId/:station/:desk?'

/** The code of the page at a path, before anything is drawn. A failure is told where the page is drawn. */
export async function codeOf(path: string): Promise<void> {
  const { station, desk } = matchPath(STATION_PAGE, path)?.params ?? {}
  if (!isStation(station)) return
  const page = desk === undefined ? PAGES[station] : DESKS[station]?.find(({ id }) => id === desk)?.Page
  await page?.fetch().catch(() => undefined)
}

const Bench = lazy(() => import('./pages/Bench'))
const Locker = lazy(() => import('../locker/Locker'))
const Chart = lazy(() => import('../stations/copies/chart/Chart'))
const Lists = lazy(() => import('../stations/copies/lists/Lists'))

// What is printed stands by itself, without the frame around every page.
const ChartPaper = lazy(() => import('../stations/copies/chart/ChartPaper'))
const LabelPaper = lazy(() => import('../locker/LabelPaper'))
const ShotPaper = lazy(() => import('../stations/shoot/ShotPaper'))
const CarryPaper = lazy(() => import('../stations/shoot/CarryPaper'))
const ContactSheet = lazy(() => import('../stations/cards/review/ContactSheet'))

// One state that fills the screen, with nothing around it.
const BigScreen = lazy(() => import('../stations/copies/BigScreen'))

const paper = (path: string, Page: ComponentType) => ({
  path: `print/${path}`,
  errorElement: <ErrorPage />,
  element: (
    <Suspense>
      <Page />
    </Suspense>
  ),
})

export const router = createBrowserRouter([
  paper('chart', ChartPaper),
  paper('labels', LabelPaper),
  paper(':productionId/copies', ChartPaper),
  paper(':productionId/shots', ShotPaper),
  paper(':productionId/carry', CarryPaper),
  paper(':productionId/selects', ContactSheet),
  {
    path: 'watch',
    errorElement: <ErrorPage />,
    element: (
      <Suspense>
        <BigScreen />
      </Suspense>
    ),
  },
  {
    element: <Shell />,
    errorElement: <ErrorPage />,
    children: [
      { index: true, element: <Overview /> },
      {
        path: 'bench',
        element: (
          <Suspense>
            <Bench />
          </Suspense>
        ),
      },
      {
        path: 'chart',
        element: (
          <Suspense>
            <Chart />
          </Suspense>
        ),
      },
      {
        path: 'lists',
        element: (
          <Suspense>
            <Lists />
          </Suspense>
        ),
      },
      {
        path: 'locker/:tab?',
        element: (
          <Suspense>
            <Locker />
          </Suspense>
        ),
      },
      { path: STATION_PAGE, element: <ProductionFrame pages={PAGES} /> },
      { path: '*', element: <NotFound /> },
    ],
  },
])
