import { AT_HOME_ONLY, type ClearRule } from '../../core/copies/rule'
import type { RulesView } from '../../contract/rules'
import type { Station } from './station'

let rules = 0

/** Makes another rule of the careful one; its id. */
export async function newRule(station: Station, change: Partial<ClearRule>, name?: string): Promise<string> {
  rules += 1
  const answer = await station.post('/clear-rules', { ...AT_HOME_ONLY, ...change, name: name ?? `Rule ${rules}` })
  if (answer.status !== 201) throw new Error(JSON.stringify(answer))
  return String(answer.body.id)
}

/** Makes another rule the usual one; takes it back when it is called. */
export async function usually(station: Station, change: Partial<ClearRule>): Promise<() => Promise<unknown>> {
  const { usual, atHome } = await station.get<RulesView>('/clear-rules')
  await station.send('PUT', '/settings', { ruleId: await newRule(station, change), atHome })
  return () => station.send('PUT', '/settings', { ruleId: usual, atHome })
}
