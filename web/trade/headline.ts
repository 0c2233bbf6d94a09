import { GRADES } from '../../core/line/needs'
import type { ProductionView } from '../../contract/productions'

export const needsYou = (production: ProductionView) => production.line.some((status) => status.worry)

/** Where the next step of a production is done. */
export const nextPath = ({ id, next }: ProductionView): string =>
  ['', 'p', id, next.station, ...(next.desk ? [next.desk] : [])].join('/')

/**
 * The production that the overview speaks of first, and where *n* leads from there: of those that need somebody the one
 * for which it matters most, else the first.
 */
export const headlineOf = (productions: readonly ProductionView[]): ProductionView | undefined =>
  productions.filter(needsYou).toSorted((a, b) => gradeOf(a) - gradeOf(b))[0] ?? productions[0]

const gradeOf = ({ next }: ProductionView) => (next.grade ? GRADES.indexOf(next.grade) : GRADES.length)

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
