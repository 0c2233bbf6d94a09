import type { ClearRule } from '../../core/copies/rule'
import type { Judged } from '../../core/copies/ruleEffect'
import type { EffectQuery } from '../../contract/rules'
import type { Db } from '../db/connection'
import { loadsById } from '../db/queries/cards'
import {
  newestUnformatted,
  productionsOfClient,
  ruleChoices,
  rulesOfProduction,
  rulesOfLoads,
  type RuleChoices,
} from '../db/queries/clearRules'
import type { Asked } from './asked'
import { loadStates } from './loadStates'

/** More are not judged before a rule is kept. */
const MOST = 500

/** The newest cards that would be asked something else, each with the answer of now and that of then. */
export async function judgedBy(db: Db, asked: Asked, change: EffectQuery, figures: ClearRule | undefined) {
  const before = await ruleChoices(db)
  const after = await changed(db, before, change, figures)
  const loads = await loadsById(
    db,
    (await newestUnformatted(db, MOST)).map((load) => load.id),
  )
  const [rules, others] = [await rulesOfLoads(db, loads, before), await rulesOfLoads(db, loads, after)]
  const asksElse = loads.filter(({ id }) => textOf(rules.get(id)) !== textOf(others.get(id)))
  const [now, then] = [await loadStates(db, asksElse, asked, before), await loadStates(db, asksElse, asked, after)]
  const cards = now.map((state, at): Judged => ({
    label: state.load.label,
    before: state.clear.clear,
    after: then[at]?.clear.clear === true,
  }))
  return { cards, newest: loads.length < MOST ? undefined : MOST }
}

const textOf = (rule: ClearRule | undefined) =>
  JSON.stringify(
    rule && [
      ...[rule.copies, rule.devices, rule.media, rule.sites, rule.played],
      ...[rule.cardOut, rule.atDesk, rule.proofHours, rule.acceptMemory],
    ],
  )

/** The choices as they would be. */
async function changed(
  db: Db,
  choices: RuleChoices,
  { of, id, ruleId }: EffectQuery,
  figures: ClearRule | undefined,
): Promise<RuleChoices> {
  if (of === 'rule') return figures ? { ...choices, rules: new Map([...choices.rules, [id, figures]]) } : choices
  if (of === 'usual') return { ...choices, usual: ruleId === '' ? choices.usual : ruleId }
  const chosen = new Map(choices.chosen)
  const meant = of === 'production' ? [id] : await productionsOfClient(db, id)
  // Without a choice of its own a production obeys that of its client.
  const next = of === 'production' && ruleId === '' ? ((await rulesOfProduction(db, id))?.ofClient ?? '') : ruleId
  for (const production of meant)
    if (next === '') chosen.delete(production)
    else chosen.set(production, next)
  return { ...choices, chosen }
}
