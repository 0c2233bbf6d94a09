import { Command } from 'cmdk'
import { ChevronDown } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useDeferredValue, useId, useState } from 'react'
import { cardsApi, type ClipsAsked, type ClipView } from '../../contract/cards'
import { useAsk } from '../parts/asking/useAsk'

interface ClipChoiceProps {
  readonly label: string
  readonly productionId: string
  /** Which clips can be chosen. */
  readonly from: Partial<Pick<ClipsAsked, 'loadId' | 'show'>>
  readonly value: ClipView
  readonly onChange: (clip: ClipView) => void
  /** What is said of a clip. */
  readonly words: (clip: ClipView) => string
  readonly className?: string
}

const SHOWN = 50

/**
 * One clip among any number: the first ones are offered, and typing the beginnings of a name's words narrows them down.
 */
export function ClipChoice({ label, productionId, from, value, onChange, words, className = '' }: ClipChoiceProps) {
  const id = useId()
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const q = useDeferredValue(typed.trim())
  const { data } = useAsk(
    cardsApi.clips,
    { id: productionId },
    { query: { ...from, q, limit: SHOWN }, enabled: open, placeholderData: (before) => before },
  )
  return (
    <div className={className}>
      <span id={`${id}-label`} className="mb-1 block text-sm font-semibold">
        {label}
      </span>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          id={id}
          aria-labelledby={`${id}-label ${id}`}
          className="flex min-h-9 w-full items-center justify-between gap-2 rounded-box border border-rule bg-sheet px-2.5 py-1 text-left text-ink hover:border-ink"
        >
          <span className="min-w-0 truncate">{words(value)}</span>
          <ChevronDown className="size-4 shrink-0 text-quiet" aria-hidden />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={4}
            aria-label={label}
            className="z-60 w-[max(var(--radix-popover-trigger-width),20rem)] max-w-[calc(100vw-2rem)] rounded-box border border-ink bg-sheet text-ink"
          >
            <Command label={label} shouldFilter={false}>
              <Command.Input
                value={typed}
                onValueChange={setTyped}
                placeholder="Beginning of its name …"
                className="w-full border-b border-rule bg-transparent px-3 py-2 outline-none"
              />
              <Command.List className="max-h-72 overflow-y-auto p-1">
                <Command.Empty className="px-2.5 py-3 text-quiet">No clip by that name.</Command.Empty>
                {data?.rows.map((clip) => (
                  <Command.Item
                    key={clip.id}
                    value={clip.id}
                    onSelect={() => {
                      onChange(clip)
                      setOpen(false)
                    }}
                    className={`cursor-pointer rounded-box px-2.5 py-1.5 data-[selected=true]:bg-wash ${clip.id === value.id ? 'font-semibold' : ''}`}
                  >
                    {words(clip)}
                  </Command.Item>
                ))}
                {data?.next != null && (
                  <p className="px-2.5 py-2 text-sm text-quiet">The first {SHOWN}. Type to find the others.</p>
                )}
              </Command.List>
            </Command>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  )
}
