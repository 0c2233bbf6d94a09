import { useParams } from 'react-router'
import { DESTINATIONS } from '../../../core/exports/destination'
import { shotRows } from '../../../core/shoot/shots'
import { Ask } from '../../parts/asking/Ask'
import { Paper } from '../../parts/Paper'
import { useGear } from '../../trade/queries'
import { useDay, useShots } from './queries'

/** The shot list on paper, with boxes to tick by hand. */
export default function ShotPaper() {
  const { productionId = '' } = useParams()
  const shots = useShots(productionId)
  const { data: gear } = useGear()
  const { data: day } = useDay(productionId)
  return (
    <Paper
      productionId={productionId}
      what="Shot list"
      back={{ to: `/p/${productionId}/shoot/shots`, name: 'the shot list' }}
      more={day?.place ?? ''}
    >
      {() => (
        <Ask query={shots}>
          {(all) => {
            const [, ...rows] = shotRows(all, { cameras: gear?.cameras ?? [], destinations: DESTINATIONS })
            return rows.length === 0 ? (
              <p>No shot is written down yet.</p>
            ) : (
              <table className="text-sm">
                <thead>
                  <tr>
                    <th>Filmed</th>
                    <th>Shot</th>
                    <th>Camera</th>
                    <th>For</th>
                    <th>Notes</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map(([name, camera, destinations, notes, filmed], at) => (
                    <tr key={all[at]?.id}>
                      <td>
                        <span
                          className="flex size-5 items-center justify-center border border-ink text-xs"
                          aria-label={filmed ? 'filmed' : 'not filmed'}
                          role="img"
                        >
                          {filmed && '✓'}
                        </span>
                      </td>
                      <td className="font-semibold">
                        <span className="figure mr-1.5 text-quiet">{at + 1}</span>
                        {name}
                      </td>
                      <td>{camera}</td>
                      <td>{destinations}</td>
                      <td>{notes}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )
          }}
        </Ask>
      )}
    </Paper>
  )
}
