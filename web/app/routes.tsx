import { lazy, Suspense, type ComponentType } from 'react'
import { createBrowserRouter } from 'react-router'
import type { Station } from '../../core/line/stations'
import { ErrorPage, NotFound } from './pages/ErrorPage'
import { Overview } from './pages/Overview'
import { ProductionFrame } from './ProductionFrame'
import { Shell } from './Shell'

type StationPage = ComponentType<{ productionId: string }>

// One bundle for each station, loaded when somebody goes there.
const PAGES: Record<Station, StationPage> = {
  shoot: lazy(() => import('../stations/shoot/Shoot')),
  cards: lazy(() => import('../stations/cards/Cards')),
  copies: lazy(() => import('../stations/copies/Copies')),
  proxies: lazy(() => import('../stations/proxies/Proxies')),
  storage: lazy(() => import('../stations/storage/Storage')),
  exports: lazy(() => import('../stations/exports/Exports')),
  shelf: lazy(() => import('../stations/shelf/Shelf')),
}
const Bench = lazy(() => import('./pages/Bench'))

// What is printed stands by itself, without the frame around every page.
const CopyChart = lazy(() => import('../stations/copies/CopyChart'))

export const router = createBrowserRouter([
  {
    path: 'print/:productionId/copies',
    errorElement: <ErrorPage />,
    element: (
      <Suspense>
        <CopyChart />
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
      { path: 'p/:productionId/:station', element: <ProductionFrame pages={PAGES} /> },
      { path: '*', element: <NotFound /> },
    ],
  },
])
