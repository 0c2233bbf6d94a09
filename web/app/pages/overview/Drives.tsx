import { formatBytes } from '../../../../core/units/quantity'
import type { VolumeView } from '../../../../contract/storage'
import { Bar } from '../../../parts/Bar'

/** Where everything lies: each drive with its place, and how much room is left on it. */
export function Drives({ volumes }: { volumes: readonly VolumeView[] }) {
  const shown = volumes.filter((volume) => !volume.away)
  if (shown.length === 0) return null
  return (
    <section aria-label="Drives">
      <h2 className="mb-1 flex min-h-9 items-center text-xl">Drives</h2>
      <ul className="border-t border-ink">
        {shown.map(({ id, name, site, connected, capacityBytes, usedBytes, budget }) => (
          <li
            key={id}
            className="grid grid-cols-[1fr_4rem_6.5rem] items-center gap-x-3 border-b border-rule py-1 text-sm leading-6"
          >
            <span className="min-w-0 truncate">
              <span className="font-bold">{name}</span> <span className="text-quiet">{site}</span>
            </span>
            <Bar
              label={`${name}: ${formatBytes(usedBytes)} of ${formatBytes(capacityBytes)} used`}
              parts={[{ share: capacityBytes > 0 ? usedBytes / capacityBytes : 0, tone: 'solid' }]}
            />
            <span className={`figure text-right ${connected ? '' : 'text-quiet'}`}>
              {connected ? `${formatBytes(budget.freeBytes)} free` : 'away'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
