import { useId, type InputHTMLAttributes, type ReactNode, type Ref } from 'react'

/** Look of what is typed into. */
export const BOX = 'min-h-9 w-full rounded-box border bg-sheet px-2.5 py-1 text-ink'

interface Labelled {
  readonly label: string
  readonly hint?: ReactNode
  readonly fault?: string | undefined
}

/** A labelled text field; what is wrong stands under it. */
export function Field({
  label,
  hint,
  fault,
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
      <input
        id={id}
        ref={ref}
        className={`${BOX} ${fault ? 'border-stop' : 'border-rule'}`}
        aria-invalid={fault ? true : undefined}
        aria-describedby={`${id}-more`}
        {...rest}
      />
      <p id={`${id}-more`} className={`mt-0.5 min-h-5 text-sm ${fault ? 'text-stop' : 'text-quiet'}`}>
        {fault ?? hint}
      </p>
    </div>
  )
}
