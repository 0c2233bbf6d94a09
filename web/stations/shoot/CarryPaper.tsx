import { useParams } from 'react-router'
import { carryList } from '../../../core/shoot/carry'
import { Paper } from '../../parts/Paper'
import { CarryGroups, Cautions } from './Carry'
import { useDay } from './queries'
import { WithBudget } from './WithBudget'

/** The carry list on paper. */
export default function CarryPaper() {
  const { productionId = '' } = useParams()
  const { data: day } = useDay(productionId)
  return (
    <Paper
      productionId={productionId}
      what="Carry list"
      back={{ to: `/p/${productionId}/shoot/carry`, name: 'the carry list' }}
      more={day?.place ?? ''}
    >
      {() => (
        <WithBudget productionId={productionId}>
          {(budget) => (
            <>
              <CarryGroups groups={carryList(budget)} />
              <Cautions />
            </>
          )}
        </WithBudget>
      )}
    </Paper>
  )
}
