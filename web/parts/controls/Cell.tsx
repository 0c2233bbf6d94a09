import { useId, useState } from 'react'
import type { Typed } from '../../../core/units/typed'

interface CellProps<Value> {
  /** What it is, for those who do not see the head above it. */
  readonly label: string
  /** The words stand above the field, too. */
  readonly head?: string | undefined
  /** The value as it is written. */
  readonly shown: string
  readonly read: (typed: string) => Typed<Value>
  /** Called with each value that can be read while it is typed. */
  readonly onValue: (value: Value) => void
  readonly className?: string
}

/** A small field in a row of figures: what follows from it moves while it is typed, and what cannot be read says so. */
export function Cell<Value>({ label, head, shown, read, onValue, className = 'w-24' }: CellProps<Value>) {
  const id = useId()
  const [typed, setTyped] = useState<string>()
  const answer = typed === undefined ? undefined : read(typed)
  const fault = answer && 'fault' in answer ? answer.fault : undefined
  return (
    <div className={className}>
      {head !== undefined && (
        <span className="mb-1 block text-sm font-semibold" aria-hidden>
          {head}
        </span>
      )}
      <input
        aria-label={label}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? id : undefined}
        className={`figure min-h-9 w-full rounded-box border bg-sheet px-2 py-0.5 text-ink ${fault ? 'border-stop' : 'border-rule'}`}
        value={typed ?? shown}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setTyped(event.target.value)
          const next = read(event.target.value)
          if ('value' in next) onValue(next.value)
        }}
        // What cannot be read stays until it can, so that nothing that was typed is lost.
        onBlur={() => fault === undefined && setTyped(undefined)}
      />
      {fault && (
        <p id={id} role="alert" className="mt-0.5 text-sm text-stop">
          {fault}
        </p>
      )}
    </div>
  )
}

/** Reads a whole number between two bounds. */
export const readCount =
  (least: number, most: number) =>
  (typed: string): Typed<number> => {
    const value = /^\s*\d{1,7}\s*$/.test(typed) ? Number(typed) : Number.NaN
    return value >= least && value <= most ? { value } : { fault: `A whole number from ${least} to ${most}.` }
  }

/** Reads a share in percent as a factor above 1: `20` or `20 %` is 1.2. */
export const readSurplus = (typed: string): Typed<number> => {
  const match = /^\s*(\d{1,3})(?:[.,](\d))?\s*%?\s*$/.exec(typed)
  const value = match ? 1 + Number(`${match[1]}.${match[2] ?? 0}`) / 100 : Number.NaN
  return value <= 5 ? { value } : { fault: 'A share from 0 to 400 %.' }
}
