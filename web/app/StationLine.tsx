import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import { STATION_NAMES, STATIONS, type Station } from '../../core/line/stations'
import type { ProductionView } from '../../contract/productions'

const STATE_WORDS = { empty: 'nothing yet', open: 'under way', done: 'in order' } as const

/** What is only known from the records is not “nothing yet”. */
export const stateWords = ({ known }: ProductionView, state: keyof typeof STATE_WORDS) =>
  state === 'empty' && known !== null ? 'by the records' : STATE_WORDS[state]

/**
 * The knot of a station on the line: open, half and filled, with a pennant where there is a worry; told apart by shape.
 */
export function Knot({ state, worry }: { state: keyof typeof STATE_WORDS | 'unknown'; worry: boolean }) {
  return (
    <svg viewBox="0 0 16 16" className="size-4 shrink-0 overflow-visible" aria-hidden="true">
      <circle
        cx="8"
        cy="8"
        r="6"
        fill="var(--paper)"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeDasharray={state === 'empty' ? '2.2 2' : undefined}
      />
      {state === 'open' && <path d="M8 2a6 6 0 0 0 0 12z" fill="currentColor" />}
      {state === 'done' && <circle cx="8" cy="8" r="6" fill="currentColor" />}
      {worry && (
        <path
          d="M12.5-5v11.5M12.5-5l8 3.2-8 3.2z"
          fill="var(--stop)"
          stroke="var(--stop)"
          strokeWidth="1.4"
          strokeLinejoin="round"
        />
      )}
    </svg>
  )
}

interface StationLineProps {
  readonly productionId: string
  /** Until it is known, the stations have their names alone. */
  readonly production: ProductionView | undefined
  readonly current: Station
}

/** The seven stations: navigation and status at once, one figure and one worry each. */
export function StationLine({ productionId, production, current }: StationLineProps) {
  const line = useRef<HTMLElement>(null)
  // On a narrow screen the line is wider than the page: the station one stands at is brought into sight, once.
  useEffect(() => {
    const nav = line.current
    const here = nav?.querySelector('[aria-current]')?.getBoundingClientRect()
    if (!nav || !here) return
    const around = nav.getBoundingClientRect()
    // Only the line is moved: the page stays where the person has scrolled it.
    nav.scrollLeft += here.left + here.width / 2 - (around.left + around.width / 2)
  }, [current])
  return (
    <nav ref={line} aria-label="Stations" className="h-[2.625rem] overflow-x-auto overflow-y-hidden" data-screen-only>
      <ol className="relative grid min-w-[50rem] grid-cols-7">
        <li aria-hidden="true" className="absolute top-3 right-[8%] left-2 h-px bg-ink" />
        {STATIONS.map((station, at) => {
          const status = production?.line.find((one) => one.station === station)
          const here = station === current
          return (
            <li key={station} className="relative">
              <Link
                to={`/p/${productionId}/${station}`}
                aria-current={here ? 'page' : undefined}
                className={`block h-[2.625rem] rounded-box px-1.5 pt-0.5 ${here ? 'bg-wash' : 'hover:bg-sheet'}`}
              >
                <span
                  className={`inline-flex items-center gap-x-1.5 pr-2 leading-5 ${here ? 'bg-wash font-bold' : 'bg-paper font-semibold'}`}
                >
                  <span className="inline-flex text-accent">
                    <Knot state={status?.state ?? 'unknown'} worry={status?.worry !== undefined} />
                  </span>
                  <span className="figure text-quiet">{at + 1}</span>
                  {STATION_NAMES[station]}
                </span>
                {production && status && <span className="sr-only">{stateWords(production, status.state)}</span>}
                <span className="block truncate text-sm leading-[1.1rem] text-quiet">
                  {status?.worry && <span className="text-stop">{status.worry}; </span>}
                  {status?.figure}
                </span>
              </Link>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}
