import type { ReactNode } from 'react'
import { planBudget, type PlanBudget, type PlanGear } from '../../../core/shoot/plan'
import { planGear, type GearView } from '../../../contract/gear'
import { Ask } from '../../parts/asking/Ask'
import { useGear } from '../../trade/queries'
import { usePlan } from './queries'

interface WithBudgetProps {
  readonly productionId: string
  readonly children: (budget: PlanBudget, gear: PlanGear, book: GearView) => ReactNode
}

/** What a production’s plan comes to with the gear book of now. */
export function WithBudget({ productionId, children }: WithBudgetProps) {
  const plan = usePlan(productionId)
  const gear = useGear()
  return (
    <Ask query={plan}>
      {(view) => (
        <Ask query={gear}>
          {(book) => {
            const known = planGear(book, { id: productionId, shootOn: view.shootOn })
            return children(planBudget(view, known, book.rules), known, book)
          }}
        </Ask>
      )}
    </Ask>
  )
}
