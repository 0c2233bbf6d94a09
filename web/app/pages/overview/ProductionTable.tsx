import { ArrowDown, ArrowUp } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { STATION_NAMES, STATIONS, type Station } from '../../../../core/line/stations'
import { dayWithName } from '../../../../core/units/day'
import type { ProductionView } from '../../../../contract/productions'
import { Button } from '../../../parts/controls/Button'
import { sortedBy } from '../../../parts/table/sorted'
import { needsYou, nextPath } from '../../../trade/headline'
import { Knot, stateWords } from '../../StationLine'

/** What is to be done comes first. */
const RANK = { open: 1, empty: 2, done: 3 } as const

const SHOWN = ['all', 'need you', 'calm'] as const
type Shown = (typeof SHOWN)[number]
type By = 'title' | 'day' | Station

const statusOf = ({ line }: ProductionView, station: Station) => line.find((status) => status.station === station)

function rankBy(by: By) {
  return (production: ProductionView): string | number => {
    if (by === 'title') return production.title.toLowerCase()
    if (by === 'day') return production.shootOn ?? ''
    const status = statusOf(production, by)
    return status?.worry ? 0 : RANK[status?.state ?? 'empty']
  }
}

/** All productions with their seven stations, sorted as somebody likes, narrowed by a word and by who needs somebody. */
export function ProductionTable({ productions }: { productions: readonly ProductionView[] }) {
  const [word, setWord] = useState('')
  const [shown, setShown] = useState<Shown>('all')
  const [sorting, setSorting] = useState<{ readonly by: By; readonly down: boolean }>()
  const rows = productions.filter(
    (production) =>
      `${production.title} ${production.client}`.toLowerCase().includes(word.trim().toLowerCase()) &&
      (shown === 'all' || needsYou(production) === (shown === 'need you')),
  )
  const sorted = sorting ? sortedBy(rows, rankBy(sorting.by), sorting.down) : rows
  const head = { sorting, onSort: (by: By) => setSorting({ by, down: sorting?.by === by && !sorting.down }) }
  return (
    <section aria-label="Productions">
      <div className="mb-1 flex flex-wrap items-center justify-between gap-x-6 gap-y-1">
        <h2 className="text-xl">Productions</h2>
        <div className="flex flex-wrap items-center gap-x-1">
          {SHOWN.map((one) => (
            <Button key={one} look="quiet" aria-pressed={shown === one} onClick={() => setShown(one)}>
              <span className={shown === one ? 'underline underline-offset-4' : ''}>{one}</span>
            </Button>
          ))}
          <input
            type="search"
            aria-label="Name or client"
            placeholder="Name or client"
            className="ml-3 min-h-9 w-44 rounded-box border border-rule bg-sheet px-2.5 py-1"
            value={word}
            onChange={(event) => setWord(event.target.value)}
          />
        </div>
      </div>
      <div className="overflow-x-auto">
        {/* On a phone each production is a row of text with its seven stations under it. */}
        <table className="w-full table-fixed text-left max-md:block md:min-w-[44rem]">
          <thead className="max-md:sr-only">
            <tr className="text-sm">
              <Head by="title" name="Production" {...head} />
              <Head by="day" name="Filmed on" width="w-36" {...head} />
              {STATIONS.map((station) => (
                <Head key={station} by={station} name={STATION_NAMES[station]} width="w-22" {...head} />
              ))}
            </tr>
          </thead>
          <tbody className="max-md:block">
            {sorted.map((production) => (
              <Row key={production.id} production={production} />
            ))}
          </tbody>
        </table>
      </div>
      {rows.length === 0 && <p className="py-3 text-quiet">No production is called so.</p>}
    </section>
  )
}

interface HeadProps {
  readonly by: By
  readonly name: string
  readonly width?: string
  readonly sorting: { readonly by: By; readonly down: boolean } | undefined
  readonly onSort: (by: By) => void
}

function Head({ by, name, width = '', sorting, onSort }: HeadProps) {
  const isIt = sorting?.by === by
  const Arrow = sorting?.down ? ArrowDown : ArrowUp
  return (
    <th scope="col" className={width} aria-sort={isIt ? (sorting.down ? 'descending' : 'ascending') : undefined}>
      <button type="button" className="flex min-h-8 items-center gap-1 font-semibold" onClick={() => onSort(by)}>
        {name}
        {isIt && <Arrow className="size-3.5" aria-hidden />}
      </button>
    </th>
  )
}

function Row({ production }: { production: ProductionView }) {
  const { id, title, client, shootOn } = production
  return (
    <tr
      className="border-b border-rule hover:bg-sheet max-md:grid max-md:grid-cols-7 max-md:pt-1"
      data-production={title}
    >
      <td className="!py-1 pr-4 max-md:col-span-4 max-md:border-0">
        <Link to={nextPath(production)} className="block hover:underline">
          <span className="block truncate">
            <span className="font-bold">{title}</span>{' '}
            <span className="text-sm text-quiet">{client || 'no client'}</span>
          </span>
        </Link>
      </td>
      <td className="figure !py-1 whitespace-nowrap text-quiet max-md:col-span-3 max-md:border-0 max-md:!pr-0 max-md:text-right">
        {shootOn && dayWithName(shootOn)}
      </td>
      {STATIONS.map((station, at) => {
        const status = statusOf(production, station)
        if (!status) return <td key={station} />
        const words = `${stateWords(production, status.state)}, ${status.figure}${status.worry ? `, ${status.worry}` : ''}`
        return (
          <td key={station} className="!py-0 max-md:border-0 max-md:!pr-0">
            <Link
              to={`/p/${id}/${station}`}
              title={words}
              aria-label={`${STATION_NAMES[station]} of ${title}: ${words}`}
              className="inline-flex min-h-9 min-w-9 items-center gap-x-1.5 text-accent"
            >
              <span className="figure text-quiet md:hidden" aria-hidden>
                {at + 1}
              </span>
              <Knot state={status.state} worry={status.worry !== undefined} />
            </Link>
          </td>
        )
      })}
    </tr>
  )
}
