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

export const router = createBrowserRouter([
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
