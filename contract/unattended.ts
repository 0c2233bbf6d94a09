import { boolean, object, type InferType } from 'yup'
import type { BigCard, BigState } from '../core/copies/unattended'
import { id, ids } from './id'
import { ask, order } from './endpoint'

/** Whether cards of known cameras are scanned and copied by themselves, for which production and to which volumes. */
export const unattendedRule = object({
  on: boolean().required('Say whether it is on.'),
  productionId: id('Choose a production.').nullable().defined('Choose a production.'),
  volumeIds: ids('That is no volume.').max(4, 'Four volumes at most.').required('Choose two volumes.'),
})
  .noUnknown()
  .test(
    'whole',
    'Choose a production and two volumes first.',
    ({ on, productionId, volumeIds }) =>
      !on || (productionId !== null && Array.isArray(volumeIds) && new Set(volumeIds).size >= 2),
  )
export type UnattendedRule = InferType<typeof unattendedRule>

/** What is going on while nobody watches. */
export interface UnattendedView {
  readonly rule: UnattendedRule
  readonly state: BigState
  readonly cards: readonly Omit<BigCard, 'act'>[]
  /** Cards of the last hours that were taken out since. */
  /** Of all productions, what is not safe of loads that stand in no line above, the worst first; at most six. */
  readonly unsafe: readonly { readonly title: string; readonly sentence: string; readonly isDanger: boolean }[]
  /** How many more there are. */
  readonly moreUnsafe: number
  readonly earlier: readonly { readonly label: string; readonly proved: boolean; readonly sentence: string }[]
}

/** The rule for the tired: off until somebody switches it on, and it never says yes. */
export const unattendedApi = {
  one: ask<UnattendedView>()('copies', '/unattended'),
  set: order()('PUT', '/unattended', { changes: ['copies'], body: unattendedRule }),
}
