import { ChevronDown, type LucideIcon } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { Link } from 'react-router'
import { Button } from '../controls/Button'

/** One way among several: something that is done at once, or a page that is opened. */
export type MenuEntry = {
  readonly label: string
  /** What one gets, in a few words. */
  readonly note: string
  readonly icon: LucideIcon
} & ({ readonly onSelect: () => void } | { readonly to: string })

interface MenuProps {
  readonly label: string
  readonly entries: readonly MenuEntry[]
  /** Quiet in a line of small print. */
  readonly look?: 'quiet'
  readonly disabled?: boolean
}

/**
 * Several ways to do one thing, under one button and beside it in the page. Opens with Space, Enter or the arrow down;
 * letters jump to an entry.
 */
export function Menu({ label, entries, look, disabled }: MenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button look={look} disabled={disabled} className={look === 'quiet' ? '!min-h-7 !px-1 !py-0' : undefined}>
          {label}
          <ChevronDown className="size-4 text-quiet" aria-hidden />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Content
        align="start"
        sideOffset={4}
        collisionPadding={8}
        className="z-60 max-w-[calc(100vw-1rem)] rounded-box border border-ink bg-sheet p-1 text-ink"
      >
        {entries.map((entry) => (
          <Entry key={entry.label} entry={entry} />
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

function Entry({ entry }: { entry: MenuEntry }) {
  const { label, note, icon: Icon } = entry
  const look = 'flex cursor-pointer items-start gap-3 rounded-box px-2.5 py-1.5 outline-none data-[highlighted]:bg-wash'
  const words = (
    <>
      <Icon className="mt-1 size-4 shrink-0 text-quiet" aria-hidden />
      <span>
        <span className="font-semibold">{label}</span>
        <span className="block text-sm text-quiet">{note}</span>
      </span>
    </>
  )
  return 'to' in entry ? (
    <DropdownMenu.Item asChild textValue={label} className={look}>
      <Link to={entry.to}>{words}</Link>
    </DropdownMenu.Item>
  ) : (
    <DropdownMenu.Item textValue={label} className={look} onSelect={entry.onSelect}>
      {words}
    </DropdownMenu.Item>
  )
}
