import { rulesApi, type EffectQuery } from '../../contract/rules'
import { useAsk } from '../parts/asking/useAsk'
import { Trouble } from '../parts/Trouble'

/** What a change of rules would do to the cards that are not formatted, before it is kept. */
export function RuleEffect({ change }: { change: Partial<EffectQuery> }) {
  const { data, error } = useAsk(rulesApi.effect, {}, { query: change, placeholderData: (before) => before })
  if (error) return <Trouble error={error} />
  return (
    <p className={`my-3 ${data?.weaker ? 'font-semibold text-doubt' : ''}`} role="status">
      {data
        ? `${data.sentence}${data.weaker ? ' It asks for less than now.' : ''}`
        : 'Looking at what it would change …'}
    </p>
  )
}
