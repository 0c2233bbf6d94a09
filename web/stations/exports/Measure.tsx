import { levelText } from '../../../core/exports/level'
import type { DeliveryPlan } from '../../../core/exports/plan'
import { isInvented, losslessZoom, scaleDown } from '../../../core/exports/reframe'
import { frameRateLabel } from '../../../core/units/frameRate'
import { formatBitRate, formatBytes, formatLength } from '../../../core/units/quantity'
import type { Master } from './master'

/** The figures of a framing: window, scale, bit rate, level, size; then what is changed, each in a sentence. */
export function Measure({ master, plan }: { master: Master; plan: DeliveryPlan }) {
  const { window, destination, scale, rate, level, seconds } = plan
  const invented = isInvented(scale)
  const lossless = losslessZoom(master, destination)
  const tooLong = destination.longestSeconds !== undefined && seconds > destination.longestSeconds
  const rows: readonly (readonly [string, string, boolean?])[] = [
    ['Window', `${window.widthPx}×${window.heightPx} at ${window.x}, ${window.y}`],
    ['Scale', `${(scale * 100).toFixed(1)} %${invented ? ', invented' : ''}`, invented],
    ['Largest real enlargement', lossless >= 1 ? scaleDown(lossless) : 'none: the master is too small', lossless < 1],
    [
      'Video',
      `${frameRateLabel(rate)}/s, ${formatBitRate(plan.videoBitsPerSecond)}, level ` +
        `${level === undefined ? 'none' : levelText(level)}`,
    ],
    [
      'Length and size',
      `${formatLength(seconds)}, about ` +
        `${formatBytes(plan.sizeBytes)}${tooLong ? `: at most ${formatLength(destination.longestSeconds ?? 0)} here` : ''}`,
      tooLong,
    ],
  ]
  return (
    <>
      <dl aria-label="Figures of this framing">
        {rows.map(([name, value, bad]) => (
          <div key={name} className="flex items-baseline justify-between gap-4 border-t border-rule py-1">
            <dt className="text-quiet">{name}</dt>
            <dd className={`figure text-right ${bad ? 'text-stop' : ''}`}>{value}</dd>
          </div>
        ))}
      </dl>
      {plan.says.length > 0 && (
        <ul aria-label="What is changed" className="mt-2 border-t border-rule pt-2 text-sm">
          {plan.says.map((sentence) => (
            <li key={sentence} className="mb-1">
              {sentence}
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
