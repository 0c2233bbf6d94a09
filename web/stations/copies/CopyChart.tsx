import { timeIn, zoneHere } from '../../../core/units/day'
import { useParams } from 'react-router'
import { MARK_WORDS, type Mark as MarkValue } from '../../../core/copies/mark'
import { formatBytes } from '../../../core/units/quantity'
import type { CopyView, LoadCopies } from '../../../contract/copies'
import { Ask } from '../../parts/asking/Ask'
import { Mark } from '../../trade/Mark'
import { Paper } from '../../parts/Paper'
import { useAllCopies } from './queries'

const MARKS: readonly MarkValue[] = [0, 1, 2, 3]

/** The copy chart on paper, one page a production: every load, where it lies, how far each copy has come. */
export default function CopyChart() {
  const { productionId = '' } = useParams()
  const copies = useAllCopies(productionId)
  return (
    <Paper
      productionId={productionId}
      what="Copy chart"
      back={{ to: `/p/${productionId}/copies`, name: 'Copies' }}
      more={copies.dataUpdatedAt > 0 ? `as of ${timeIn(zoneHere(), copies.dataUpdatedAt)}` : ''}
    >
      {() => (
        <>
          <Ask query={copies}>
            {(loads) => (loads.length === 0 ? <p>Nothing was copied yet.</p> : <Chart loads={loads} />)}
          </Ask>
          <ul className="mt-5 flex flex-wrap gap-x-6 gap-y-1 text-sm">
            {MARKS.map((mark) => (
              <li key={mark} className="flex items-center gap-1.5">
                <Mark mark={mark} label="spoken" /> {MARK_WORDS[mark]}
              </li>
            ))}
          </ul>
        </>
      )}
    </Paper>
  )
}

/** Volumes in the order in which they come up, oldest load first. */
const volumesOf = (loads: readonly LoadCopies[]) => [
  ...new Map(loads.flatMap((load) => load.copies.map((copy) => [copy.volumeId, copy] as const))).values(),
]

function Chart({ loads }: { loads: readonly LoadCopies[] }) {
  const volumes = volumesOf(loads)
  return (
    <table className="text-sm">
      <thead>
        <tr>
          <th>Load</th>
          <th className="text-right">Files</th>
          <th className="text-right">Bytes</th>
          {volumes.map((volume) => (
            <th key={volume.volumeId}>
              {volume.volumeName}
              <span className="block font-normal">{volume.site}</span>
            </th>
          ))}
          <th>May it be formatted?</th>
        </tr>
      </thead>
      <tbody>
        {loads.map((load) => (
          <tr key={load.loadId} data-load={load.label}>
            <td className="font-bold">{load.label}</td>
            <td className="figure text-right">{load.fileCount}</td>
            <td className="figure text-right whitespace-nowrap">{formatBytes(load.sizeBytes)}</td>
            {volumes.map(({ volumeId }) => (
              <td key={volumeId}>
                <CopyCell copy={load.copies.find((one) => one.volumeId === volumeId)} />
              </td>
            ))}
            <td>
              {load.formattedAt ? 'formatted' : load.clear.clear ? 'yes' : 'no'}
              {load.formattedAgainst && (
                <span className="block">
                  against the answer{load.formattedBecause ? `: ${load.formattedBecause}` : ''}
                </span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function CopyCell({ copy }: { copy: CopyView | undefined }) {
  if (!copy) return '–'
  if (copy.mirrorLost) return 'gone'
  return (
    <span className="flex items-center gap-1.5 whitespace-nowrap">
      <Mark mark={copy.mark} label="spoken" />
      <span>
        {copy.filesCopied} of {copy.filesWanted}
        {copy.lastVerifiedAt && <span className="block">{timeIn(zoneHere(), copy.lastVerifiedAt)}</span>}
      </span>
    </span>
  )
}
