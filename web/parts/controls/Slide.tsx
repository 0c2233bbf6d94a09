import { Slider } from 'radix-ui'

interface SlideProps {
  readonly label: string
  readonly value: number
  readonly min: number
  readonly max: number
  readonly step: number
  readonly onChange: (value: number) => void
  /** Called once the hand or key is lifted, for what is too costly to follow every step. */
  readonly onSettled?: (value: number) => void
  /** The value for a person, with its unit. */
  readonly words: string
}

/** A labelled slider with its value beside it; arrows, Page Up and Down, Home and End move it. */
export function Slide({ label, value, min, max, step, onChange, onSettled, words }: SlideProps) {
  return (
    <div className="flex items-center gap-3 text-sm text-quiet">
      <span className="w-18 shrink-0" aria-hidden>
        {label}
      </span>
      <Slider.Root
        className="relative flex h-7 grow touch-none items-center select-none"
        value={[value]}
        min={min}
        max={max}
        step={step}
        onValueChange={([next]) => next !== undefined && onChange(next)}
        onValueCommit={([next]) => next !== undefined && onSettled?.(next)}
      >
        <Slider.Track className="relative h-1 grow rounded-full bg-rule">
          <Slider.Range className="absolute h-full rounded-full bg-accent" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={label}
          aria-valuetext={words}
          className="block size-6 cursor-grab rounded-full border-2 border-accent bg-sheet active:cursor-grabbing"
        />
      </Slider.Root>
      <span className="figure w-16 shrink-0 text-right">{words}</span>
    </div>
  )
}
