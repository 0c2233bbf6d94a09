import { useState } from 'react'
import type { ClearRule } from '../../core/copies/rule'
import { figures, ruleBody, rulesApi, type RuleView } from '../../contract/rules'
import { useSend } from '../parts/asking/useSend'
import { readCount } from '../parts/controls/Cell'
import { FormField, FormName, FormTick } from '../parts/form/fields'
import { numberIn, useTyped } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'
import { RuleEffect } from '../trade/RuleEffect'

const NUMBERS = [
  ['copies', 'Verified copies'],
  ['devices', 'Drives that they lie on'],
  ['media', 'Kinds of media'],
  ['sites', 'Sites'],
  ['played', 'Clips played'],
  ['proofHours', 'Hours that a proof counts'],
] as const

type Typed = ReturnType<typeof typedOf>

const typedOf = (rule: RuleView, asCopy: boolean) => ({
  name: asCopy ? '' : rule.name,
  ...{ copies: String(rule.copies), devices: String(rule.devices), media: String(rule.media) },
  ...{ sites: String(rule.sites), played: String(rule.played), proofHours: String(rule.proofHours) },
  ...{ cardOut: rule.cardOut, atDesk: rule.atDesk, acceptMemory: rule.acceptMemory },
})

const bodyOf = (typed: Typed) => ({
  ...typed,
  ...(Object.fromEntries(NUMBERS.map(([name]) => [name, numberIn(typed[name], readCount(0, 99_999))])) as Pick<
    ClearRule,
    (typeof NUMBERS)[number][0]
  >),
})

interface ClearRuleSheetProps {
  readonly rule: RuleView
  /** A new one is made of it. */
  readonly asCopy: boolean
  readonly onClose: () => void
}

/** A rule of a yes: what it asks, and what it would change for the cards that obey it. */
export function ClearRuleSheet({ rule, asCopy, onClose }: ClearRuleSheetProps) {
  const add = useSend(rulesApi.add)
  const change = useSend(rulesApi.change)
  const [seen] = useState(rule.version)
  const { control, handleSubmit, watch } = useTyped(ruleBody, typedOf(rule, asCopy), bodyOf)
  const { name: _, ...asked } = bodyOf(watch())
  const isWhole = figures.isValidSync(asked)
  const save = handleSubmit((body) =>
    asCopy
      ? add.mutate({ params: {}, body }, { onSuccess: onClose })
      : change.mutate({ params: { id: rule.id }, body, seen }, { onSuccess: onClose }),
  )
  return (
    <FormSheet
      title={asCopy ? `Another rule, beginning with “${rule.name}”` : `Change “${rule.name}”`}
      about="Copies are counted as they are listed now, proved, and on drives that are known to be different. What you carry is one site."
      onClose={onClose}
      onSave={save}
      save={asCopy ? 'Add the rule' : 'Save the rule'}
      busy={add.isPending || change.isPending}
      error={add.error ?? change.error}
    >
      <FormName control={control} name="name" />
      <div className="grid gap-x-4 sm:grid-cols-2">
        {NUMBERS.map(([name, label]) => (
          <FormField key={name} control={control} name={name} label={label} inputMode="numeric" maxLength={5} />
        ))}
      </div>
      <div className="mb-3 grid gap-1">
        <FormTick control={control} name="atDesk">
          Only at your own desk
        </FormTick>
        <FormTick control={control} name="cardOut">
          Only with the card out of the reader
        </FormTick>
        <FormTick control={control} name="acceptMemory">
          A copy that could only be read back from memory passes: the drive itself may still hold something else
        </FormTick>
      </div>
      {!asCopy && isWhole && <RuleEffect change={{ of: 'rule', id: rule.id, figures: JSON.stringify(asked) }} />}
    </FormSheet>
  )
}
