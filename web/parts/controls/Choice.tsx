import { getNonce } from 'get-nonce'
import { Check, ChevronDown } from 'lucide-react'
import { Select } from 'radix-ui'
import { useId } from 'react'

export interface Option {
  readonly value: string
  readonly label: string
}

interface ChoiceProps {
  readonly label: string
  readonly value: string
  readonly options: readonly Option[]
  readonly onChange: (value: string) => void
  readonly className?: string
  /** The label stands elsewhere, and is said only to those who do not see it. */
  readonly hideLabel?: boolean
  /** Shown while nothing is chosen. */
  readonly placeholder?: string
  /** Nothing goes on before it is chosen: `n` leads here. */
  readonly isNext?: boolean
  /** What the first walk calls it. */
  readonly walk?: string
}

/** A labelled choice of one among a few. Opens with Space, Enter or an arrow; letters jump to an option. */
export function Choice({
  label,
  value,
  options,
  onChange,
  className = '',
  hideLabel = false,
  placeholder,
  isNext = false,
  walk,
}: ChoiceProps) {
  const id = useId()
  return (
    <div className={className}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'mb-1 block text-sm font-semibold'}>
        {label}
      </label>
      <Select.Root value={value} onValueChange={onChange}>
        <Select.Trigger
          id={id}
          data-primary={isNext ? '' : undefined}
          data-walk={walk}
          className="flex min-h-9 w-full items-center justify-between gap-2 rounded-box border border-rule bg-sheet px-2.5 py-1 text-left text-ink hover:border-ink"
        >
          <span className="min-w-0 truncate">
            <Select.Value placeholder={placeholder} />
          </span>
          <Select.Icon>
            <ChevronDown className="size-4 text-quiet" aria-hidden />
          </Select.Icon>
        </Select.Trigger>
        <Select.Portal>
          <Select.Content
            position="popper"
            sideOffset={4}
            className="z-60 max-h-[min(24rem,var(--radix-select-content-available-height))] min-w-[var(--radix-select-trigger-width)] overflow-hidden rounded-box border border-ink bg-sheet text-ink"
          >
            <Select.Viewport className="p-1" nonce={getNonce()}>
              {options.map((option) => (
                <Select.Item
                  key={option.value}
                  value={option.value}
                  className="flex cursor-pointer items-center justify-between gap-4 rounded-box px-2.5 py-1.5 outline-none data-[highlighted]:bg-wash data-[state=checked]:font-semibold"
                >
                  <Select.ItemText>{option.label}</Select.ItemText>
                  <Select.ItemIndicator>
                    <Check className="size-4 text-accent" aria-hidden />
                  </Select.ItemIndicator>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      </Select.Root>
    </div>
  )
}
