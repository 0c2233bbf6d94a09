import { Check } from 'lucide-react'
import { Checkbox } from 'radix-ui'
import { useId, type ReactNode } from 'react'

interface TickProps {
  readonly checked: boolean
  readonly onChange: (checked: boolean) => void
  readonly children: ReactNode
  readonly disabled?: boolean
  readonly className?: string
}

/** A labelled box to tick; the whole label can be pressed. */
export function Tick({ checked, onChange, children, disabled = false, className = '' }: TickProps) {
  const id = useId()
  return (
    <div className={`flex items-start gap-2.5 ${className}`}>
      <Checkbox.Root
        id={id}
        checked={checked}
        disabled={disabled}
        onCheckedChange={(next) => onChange(next === true)}
        className="mt-px flex size-6 shrink-0 items-center justify-center rounded-box border border-quiet bg-sheet disabled:cursor-not-allowed disabled:opacity-40 data-[state=checked]:border-accent data-[state=checked]:bg-accent data-[state=checked]:text-accent-ink"
      >
        <Checkbox.Indicator>
          <Check className="size-4" strokeWidth={3} aria-hidden />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className={disabled ? 'text-quiet' : 'cursor-pointer'}>
        {children}
      </label>
    </div>
  )
}
