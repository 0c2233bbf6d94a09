import { isStation, type Station } from '../core/line/stations'
import { isUuid } from '../core/units/uuid'
import { cardsApi } from './cards'
import { copiesApi } from './copies'
import { addressOf } from './endpoint'
import { exportsApi } from './exports'
import { gearApi } from './gear'
import { productionsApi } from './productions'
import { proxiesApi } from './proxies'
import { shootApi } from './shoot'
import { storageApi } from './storage'

/** The first clip with a film, which framings are shown on until another one is chosen. */
export const FIRST_FILM = { show: 'film', limit: 1 } as const

/** What the main page of each station asks before it says its first sentence. */
const OF_STATION: Record<Station, (id: string) => readonly string[]> = {
  shoot: (id) => [addressOf(shootApi.plan, { id }), addressOf(gearApi.all, {})],
  cards: (id) => [addressOf(cardsApi.readers, {}), addressOf(cardsApi.loads, { id })],
  copies: (id) => [addressOf(copiesApi.known, { id })],
  proxies: (id) => [addressOf(proxiesApi.counts, { id })],
  storage: (id) => [addressOf(storageApi.all, { id })],
  exports: (id) => [addressOf(cardsApi.clips, { id }, FIRST_FILM)],
  shelf: (id) => [addressOf(exportsApi.deliverables, { id })],
}

/**
 * The addresses that a page asks first, by its own path, so that they can be fetched while its code is read. Whoever
 * names one that the page does not ask makes it wait for nothing: `tests/e2e/firstPaint.spec.ts` looks.
 */
export function firstQuestions(path: string): readonly string[] {
  if (path === '/') return [addressOf(productionsApi.all, {})]
  const [place, id = '', station, desk] = path.split('/').filter((part) => part !== '')
  if (place !== 'p' || !isUuid(id) || !isStation(station)) return []
  return [addressOf(productionsApi.one, { id }), ...(desk === undefined ? OF_STATION[station](id) : [])]
}
