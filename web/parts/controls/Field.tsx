import { useId, type InputHTMLAttributes, type ReactNode, type Ref } from 'react'

const BOX = 'min-h-9 w-full rounded-box border bg-sheet px-2.5 py-1 text-ink'

interface Labelled {
  readonly label: string
  readonly hint?: ReactNode
  readonly fault?: string | undefined
  /** What stands in the box, at its right end. */
  readonly inside?: ReactNode
}

/** A labelled text field; what is wrong stands under it. */
export function Field({
  label,
  hint,
  fault,
  inside,
  className = '',
  ref,
  ...rest
}: Labelled & InputHTMLAttributes<HTMLInputElement> & { ref?: Ref<HTMLInputElement> }) {
  const id = useId()
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      <div className="relative">
        <input
          id={id}
          ref={ref}
          className={`${BOX} ${fault ? 'border-stop' : 'border-rule'} ${inside ? 'pr-24' : ''}`}
          aria-invalid={fault ? true : undefined}
          aria-describedby={`${id}-more`}
          {...rest}
        />
        {inside && (
          <span className="absolute inset-y-0 right-0.5 flex items-center gap-x-1 text-sm text-quiet">{inside}</span>
        )}
      </div>
      <p id={`${id}-more`} className={`mt-0.5 min-h-5 text-sm ${fault ? 'text-stop' : 'text-quiet'}`}>
        {fault ?? hint}
      </p>
    </div>
  )
}
