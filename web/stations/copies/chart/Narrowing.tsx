import type { ChartHead } from '../../../../contract/chart'
import { Button } from '../../../parts/controls/Button'
import { Choice } from '../../../parts/controls/Choice'
import { Switch } from '../../../parts/controls/Switch'
import type { Narrowed } from './queries'

const ALL = 'all'

interface NarrowingProps {
  readonly head: ChartHead
  readonly narrowed: Narrowed
  readonly narrow: (change: Readonly<Record<string, string | null>>) => void
}

/** What the chart is narrowed to. */
export function Narrowing({ head, narrowed, narrow }: NarrowingProps) {
  const { clientId, siteId, volumeId, year, danger, productionId } = narrowed
  const sites = [...new Map(head.volumes.map(({ siteId: id, site: name }) => [id, { id, name }])).values()]
  const years = head.years.map((one) => ({ id: String(one), name: String(one) }))
  const choice = (
    name: string,
    label: string,
    all: string,
    value: string,
    of: readonly { id: string; name: string }[],
  ) =>
    of.length > 1 || value !== '' ? (
      <Choice
        label={label}
        className="w-44 max-sm:w-full"
        value={value === '' ? ALL : value}
        options={[{ value: ALL, label: all }, ...of.map((one) => ({ value: one.id, label: one.name }))]}
        onChange={(next) => narrow({ [name]: next === ALL ? null : next })}
      />
    ) : null
  return (
    <div className="mb-4 flex flex-wrap items-end gap-x-5 gap-y-3">
      {choice('client', 'Client', 'every client', clientId, head.clients)}
      {choice('site', 'Site', 'every site', siteId, sites)}
      {choice('volume', 'Volume', 'every volume', volumeId, head.volumes)}
      {choice('year', 'Year', 'every year', year === null ? '' : String(year), years)}
      <Switch on={danger} onChange={(on) => narrow({ danger: on ? '' : null })}>
        Only what is in danger
      </Switch>
      {productionId !== '' && (
        <Button look="quiet" onClick={() => narrow({ production: null, load: null })}>
          Show all productions
        </Button>
      )}
    </div>
  )
}
