import type { ProductionView } from '../../contract/productions'

export const needsYou = (production: ProductionView) => production.line.some((status) => status.worry)

/** The production that the overview speaks of first, and where *n* leads from there: one that needs somebody, else the first. */
export const headlineOf = (productions: readonly ProductionView[]): ProductionView | undefined =>
  productions.find(needsYou) ?? productions[0]

/** What may be said where nobody needs anything: nothing of loads or drives where there are none. */
export function calmWords(productions: readonly ProductionView[]): string {
  const statesOf = (station: 'copies' | 'storage') =>
    productions.flatMap(({ line }) => line.find((status) => status.station === station)?.state ?? 'empty')
  const [copies, storage] = [statesOf('copies'), statesOf('storage')]
  if (copies.every((state) => state === 'empty')) return 'No card waits, and nothing was taken in yet.'
  return [
    'No card waits',
    copies.includes('open') ? 'no load is in danger' : 'every load is proved twice',
    ...(storage.includes('done') && !storage.includes('open') ? ['every drive has room'] : []),
  ]
    .join(', ')
    .concat('.')
}
