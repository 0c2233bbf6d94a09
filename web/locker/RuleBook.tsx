import { MAINS } from '../../core/shoot/rates'
import { counted } from '../../core/units/quantity'
import type { Typed } from '../../core/units/typed'
import { gearApi, type PlanRulesBody } from '../../contract/gear'
import { Answer } from '../parts/Answer'
import { Ask } from '../parts/asking/Ask'
import { Button } from '../parts/controls/Button'
import { Cell, readCount, readSurplus } from '../parts/controls/Cell'
import { Choice } from '../parts/controls/Choice'
import { useGear } from '../trade/queries'
import { Leaving, Outdated } from '../parts/layers/Leaving'
import { ClearRules } from './ClearRules'
import { useDraft } from '../parts/asking/useDraft'
import { useSend } from '../parts/asking/useSend'

/** How carefully recordings are planned, and when a card may be formatted. */
export function RuleBook() {
  return (
    <>
      <Ask query={useGear()}>{({ rules, rulesVersion }) => <Rules known={rules} version={rulesVersion} />}</Ask>
      <ClearRules />
    </>
  )
}

function readShare(typed: string): Typed<number> {
  const match = /^\s*(\d{1,3})\s*%?\s*$/.exec(typed)
  const share = Number(match?.[1]) / 100
  return match && share >= 0.1 && share <= 1 ? { value: share } : { fault: 'A share from 10 to 100 %.' }
}

function Rules({ known, version }: { known: PlanRulesBody; version: string }) {
  const send = useSend(gearApi.setRules)
  const { value: rules, changed, seen, change, forget } = useDraft(known, version)
  const spare = rules.spareCards === 0 ? 'no spare card' : `${counted(rules.spareCards, 'spare card')} per camera`
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        send.mutate({ params: {}, body: rules, ...seen }, { onSuccess: forget })
      }}
    >
      <Answer
        why="These hold for every plan from now on. Those for formatting a card stand below."
        action={
          <Button look="primary" type="submit" disabled={!changed || send.isPending}>
            Save the rules
          </Button>
        }
      >
        Fill cards up to {Math.round(rules.fillLimit * 100)} %, and take {spare}.
      </Answer>
      <Leaving when={changed} />
      <Outdated send={send} onLook={forget} />
      <dl className="max-w-3xl border-t border-ink">
        <Rule name="Fill limit" why="No card is planned fuller than this. Common practice: 90 %.">
          <Cell
            label="Fill limit"
            shown={`${Math.round(rules.fillLimit * 100)} %`}
            read={readShare}
            onValue={(fillLimit) => change({ fillLimit })}
          />
        </Rule>
        <Rule name="Spare cards" why="For each camera, beside those that its takes need.">
          <Cell
            label="Spare cards"
            shown={String(rules.spareCards)}
            read={readCount(0, 20)}
            onValue={(spareCards) => change({ spareCards })}
          />
        </Rule>
        <Rule name="Takes run over by" why="What a new row is planned with: people talk longer than they think.">
          <Cell
            label="Takes run over by"
            shown={`${Number(((rules.factor - 1) * 100).toFixed(1))} %`}
            read={readSurplus}
            onValue={(factor) => change({ factor })}
          />
        </Rule>
        <Rule name="Mains" why="Lamps of the region flicker twice in each period.">
          <Choice
            label="Mains"
            hideLabel
            className="w-24"
            value={String(rules.mains)}
            onChange={(value) => change({ mains: MAINS.find((one) => String(one) === value) ?? 50 })}
            options={MAINS.map((one) => ({ value: String(one), label: `${one} Hz` }))}
          />
        </Rule>
      </dl>
    </form>
  )
}

const Rule = ({ name, why, children }: { name: string; why: string; children: React.ReactNode }) => (
  <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-1 border-b border-rule py-2.5">
    <dt>
      <span className="font-bold">{name}</span>
      <span className="block text-sm text-quiet">{why}</span>
    </dt>
    <dd>{children}</dd>
  </div>
)
