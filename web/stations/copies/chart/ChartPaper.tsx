import { Fragment } from 'react'
import { useParams } from 'react-router'
import { MARK_WORDS, type Mark as MarkValue } from '../../../../core/copies/mark'
import { timeIn, zoneHere } from '../../../../core/units/day'
import { Ask } from '../../../parts/asking/Ask'
import { PaperPage } from '../../../parts/Paper'
import { Mark } from '../../../trade/Mark'
import { ChartHeads, columnsOf, groupsOf, Line, ProductionLine } from './ChartTable'
import { useChartHead, useNarrowed, useWholeChart } from './queries'

const MARKS: readonly MarkValue[] = [0, 1, 2, 3]

/**
 * The chart on paper: one production, or whatever it was narrowed to. Forty lines with eight volumes fit on a page; what
 * is longer has the number of each at its foot.
 */
export default function ChartPaper() {
  const { productionId } = useParams()
  const { narrowed, address } = useNarrowed()
  const lines = useWholeChart(productionId === undefined ? narrowed : { ...narrowed, productionId })
  const head = useChartHead()
  const only = productionId === undefined ? undefined : lines.data?.[0]?.production.title
  return (
    <PaperPage
      title={only ?? 'Copy chart'}
      about={`${only ? 'Copy chart, as' : 'As'} the records say${lines.dataUpdatedAt > 0 ? ` at ${timeIn(zoneHere(), lines.dataUpdatedAt)}` : ''}. Check in Yendra before a card is formatted.`}
      back={
        productionId === undefined
          ? { to: `/chart${address === '' ? '' : `?${address}`}`, name: 'the chart' }
          : { to: `/p/${productionId}/copies`, name: 'Copies' }
      }
    >
      <Ask query={head}>
        {({ volumes }) => (
          <Ask query={lines}>
            {(rows) => {
              if (rows.length === 0) return <p>Nothing stands on it yet.</p>
              // A column in which nothing stands would take the room of one in which something does.
              const used = new Set(rows.flatMap((line) => [...line.copies, ...line.said].map((copy) => copy.volumeId)))
              const columns = columnsOf(volumes, rows).filter((volume) => used.has(volume.id))
              return (
                <table className="tight w-full" aria-label="Chart">
                  <ChartHeads columns={columns} />
                  <tbody>
                    {groupsOf(rows).map((group) => (
                      <Fragment key={group[0]?.id}>
                        <ProductionLine
                          production={group[0]?.production}
                          width={columns.length + 3}
                          onOnly={undefined}
                        />
                        {group.map((line) => (
                          <Line
                            key={line.id}
                            line={line}
                            columns={columns}
                            now={lines.dataUpdatedAt}
                            isOpen={false}
                            onOpen={undefined}
                          />
                        ))}
                      </Fragment>
                    ))}
                  </tbody>
                </table>
              )
            }}
          </Ask>
        )}
      </Ask>
      <ul className="mt-3 flex flex-wrap gap-x-6 gap-y-1 text-sm">
        {MARKS.map((mark) => (
          <li key={mark} className="flex items-center gap-1.5">
            <Mark mark={mark} label="spoken" /> {MARK_WORDS[mark]}
          </li>
        ))}
        <li>behind it the age of its newest proof</li>
      </ul>
    </PaperPage>
  )
}
