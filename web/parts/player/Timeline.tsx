import { Slider } from 'radix-ui'
import { useMemo, useState, type PointerEvent } from 'react'
import type { ClipRange } from '../../../core/cards/review/review'

interface TimelineProps {
  readonly label: string
  readonly frame: number
  readonly length: number
  /** How far an arrow goes. */
  readonly step: number
  /** What the frame under the thumb is called. */
  readonly words: string
  /** Loudest samples from beginning to end, 0–1. */
  readonly peaks: readonly number[]
  readonly ranges: readonly ClipRange[]
  /** Where one file ends and the next begins. */
  readonly seams: readonly number[]
  /** Where a range was begun that has no end yet. */
  readonly begun: number | undefined
  readonly onSeek: (frame: number) => void
  /** What is shown above the pointer, at a share of the length. */
  readonly under?: (share: number) => React.ReactNode
}

const WAVE = { width: 1000, height: 100 }

/** A clip from beginning to end: its sound, its ranges, and where the playhead stands. Press or drag to go there. */
export function Timeline({
  label,
  frame,
  length,
  step,
  words,
  peaks,
  ranges,
  seams,
  begun,
  onSeek,
  under,
}: TimelineProps) {
  const [over, setOver] = useState<number>()
  const share = (at: number) => `${(Math.min(at, length) / Math.max(1, length)) * 100}%`
  const follow = (event: PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect()
    setOver(Math.max(0, Math.min(1, (event.clientX - box.left) / box.width)))
  }
  return (
    <div className="relative" onPointerMove={follow} onPointerLeave={() => setOver(undefined)}>
      {under && over !== undefined && (
        <div
          className="pointer-events-none absolute bottom-full z-10 mb-1 -translate-x-1/2"
          style={{ left: `clamp(5rem, ${over * 100}%, calc(100% - 5rem))` }}
          aria-hidden
        >
          {under(over)}
        </div>
      )}
      <Slider.Root
        className="relative flex h-16 touch-none items-stretch border border-rule bg-sheet select-none"
        value={[frame]}
        min={0}
        max={Math.max(1, length - 1)}
        step={step}
        onValueChange={([next]) => next !== undefined && onSeek(next)}
      >
        <Slider.Track className="relative grow overflow-hidden">
          <Wave peaks={peaks} />
          {ranges.map(({ from, to }) => (
            <span
              key={from}
              className="absolute inset-y-0 border-x-2 border-accent bg-accent/15"
              style={{ left: share(from), width: share(to - from) }}
            />
          ))}
          {seams.map((seam) => (
            <span key={seam} className="absolute inset-y-0 border-l border-ink" style={{ left: share(seam) }} />
          ))}
          {begun !== undefined && (
            <span
              className="absolute inset-y-0 border-l-2 border-dashed border-accent"
              style={{ left: share(begun) }}
            />
          )}
        </Slider.Track>
        <Slider.Thumb
          aria-label={label}
          aria-valuetext={words}
          className="mt-[-1px] block h-16 w-[3px] cursor-ew-resize bg-stop"
        />
      </Slider.Root>
    </div>
  )
}

/** The loudness of a clip, drawn from the middle to both sides. */
function Wave({ peaks }: { peaks: readonly number[] }) {
  const path = useMemo(() => {
    const step = WAVE.width / Math.max(1, peaks.length)
    const upper = peaks.map((peak, at) => `${(at * step).toFixed(1)} ${(50 - peak * 48).toFixed(1)}`)
    const lower = peaks.map((peak, at) => `${(at * step).toFixed(1)} ${(50 + peak * 48).toFixed(1)}`).reverse()
    return `M0 50 L${upper.join(' L')} L${WAVE.width} 50 L${lower.join(' L')} Z`
  }, [peaks])
  return (
    <svg
      viewBox={`0 0 ${WAVE.width} ${WAVE.height}`}
      preserveAspectRatio="none"
      className="absolute inset-0 size-full text-quiet"
      aria-hidden
    >
      {peaks.length > 0 ? (
        <path d={path} fill="currentColor" opacity={0.55} />
      ) : (
        <line x1="0" y1="50" x2={WAVE.width} y2="50" stroke="currentColor" vectorEffect="non-scaling-stroke" />
      )}
    </svg>
  )
}
