import { boolean, object, string, type InferType } from 'yup'
import { LEAST, MOST, type ClearRule } from '../core/copies/rule'
import { ask, order, type Made } from './endpoint'
import { awayBody, whole } from './gear'
import { id, idOrNothing } from './id'
import { text } from './text'

type Figure = keyof typeof LEAST
const between = (name: string, figure: Figure) => whole(name, LEAST[figure], MOST[figure])

/** What a rule of a yes asks. Fewer than two copies on two drives is no rule. */
export const figures = object({
  copies: between('The number of verified copies', 'copies'),
  devices: between('The number of drives', 'devices').test(
    'drives',
    'Copies cannot lie on more drives than there are copies.',
    (devices, { parent }) => (devices ?? 0) <= ((parent as Partial<ClearRule>).copies ?? 0),
  ),
  media: between('The number of kinds of media', 'media'),
  sites: between('The number of sites', 'sites'),
  played: between('The number of clips played', 'played'),
  cardOut: boolean().required('Say whether the card has to be out.'),
  atDesk: boolean().required('Say whether it holds at your own desk only.'),
  proofHours: between('The age of a proof in hours', 'proofHours'),
  acceptMemory: boolean().required('Say whether a copy that was read from memory passes.'),
}).noUnknown()

/** A rule with its name. */
export const ruleBody = figures.shape({
  name: text().required('Name the rule.').max(60, 'Keep the name under 60 characters.'),
})
export type RuleBody = InferType<typeof ruleBody>

export interface RuleView extends ClearRule {
  readonly id: string
  /** Given back with a change (`If-Match`), so that it is made from what was seen. */
  readonly version: string
  readonly name: string
  /** It came with the application, and is changed as a copy. */
  readonly shipped: boolean
  readonly away: boolean
  /** Clients and productions that chose it, by name. */
  readonly chosenBy: readonly string[]
}

/** Every rule, which of them holds where nobody chose another, and whether the person is at their own desk. */
export interface RulesView {
  readonly rules: readonly RuleView[]
  readonly usual: string
  readonly atHome: boolean
}

/** The rule that a production chose for itself; without one that of its client holds, then the usual one. */
export const ruleChoice = object({
  ruleId: id('That is no rule.').nullable().defined('Say which rule, or none.'),
}).noUnknown()

/** Where the person is, and the rule that holds where nobody chose another. */
export interface UsualRule {
  readonly atHome: boolean
  readonly ruleId: string
}

/** Either of them; what is not sent stays as it is, so that who says where they are brings no older rule back. */
export const usualRule = object({
  atHome: boolean(),
  ruleId: id('That is no rule.'),
}).noUnknown()

/** Which rule holds for a production. */
export interface RuleHere {
  /** Chosen for it alone. */
  readonly own: string | null
  /** That which holds without such a choice, and the client that chose it; `null` where it is the usual one. */
  readonly otherwise: string
  readonly client: string | null
}

/** What would be otherwise: a rule with other figures, or another rule for a client, a production or everything. */
export const effectQuery = object({
  of: string()
    .oneOf(['rule', 'usual', 'client', 'production'] as const, 'Say what would change.')
    .required('Say what would change.'),
  /** The rule, client or production that is meant. */
  id: idOrNothing('That is not known.'),
  /** The rule that would be chosen; none for that which holds without a choice. */
  ruleId: idOrNothing('That is no rule.'),
  /** Of a rule: what it would ask, as JSON. */
  figures: string().max(1000, 'That is no rule.').default(''),
}).noUnknown()
export type EffectQuery = InferType<typeof effectQuery>

/** In a sentence, what would become of cards that are not formatted. */
export interface EffectView {
  readonly sentence: string
  /** Whether some card would turn to yes: then it is a weaker one. */
  readonly weaker: boolean
}

const CHANGES = ['copies', 'productions', 'gear'] as const

/** Rules of a yes. 404 for what is not known; 409 for a shipped one; 422 names the field. */
export const rulesApi = {
  all: ask<RulesView>()('copies', '/clear-rules'),
  add: order<Made>()('POST', '/clear-rules', { status: 201, changes: CHANGES, body: ruleBody }),
  change: order()('PUT', '/clear-rules/:id', { changes: CHANGES, body: ruleBody }),
  putAway: order()('PUT', '/clear-rules/:id/away', { changes: CHANGES, body: awayBody }),
  /** What a change would do to cards that are not formatted, as far as it is known without a scan. */
  effect: ask<EffectView>()('copies', '/clear-rule-effect', effectQuery),
  /** Changes where the person is, or the usual rule. 422 on `ruleId` for one that is not known. */
  setUsual: order()('PUT', '/settings', { changes: CHANGES, body: usualRule }),
  ofProduction: ask<RuleHere>()('copies', '/productions/:id/rule'),
  chooseForProduction: order()('PUT', '/productions/:id/rule', { changes: CHANGES, body: ruleChoice }),
}
