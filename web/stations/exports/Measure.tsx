import { deliveryBitRate, predictedBytes, type Destination } from '../../../core/exports/destination'
import { levelText, neededLevel } from '../../../core/exports/level'
import { losslessZoom, type Reframe } from '../../../core/exports/reframe'
import { frameRateLabel, parseFrameRate } from '../../../core/units/frameRate'
import { formatBitRate, formatBytes, formatLength } from '../../../core/units/quantity'
import type { Master } from './master'

/** The figures of a framing: window, scale, bit rate, level, size. */
export function Measure({
  master,
  destination,
  result,
}: {
  master: Master
  destination: Destination
  result: Reframe
}) {
  const rate = parseFrameRate(master.rate) ?? { num: 25, den: 1 }
  const framesPerSecond = rate.num / rate.den
  const bitsPerSecond = deliveryBitRate(destination, framesPerSecond)
  const level = neededLevel({ ...destination, framesPerSecond, bitsPerSecond })
  const { window } = result
  const tooLong = destination.longestSeconds !== undefined && master.seconds > destination.longestSeconds
  const rows: readonly (readonly [string, string, boolean?])[] = [
    ['Window', `${window.widthPx}×${window.heightPx} at ${window.x}, ${window.y}`],
    ['Scale', `${(result.scale * 100).toFixed(1)} %${result.invented ? ', invented' : ''}`, result.invented],
    [
      'Closest without loss',
      losslessZoom(master, destination) >= 1
        ? `${(losslessZoom(master, destination) * 100).toFixed(0)} %`
        : 'none: the master is too small',
      losslessZoom(master, destination) < 1,
    ],
    [
      'Video',
      `${frameRateLabel(rate)}/s, ${formatBitRate(bitsPerSecond)}, level ${level === undefined ? 'none' : levelText(level)}`,
    ],
    [
      'Length and size',
      `${formatLength(master.seconds)}, about ${formatBytes(predictedBytes(bitsPerSecond, master.clip.withSound ? destination.audioBitsPerSecond : 0, master.seconds))}`,
      tooLong,
    ],
  ]
  return (
    <dl aria-label="Figures of this framing">
      {rows.map(([name, value, bad]) => (
        <div key={name} className="flex justify-between gap-4 border-t border-rule py-1">
          <dt className="text-quiet">{name}</dt>
          <dd className={`figure text-right ${bad ? 'text-stop' : ''}`}>{value}</dd>
        </div>
      ))}
    </dl>
  )
}
