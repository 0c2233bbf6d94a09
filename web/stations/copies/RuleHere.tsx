import { Link } from 'react-router'
import { ruleSentence } from '../../../core/copies/rule'
import type { LoadCopies } from '../../../contract/copies'
import { rulesApi, type RulesView } from '../../../contract/rules'
import { Ask } from '../../parts/asking/Ask'
import { useAsk } from '../../parts/asking/useAsk'
import { useAtOnce } from '../../parts/asking/useAtOnce'
import { useSend } from '../../parts/asking/useSend'
import { showAnew } from '../../parts/asking/useShowing'
import { Switch } from '../../parts/controls/Switch'
import { Trouble } from '../../parts/Trouble'
import { useRules } from '../../trade/queries'
import { RuleChoice } from '../../trade/RuleChoice'

const NO_OWN = 'none'
const idOf = (choice: string) => (choice === NO_OWN ? null : choice)

/** What a yes asks of this production’s cards, where the person is now, and another rule for it. */
export function RuleHere({ load, productionId }: { load: LoadCopies; productionId: string }) {
  return (
    <section aria-label="Rule for formatting" className="mt-10 max-w-2xl border-t border-rule pt-4">
      <h2 className="mb-1 text-lg">Before “{load.label}” may be formatted</h2>
      <p className="mb-3">{ruleSentence(load.rule)}</p>
      <Ask query={useRules()}>
        {(rules) => (
          <>
            {load.rule.atDesk && <AtDesk atHome={rules.atHome} />}
            <Chosen rules={rules} productionId={productionId} />
          </>
        )}
      </Ask>
    </section>
  )
}

function AtDesk({ atHome }: { atHome: boolean }) {
  const send = useSend(rulesApi.setUsual, showAnew)
  const [on, choose] = useAtOnce(atHome, (next) => send.mutateAsync({ params: {}, body: { atHome: next } }))
  return (
    <>
      <Switch on={on} onChange={choose}>
        I am at my own desk now
      </Switch>
      <Trouble error={send.error} />
    </>
  )
}

function Chosen({ rules: { rules }, productionId }: { rules: RulesView; productionId: string }) {
  const send = useSend(rulesApi.chooseForProduction, showAnew)
  const nameOf = (id: string) => rules.find((rule) => rule.id === id)?.name ?? ''
  const keep = (choice: string, kept: () => void) =>
    send.mutate({ params: { id: productionId }, body: { ruleId: idOf(choice) } }, { onSuccess: kept })
  return (
    <Ask query={useAsk(rulesApi.ofProduction, { id: productionId })}>
      {({ own, otherwise, client }) => (
        <div className="mt-3">
          <RuleChoice
            label="Rule of this production"
            value={own ?? NO_OWN}
            options={[
              { value: NO_OWN, label: `${nameOf(otherwise)} (${client ? `as ${client} chose` : 'as usual'})` },
              ...rules
                .filter((rule) => !rule.away || rule.id === own)
                .map(({ id, name }) => ({ value: id, label: name })),
            ]}
            change={(choice) => ({ of: 'production', id: productionId, ruleId: idOf(choice) ?? '' })}
            keep="Use this rule here"
            onKeep={keep}
            busy={send.isPending}
          />
          <Trouble error={send.error} />
          <p className="mt-2 text-quiet">
            A card with clips of several productions obeys the strictest of their rules, point by point.{' '}
            <Link to="/locker/rules" className="text-accent underline underline-offset-4">
              All rules
            </Link>
          </p>
        </div>
      )}
    </Ask>
  )
}
