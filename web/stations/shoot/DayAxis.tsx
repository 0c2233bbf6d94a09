import { clockOf, inOrder, minutesOf, type Call } from '../../../core/shoot/day'

const DAY = 24 * 60
const TALL = 26
const WIDTH = 1000

/** About how wide a letter of the labels is, in units of the drawing. */
const LETTER = 7

interface Placed {
  readonly call: Call
  readonly from: number
  readonly lane: number
  /** The label stands before the bar, since there is no room behind it. */
  readonly before: boolean
}

/** Each call in the first lane where neither its bar nor its label meets another. */
function lanes(calls: readonly Call[], x: (minutes: number) => number): Placed[] {
  const ends: number[] = []
  return inOrder(calls).flatMap((call) => {
    const from = minutesOf(call.at)
    if (from === undefined) return []
    const label = call.what.length * LETTER + 12
    const before = x(from) + label > WIDTH
    const [left, right] = before
      ? [x(from) - label, x(from + call.minutes)]
      : [x(from), Math.max(x(from) + label, x(from + call.minutes))]
    const free = ends.findIndex((end) => end <= left)
    const lane = free < 0 ? ends.length : free
    ends[lane] = right + 6
    return [{ call, from, lane, before }]
  })
}

/**
 * The day on an axis from its first hour to its last: bars as long as what they stand for, and midnight where it is
 * crossed.
 */
export function DayAxis({ calls }: { calls: readonly Call[] }) {
  const starts = calls.flatMap((call) => {
    const from = minutesOf(call.at)
    return from === undefined ? [] : [{ from, to: from + call.minutes }]
  })
  if (starts.length === 0) return null
  const first = Math.floor(Math.min(...starts.map((one) => one.from)) / 60) * 60
  const last = Math.ceil(Math.max(...starts.map((one) => one.to), first + 240) / 60) * 60
  const x = (minutes: number) => ((minutes - first) / (last - first)) * WIDTH
  const placed = lanes(calls, x)
  const rows = Math.max(...placed.map((one) => one.lane)) + 1
  const step = last - first > 720 ? 120 : 60
  const hours = Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, at) => first + at * step)
  return (
    <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="The day on an axis">
      <svg
        viewBox={`-24 0 ${WIDTH + 48} ${rows * TALL + 24}`}
        className="min-w-[40rem]"
        role="img"
        aria-label={placed.map(({ call }) => `${call.at} ${call.what}`).join(', ')}
      >
        {hours.map((at) => (
          <g key={at}>
            <line x1={x(at)} x2={x(at)} y1={0} y2={rows * TALL + 4} stroke="var(--rule)" />
            <text x={x(at)} y={rows * TALL + 18} fontSize={12} textAnchor="middle" fill="var(--quiet)">
              {clockOf(at)}
            </text>
          </g>
        ))}
        {last > DAY && (
          <line
            x1={x(DAY)}
            x2={x(DAY)}
            y1={0}
            y2={rows * TALL + 6}
            stroke="var(--stop)"
            strokeWidth={2}
            strokeDasharray="5 4"
          />
        )}
        {placed.map(({ call, from, lane, before }) => {
          const late = from + call.minutes > DAY
          return (
            <g key={`${from} ${lane}`}>
              <rect
                x={x(from)}
                y={lane * TALL + 3}
                width={Math.max(3, x(from + call.minutes) - x(from))}
                height={TALL - 8}
                fill={late ? 'var(--stop)' : 'var(--accent)'}
                opacity={0.25}
              />
              <rect
                x={x(from)}
                y={lane * TALL + 3}
                width={3}
                height={TALL - 8}
                fill={late ? 'var(--stop)' : 'var(--accent)'}
              />
              <text
                x={before ? x(from) - 5 : x(from) + 8}
                y={lane * TALL + 17}
                fontSize={13}
                textAnchor={before ? 'end' : 'start'}
                fill="var(--ink)"
              >
                {call.what}
              </text>
            </g>
          )
        })}
      </svg>
    </div>
  )
}
