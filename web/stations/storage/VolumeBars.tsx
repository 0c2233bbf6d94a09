import { useId } from 'react'
import { BYTE_CLASSES, type ByteClass } from '../../../core/storage/budget'
import { formatBytes } from '../../../core/units/quantity'
import type { VolumeView } from '../../../contract/storage'

type Part = ByteClass | 'other' | 'free' | 'kept'

const PARTS: Record<Part, string> = {
  originals: 'originals',
  generated: 'generated',
  outputs: 'outputs',
  other: 'other files',
  free: 'can be planned',
  kept: 'kept free',
}
const ORDER: readonly Part[] = [...BYTE_CLASSES, 'other', 'free', 'kept']
/** Units of the drawing: a bar is so many wide and high. */
const WIDE = 1000
const HIGH = 22

/** What fills a volume from left to right, in bytes; together they are its capacity, or all that is on it. */
function bytesOf({ classes, usedBytes, budget }: VolumeView): Record<Part, number> {
  const of = (name: ByteClass) => classes.find((one) => one.byteClass === name)?.sizeBytes ?? 0
  const known = classes.reduce((sum, one) => sum + one.sizeBytes, 0)
  return {
    originals: of('originals'),
    generated: of('generated'),
    outputs: of('outputs'),
    other: Math.max(0, usedBytes - known),
    free: Math.max(0, Math.min(budget.plannableBytes, budget.freeBytes)),
    kept: Math.max(0, Math.min(budget.headroomBytes, budget.freeBytes)),
  }
}

/** Told apart by pattern as well as by tone, so that they can be printed. */
function Patterns({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={`${id}-generated`} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="8" height="8" fill="var(--sheet)" />
        <rect width="4" height="8" fill="var(--accent)" />
      </pattern>
      <pattern id={`${id}-outputs`} width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="var(--sheet)" />
        <circle cx="4" cy="4" r="2" fill="var(--ink)" />
      </pattern>
    </defs>
  )
}

const PLAIN: Partial<Record<Part, string>> = {
  originals: 'var(--accent)',
  other: 'var(--quiet)',
  free: 'var(--paper)',
  kept: 'var(--rule)',
}
const fillOf = (part: Part, id: string) => PLAIN[part] ?? `url(#${id}-${part})`

/** How full the volumes are: each as one bar of its own full length, so that small and large ones can be compared. */
export function VolumeBars({ volumes }: { volumes: readonly VolumeView[] }) {
  const id = useId()
  return (
    <>
      <svg width="0" height="0" className="absolute" aria-hidden="true">
        <Patterns id={id} />
      </svg>
      <ul className="mt-2">
        {volumes.map((volume) => (
          <li
            key={volume.id}
            className="grid grid-cols-[minmax(0,11rem)_1fr] items-center gap-x-4 py-1.5 max-sm:grid-cols-1"
          >
            <span className="truncate">
              {volume.name} <span className="text-quiet">{formatBytes(volume.capacityBytes)}</span>
            </span>
            <VolumeBar volume={volume} id={id} />
          </li>
        ))}
      </ul>
      <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm text-quiet" aria-label="What the patterns mean">
        {ORDER.map((part) => (
          <li key={part} className="flex items-center gap-1.5">
            <svg viewBox="0 0 14 14" className="size-3.5" aria-hidden="true">
              <rect
                x="0.5"
                y="0.5"
                width="13"
                height="13"
                fill={fillOf(part, id)}
                stroke="var(--ink)"
                strokeWidth="1"
              />
            </svg>
            {PARTS[part]}
          </li>
        ))}
      </ul>
    </>
  )
}

function VolumeBar({ volume, id }: { volume: VolumeView; id: string }) {
  const bytes = bytesOf(volume)
  const whole = Math.max(volume.capacityBytes, volume.usedBytes, 1)
  const used = Math.round((100 * volume.usedBytes) / whole)
  const ends = ORDER.reduce<number[]>((sums, part) => [...sums, (sums.at(-1) ?? 0) + bytes[part]], [])
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      preserveAspectRatio="none"
      className="h-5.5 w-full"
      role="img"
      aria-label={`${volume.name}: ${used} % used`}
    >
      {ORDER.map((part, at) => {
        const from = ((ends[at - 1] ?? 0) * WIDE) / whole
        const width = (bytes[part] * WIDE) / whole
        return width <= 0 ? null : (
          <rect key={part} x={from} y="0" width={width} height={HIGH} fill={fillOf(part, id)}>
            <title>{`${PARTS[part]}: ${formatBytes(bytes[part])}`}</title>
          </rect>
        )
      })}
      <rect
        x="0"
        y="0"
        width={WIDE}
        height={HIGH}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  )
}
