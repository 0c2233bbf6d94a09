import { useState } from 'react'
import type { EffectQuery } from '../../contract/rules'
import { Button } from '../parts/controls/Button'
import { Choice, type Option } from '../parts/controls/Choice'
import { RuleEffect } from './RuleEffect'

interface RuleChoiceProps {
  readonly label: string
  /** The rule that holds now, as one of the options. */
  readonly value: string
  readonly options: readonly Option[]
  /** What another one would change. */
  readonly change: (value: string) => Partial<EffectQuery>
  /** What the press does, in words. */
  readonly keep: string
  readonly onKeep: (value: string, kept: () => void) => void
  readonly busy: boolean
}

/** Another rule is chosen in two steps: what it would change is said before it holds. */
export function RuleChoice({ label, value, options, change, keep, onKeep, busy }: RuleChoiceProps) {
  const [wanted, setWanted] = useState<string>()
  const leave = () => setWanted(undefined)
  return (
    <>
      <Choice
        label={label}
        className="w-80 max-w-full"
        value={wanted ?? value}
        onChange={setWanted}
        options={options}
      />
      {wanted !== undefined && wanted !== value && (
        <>
          <RuleEffect change={change(wanted)} />
          <div className="flex flex-wrap gap-3">
            <Button look="primary" disabled={busy} onClick={() => onKeep(wanted, leave)}>
              {keep}
            </Button>
            <Button onClick={leave}>Leave it</Button>
          </div>
        </>
      )}
    </>
  )
}
