import { RadioGroup } from 'radix-ui'
import { useId, type ReactNode } from 'react'

interface OneOfProps<T extends string> {
  readonly label: string
  readonly value: T
  readonly options: readonly { readonly value: T; readonly words: ReactNode }[]
  readonly onChange: (value: T) => void
}

/** One of a few that are explained beside their buttons; arrows move between them. */
export function OneOf<T extends string>({ label, value, options, onChange }: OneOfProps<T>) {
  const id = useId()
  return (
    <RadioGroup.Root aria-label={label} value={value} onValueChange={(next) => onChange(next as T)}>
      {options.map((option) => (
        <div key={option.value} className="flex items-start gap-2.5 py-1">
          <RadioGroup.Item
            id={`${id}-${option.value}`}
            value={option.value}
            className="mt-px flex size-6 shrink-0 items-center justify-center rounded-full border border-quiet bg-sheet data-[state=checked]:border-accent"
          >
            <RadioGroup.Indicator className="size-3 rounded-full bg-accent" />
          </RadioGroup.Item>
          <label htmlFor={`${id}-${option.value}`} className="cursor-pointer">
            {option.words}
          </label>
        </div>
      ))}
    </RadioGroup.Root>
  )
}
