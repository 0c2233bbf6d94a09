import { timeIn, zoneHere } from '../../../core/units/day'
import { checksText } from '../../../core/media/check'
import { formatBytes } from '../../../core/units/quantity'
import { CheckTable } from '../../trade/CheckTable'
import { Older } from '../../parts/table/Older'
import { Trouble } from '../../parts/Trouble'
import { useDeliverables } from './queries'

/** The finished files, each with the check of what is really in it. */
export function Deliverables({ productionId }: { productionId: string }) {
  const pages = useDeliverables(productionId)
  const deliverables = pages.data?.rows ?? []
  if (pages.isError) return <Trouble error={pages.error} />
  if (deliverables.length === 0) return null
  return (
    <section aria-label="Deliverables" className="mt-10">
      <h2 className="mb-2 text-xl">Finished files</h2>
      <ul className="border-t border-ink">
        {deliverables.map((one, at) => (
          <li key={one.id} className="border-b border-rule" data-deliverable={one.destinationName} data-pass={one.pass}>
            <details className="py-3" open={at === 0}>
              <summary className="flex flex-wrap items-baseline justify-between gap-x-6">
                <span>
                  <strong>{one.destinationName}</strong> from <span className="figure">{one.clipName}</span>
                </span>
                <span className="figure text-quiet">
                  {formatBytes(one.sizeBytes)}, {timeIn(zoneHere(), one.madeAt)}
                </span>
                {one.pass ? (
                  <span className={one.checks.some((check) => check.remark === 'doubt') ? 'text-doubt' : 'text-good'}>
                    {checksText(one.checks)}
                  </span>
                ) : (
                  <strong className="text-stop">{checksText(one.checks)}: do not upload it</strong>
                )}
              </summary>
              <p className="figure my-2 text-sm break-all text-quiet">
                {one.volumeName}: {one.path}
              </p>
              <CheckTable checks={one.checks} />
            </details>
          </li>
        ))}
      </ul>
      <Older pages={pages}>Show older files</Older>
      <p className="mt-3 max-w-2xl text-sm text-quiet">
        Music, people and places in a film need permission for each place it is published: the licence and local law
        decide.
      </p>
    </section>
  )
}
