import { Switch as Primitive } from 'radix-ui'
import { useId, type ReactNode } from 'react'

interface SwitchProps {
  readonly on: boolean
  readonly onChange: (on: boolean) => void
  readonly children: ReactNode
  readonly disabled?: boolean
  readonly className?: string
}

/** A rule that holds from the moment it is switched on, without a form to send; the whole label can be pressed. */
export function Switch({ on, onChange, children, disabled = false, className = '' }: SwitchProps) {
  const id = useId()
  return (
    <div className={`flex items-start gap-2.5 ${className}`}>
      <Primitive.Root
        id={id}
        checked={on}
        disabled={disabled}
        onCheckedChange={onChange}
        className="mt-px flex h-6 w-11 shrink-0 items-center rounded-full border border-quiet bg-sheet px-0.5 disabled:cursor-not-allowed disabled:opacity-40 data-[state=checked]:border-accent data-[state=checked]:bg-accent"
      >
        <Primitive.Thumb className="size-4.5 rounded-full bg-quiet transition-transform data-[state=checked]:translate-x-5 data-[state=checked]:bg-accent-ink motion-reduce:transition-none" />
      </Primitive.Root>
      <label htmlFor={id} className={disabled ? 'text-quiet' : 'cursor-pointer'}>
        {children}
      </label>
    </div>
  )
}
