import { dayWithName } from '../../core/units/day'
import { useProduction } from '../trade/queries'
import { ChangeProduction } from './ChangeProduction'

/** Which production the page is of, in the head. */
export function ProductionTitle({ productionId }: { productionId: string }) {
  const { data: production } = useProduction(productionId)
  if (!production) return null
  const { title, client, shootOn } = production
  return (
    <p className="flex min-w-0 items-center gap-x-2">
      <span className="truncate text-lg font-bold">{title}</span>
      <span className="truncate text-quiet max-md:sr-only">
        {client ? `for ${client}` : 'no client yet'}
        {shootOn && `, shoot day ${dayWithName(shootOn)}`}
      </span>
      <ChangeProduction production={production} />
    </p>
  )
}
