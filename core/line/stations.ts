/** The seven stations of the work, in the order in which it is done. */
export const STATIONS = ['shoot', 'cards', 'copies', 'proxies', 'storage', 'exports', 'shelf'] as const
export type Station = (typeof STATIONS)[number]

export const isStation = (text: string | undefined): text is Station => STATIONS.some((station) => station === text)

export const STATION_NAMES: Record<Station, string> = {
  shoot: 'Shoot',
  cards: 'Cards',
  copies: 'Copies',
  proxies: 'Proxies',
  storage: 'Storage',
  exports: 'Exports',
  shelf: 'Shelf',
}
