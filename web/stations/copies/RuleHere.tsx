import { useState } from 'react'
import { Link } from 'react-router'
import { ruleSentence } from '../../../core/copies/rule'
import type { LoadCopies } from '../../../contract/copies'
import { rulesApi, type RulesView } from '../../../contract/rules'
import { Ask } from '../../parts/asking/Ask'
import { useAsk } from '../../parts/asking/useAsk'
import { useSend } from '../../parts/asking/useSend'
import { showAnew } from '../../parts/asking/useShowing'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { Switch } from '../../parts/controls/Switch'
import { Trouble } from '../../parts/Trouble'
import { useRules } from '../../trade/queries'
import { RuleEffect } from '../../trade/RuleEffect'

const NO_OWN = 'none'

/** What a yes asks of this production’s cards, where the person is now, and another rule for it. */
export function RuleHere({ load, productionId }: { load: LoadCopies; productionId: string }) {
  return (
    <section aria-label="Rule for formatting" className="mt-10 max-w-2xl border-t border-rule pt-4">
      <h2 className="mb-1 text-lg">Before “{load.label}” may be formatted</h2>
      <p className="mb-3">{ruleSentence(load.rule)}</p>
      <Ask query={useRules()}>
        {(rules) => (
          <>
            {load.rule.atDesk && <AtDesk rules={rules} />}
            <Chosen rules={rules} productionId={productionId} />
          </>
        )}
      </Ask>
    </section>
  )
}

function AtDesk({ rules: { atHome, usual } }: { rules: RulesView }) {
  const send = useSend(rulesApi.setUsual)
  // What was just chosen shows at once; the server's answer follows.
  const on = (send.isPending ? send.variables.body?.atHome : undefined) ?? atHome
  return (
    <>
      <Switch
        on={on}
        onChange={(next) => send.mutate({ params: {}, body: { atHome: next, ruleId: usual } }, { onSuccess: showAnew })}
      >
        I am at my own desk now
      </Switch>
      <Trouble error={send.error} />
    </>
  )
}

function Chosen({ rules: { rules }, productionId }: { rules: RulesView; productionId: string }) {
  const send = useSend(rulesApi.chooseForProduction)
  const [wanted, setWanted] = useState<string>()
  const nameOf = (id: string) => rules.find((rule) => rule.id === id)?.name ?? ''
  return (
    <Ask query={useAsk(rulesApi.ofProduction, { id: productionId })}>
      {({ own, otherwise, client }) => {
        const shown = wanted ?? own ?? NO_OWN
        const ruleId = shown === NO_OWN ? null : shown
        const kept = () => {
          setWanted(undefined)
          showAnew()
        }
        const keep = () => send.mutate({ params: { id: productionId }, body: { ruleId } }, { onSuccess: kept })
        return (
          <div className="mt-3">
            <Choice
              label="Rule of this production"
              className="w-80 max-w-full"
              value={shown}
              onChange={setWanted}
              options={[
                { value: NO_OWN, label: `${nameOf(otherwise)} (${client ? `as ${client} chose` : 'as usual'})` },
                ...rules
                  .filter((rule) => !rule.away || rule.id === own)
                  .map(({ id, name }) => ({ value: id, label: name })),
              ]}
            />
            {ruleId !== own && (
              <>
                <RuleEffect change={{ of: 'production', id: productionId, ruleId: ruleId ?? '' }} />
                <div className="flex flex-wrap gap-3">
                  <Button look="primary" disabled={send.isPending} onClick={keep}>
                    Use this rule here
                  </Button>
                  <Button onClick={() => setWanted(undefined)}>Leave it</Button>
                </div>
              </>
            )}
            <Trouble error={send.error} />
            <p className="mt-2 text-quiet">
              A card with clips of several productions obeys the strictest of their rules, point by point.{' '}
              <Link to="/locker/rules" className="text-accent underline underline-offset-4">
                All rules
              </Link>
            </p>
          </div>
        )
      }}
    </Ask>
  )
}
