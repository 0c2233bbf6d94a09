import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import { STATION_NAMES, STATIONS, type Station } from '../../core/line/stations'
import type { ProductionView } from '../../contract/productions'
import { nextPath } from '../trade/headline'
import { ChangeProduction } from './ChangeProduction'

const STATE_WORDS = { empty: 'nothing yet', open: 'under way', done: 'in order' } as const

/** What is only known from the records is not “nothing yet”. */
export const stateWords = ({ known }: ProductionView, state: keyof typeof STATE_WORDS) =>
  state === 'empty' && known !== null ? 'by the records' : STATE_WORDS[state]

/**
 * The knot of a station on the line: open, half and filled, with a pennant where there is a worry; told apart by shape.
 */
export function Knot({ state, worry }: { state: 'empty' | 'open' | 'done'; worry: boolean }) {
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

/** The seven stations: navigation and status at once, one figure and one worry each. */
export function StationLine({ production, current }: { production: ProductionView; current: Station }) {
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
    <>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
        <p className="text-lg font-bold">
          {production.title}{' '}
          <span className="text-base font-normal text-quiet">
            {production.client ? `for ${production.client}` : 'no client yet'}
            {production.shootOn && `, shoot day ${production.shootOn}`}
          </span>{' '}
          <ChangeProduction production={production} />
        </p>
        <Link
          to={nextPath(production)}
          className="text-accent underline decoration-1 underline-offset-4"
          data-screen-only
        >
          Next: {production.next.sentence}{' '}
          <kbd className="figure ml-1 hidden border sm:inline border-rule px-1 text-quiet">n</kbd>
        </Link>
      </div>
      <nav ref={line} aria-label="Stations" className="mb-6 overflow-x-auto" data-screen-only>
        <ol className="relative grid min-w-[52rem] grid-cols-7">
          <li aria-hidden="true" className="absolute top-[1.05rem] right-[6%] left-2 h-px bg-ink" />
          {STATIONS.map((station, at) => {
            const status = production.line.find((one) => one.station === station)
            const here = station === current
            return (
              <li key={station} className="relative">
                <Link
                  to={`/p/${production.id}/${station}`}
                  aria-current={here ? 'page' : undefined}
                  className={`block rounded-box py-2 pr-2 pl-1 ${here ? 'bg-wash' : 'hover:bg-sheet'}`}
                >
                  <span className={`relative inline-flex ${here ? 'bg-wash' : 'bg-paper'} pr-1.5 text-accent`}>
                    <Knot state={status?.state ?? 'empty'} worry={status?.worry !== undefined} />
                  </span>
                  <span className={`block ${here ? 'font-bold' : 'font-semibold'}`}>
                    <span className="figure mr-1 text-quiet">{at + 1}</span>
                    {STATION_NAMES[station]}
                  </span>
                  {status && <span className="sr-only">{stateWords(production, status.state)}</span>}
                  <span className="figure block text-quiet">{status?.figure}</span>
                  <span className="block min-h-5 text-sm leading-5 text-stop">{status?.worry}</span>
                </Link>
              </li>
            )
          })}
        </ol>
      </nav>
    </>
  )
}
