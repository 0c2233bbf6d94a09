import { Copy, Pencil } from 'lucide-react'
import { useState } from 'react'
import { ruleSentence } from '../../core/copies/rule'
import { rulesApi, type RulesView, type RuleView } from '../../contract/rules'
import { Ask } from '../parts/asking/Ask'
import { useSend } from '../parts/asking/useSend'
import { IconButton } from '../parts/controls/IconButton'
import { Trouble } from '../parts/Trouble'
import { useRules } from '../trade/queries'
import { RuleChoice } from '../trade/RuleChoice'
import { ClearRuleSheet } from './ClearRuleSheet'
import { PutAway } from './PutAway'

/** When a card may be formatted: every rule by its name, and which one holds where nobody chose another. */
export function ClearRules() {
  const [open, setOpen] = useState<{ readonly rule: RuleView; readonly asCopy: boolean }>()
  return (
    <section aria-label="When a card may be formatted" className="mt-10 max-w-3xl">
      <h2 className="mb-1 text-xl">When a card may be formatted</h2>
      <p className="mb-2 text-quiet">
        Two verified copies on two drives at least. A client or a production may choose another rule than the usual one.
      </p>
      <Ask query={useRules()}>
        {(view) => (
          <>
            <ul aria-label="Rules" className="border-t border-ink">
              {[...view.rules]
                .sort((a, b) => Number(a.away) - Number(b.away))
                .map((rule) => (
                  <li key={rule.id} className="flex items-center gap-3 border-b border-rule py-2">
                    <span className="min-w-0 grow">
                      <span className={`font-bold ${rule.away ? 'text-quiet' : ''}`}>{rule.name}</span>{' '}
                      <span className="text-quiet">
                        {rule.id === view.usual && 'the usual one'}
                        {rule.away && ' put away'}
                      </span>
                      <span className="block text-sm">{ruleSentence(rule)}</span>
                      {rule.chosenBy.length > 0 && (
                        <span className="block text-sm text-quiet">Chosen by {rule.chosenBy.join(', ')}</span>
                      )}
                    </span>
                    {!rule.shipped && (
                      <IconButton
                        icon={Pencil}
                        label={`Change ${rule.name}`}
                        onClick={() => setOpen({ rule, asCopy: false })}
                      />
                    )}
                    <IconButton
                      icon={Copy}
                      label={`Make another of ${rule.name}`}
                      onClick={() => setOpen({ rule, asCopy: true })}
                    />
                    {!rule.shipped && rule.id !== view.usual && <PutAway {...rule} holds="" put={rulesApi.putAway} />}
                  </li>
                ))}
            </ul>
            <Usual view={view} />
          </>
        )}
      </Ask>
      {open && <ClearRuleSheet {...open} onClose={() => setOpen(undefined)} />}
    </section>
  )
}

function Usual({ view: { rules, usual } }: { view: RulesView }) {
  const send = useSend(rulesApi.setUsual)
  return (
    <div className="mt-4">
      <RuleChoice
        label="The usual one"
        value={usual}
        options={rules
          .filter((rule) => !rule.away || rule.id === usual)
          .map(({ id, name }) => ({ value: id, label: name }))}
        change={(ruleId) => ({ of: 'usual', ruleId })}
        keep="Make it the usual one"
        onKeep={(ruleId, kept) => send.mutate({ params: {}, body: { ruleId } }, { onSuccess: kept })}
        busy={send.isPending}
      />
      <Trouble error={send.error} />
    </div>
  )
}
