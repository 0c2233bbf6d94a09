import { useMatch } from 'react-router'
import type { Station } from '../../core/line/stations'
import { stationPage, type StationPage } from './stationPage'

/** A page of a station that answers a question of its own, with an address of its own. */
export interface Desk {
  readonly id: string
  readonly name: string
  readonly Page: StationPage
}

/** Desks by station, in the order in which they stand under the line. */
export const DESKS: Partial<Record<Station, readonly Desk[]>> = {
  shoot: [
    { id: 'shots', name: 'Shot list', Page: stationPage(() => import('../stations/shoot/Shots')) },
    { id: 'day', name: 'The day', Page: stationPage(() => import('../stations/shoot/Day')) },
    { id: 'carry', name: 'Carry list', Page: stationPage(() => import('../stations/shoot/Carry')) },
    { id: 'rates', name: 'Rates and shutter', Page: stationPage(() => import('../stations/shoot/Rates')) },
    { id: 'framing', name: 'Framing', Page: stationPage(() => import('../stations/shoot/Framing')) },
    { id: 'measured', name: 'Measured', Page: stationPage(() => import('../stations/shoot/Measured')) },
  ],
  copies: [{ id: 'night', name: 'All cards at once', Page: stationPage(() => import('../stations/copies/Night')) }],
  cards: [
    { id: 'review', name: 'Review', Page: stationPage(() => import('../stations/cards/review/Review')) },
    { id: 'sorted', name: 'Sorted view', Page: stationPage(() => import('../stations/cards/sorted/Sorted')) },
  ],
}

/** What the main page of a station is called where it stands in a row with its desks. */
export const MAIN_DESK: Partial<Record<Station, string>> = { shoot: 'Plan', cards: 'Cards', copies: 'Card by card' }

/** Where one works on a picture: the page is as wide as the window. */
const ON_PICTURE: readonly string[] = ['exports', 'shoot/framing', 'cards/review', 'cards/sorted']

export function useIsOnPicture(): boolean {
  const path = useMatch('/p/:productionId/*')?.params['*']
  return path !== undefined && ON_PICTURE.includes(path)
}
