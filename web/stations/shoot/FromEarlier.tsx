import { useState } from 'react'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'

interface FromEarlierProps {
  readonly earlier: readonly { readonly id: string; readonly title: string }[]
  readonly busy: boolean
  readonly onCopy: (id: string) => void
}

/** Takes the plan of an earlier production over. */
export function FromEarlier({ earlier, busy, onCopy }: FromEarlierProps) {
  const [id, setId] = useState(earlier[0]?.id ?? '')
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Choice
        label="Plan of an earlier production"
        className="w-64"
        value={id}
        onChange={setId}
        options={earlier.map((one) => ({ value: one.id, label: one.title }))}
      />
      <Button disabled={busy} onClick={() => onCopy(id)}>
        Copy it
      </Button>
    </div>
  )
}
