import { useState } from 'react'
import { walkPlace, WALK, type WalkPlace, type WalkStep } from '../../../core/line/walk'
import { cardsApi, type ReaderView } from '../../../contract/cards'
import { copiesApi } from '../../../contract/copies'
import { useAsk } from '../../parts/asking/useAsk'
import { usePages } from '../../parts/table/usePages'
import { isOpen, useProductions, useTasks } from '../../trade/queries'
import { useHasBench } from '../useHasBench'

export interface Walk extends WalkPlace {
  /** From 1. */
  readonly number: number
  /** The page on which it is done. */
  readonly path: string
  /** What is pointed at there, the best first. */
  readonly targets: readonly string[]
}

/** The load that the card of the walk turned out to be. */
interface Known {
  readonly loadId: string
  readonly productionId: string
}

const stayOf = ({ id, stay }: ReaderView) => `${id} ${stay ?? ''}`

/** The first card that waits, else the first that is put in from now on. */
function useCard(readers: readonly ReaderView[] | undefined): ReaderView | undefined {
  const [readerId, setReaderId] = useState<string>()
  const [before, setBefore] = useState<ReadonlySet<string>>()
  if (readers && before === undefined) setBefore(new Set(readers.map(stayOf)))
  const cards = (readers ?? []).filter(({ state }) => state === 'card')
  const chosen =
    readers?.find(({ id }) => id === readerId) ??
    cards.find(({ loadId }) => loadId === null) ??
    cards.find((reader) => before && !before.has(stayOf(reader)))
  if (chosen && readerId === undefined) setReaderId(chosen.id)
  return chosen
}

/** The walk of one card, whoever does its steps and in whichever order. */
export function useWalk(): Walk {
  const reader = useCard(useAsk(cardsApi.readers, {}).data)
  const { data: productions } = useProductions()
  const { data: tasks = [] } = useTasks()
  const hasBench = useHasBench()
  const [known, setKnown] = useState<Known>()
  if (reader?.loadId && reader.productionId && !reader.looking && known === undefined)
    setKnown({ loadId: reader.loadId, productionId: reader.productionId })
  const copies = usePages(copiesApi.known, { id: known?.productionId ?? '' }, { enabled: known !== undefined })
  const load = copies.data?.rows.find((one) => one.loadId === known?.loadId)
  const isCopying = tasks.some((task) => task.loadId === known?.loadId && task.kind === 'copy' && isOpen(task))
  const place = walkPlace({
    card: reader?.looking ? 'being scanned' : reader?.state === 'card' ? 'waits' : 'none',
    load: known && {
      now: isCopying ? 'copying' : copies.isFetching ? 'asking' : 'nothing',
      proved: load?.copies.filter(({ mark }) => mark >= 2).length ?? 0,
      isPlayed: load?.copies.some(({ mark }) => mark === 3) ?? false,
    },
  })
  const production = known?.productionId ?? reader?.proposed?.production?.id ?? productions?.rows[0]?.id
  return {
    ...place,
    number: WALK.indexOf(place.step) + 1,
    ...whereOf(place.step, { production, hasBench, loadId: known?.loadId ?? '', readerId: reader?.id ?? '' }),
  }
}

interface Things {
  readonly production: string | undefined
  readonly hasBench: boolean
  readonly loadId: string
  readonly readerId: string
}

/** Where a step is done, and by which control. */
function whereOf(step: WalkStep, { production, hasBench, loadId, readerId }: Things): Pick<Walk, 'path' | 'targets'> {
  const at = (station: string) => (production === undefined ? '/' : `/p/${production}/${station}`)
  const control = (name: string) => `[data-walk="${name}"]`
  switch (step) {
    case 'card':
      return { path: hasBench ? '/bench' : at('cards'), targets: [control('card')] }
    case 'scan':
      return {
        path: at('cards'),
        targets: [`${control(`scan ${readerId}`)}:not(:disabled)`, control(`for ${readerId}`)],
      }
    case 'copy':
      return { path: at('copies'), targets: [control(`copy ${loadId}`), control(`load ${loadId}`)] }
    case 'play':
      return { path: at('copies'), targets: [control(`play ${loadId}`), control(`load ${loadId}`)] }
    case 'answer':
      return { path: at('copies'), targets: [control(`answer ${loadId}`), control(`load ${loadId}`)] }
  }
}
