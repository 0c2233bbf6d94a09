import type { CameraBudget, CardInCamera } from '../../../core/shoot/plan'
import { speedClassOf } from '../../../core/shoot/recording'
import { formatBytes } from '../../../core/units/quantity'

interface CardStripProps {
  readonly budget: CameraBudget
  readonly fillLimit: number
  readonly onPress: () => void
}

const WORDS = { 'too-slow': 'too slow', 'not-clear': 'not clear', promised: 'promised' } as const

/**
 * The cards of a camera side by side, as wide as they hold, each filled as far as it is planned; those that are missing
 * are dashed.
 */
export function CardStrip({ budget, fillLimit, onPress }: CardStripProps) {
  const { camera, cards, missing, missingBytes } = budget
  const open = Array.from({ length: Math.min(missing, MOST_DRAWN) }, (_, at) => at)
  return (
    <button
      type="button"
      onClick={onPress}
      className="mt-1 flex w-full flex-wrap gap-1.5 rounded-box text-left hover:bg-wash"
    >
      <span className="sr-only">Cards of {camera.name}:</span>
      {cards.map((one) => (
        <CardBox key={one.card.id} one={one} fillLimit={fillLimit} />
      ))}
      {open.map((at) => (
        <span
          key={at}
          style={{ flexGrow: missingBytes / 1e9 }}
          className="min-w-36 basis-36 rounded-box border-2 border-dashed border-stop px-2 py-1"
        >
          <span className="block text-sm font-semibold text-stop">missing</span>
          <span className="figure block text-quiet">{formatBytes(missingBytes)}</span>
        </span>
      ))}
      {missing > MOST_DRAWN && <span className="self-center text-stop">and {missing - MOST_DRAWN} more</span>}
      {cards.length === 0 && missing === 0 && (
        <span className="py-2 text-quiet">No card is needed. You can still choose one.</span>
      )}
    </button>
  )
}

const MOST_DRAWN = 8

function CardBox({ one: { card, filledBytes, trouble, spare }, fillLimit }: { one: CardInCamera; fillLimit: number }) {
  const share = (bytes: number) => `${Math.min(100, (bytes / card.capacityBytes) * 100)}%`
  return (
    <span
      style={{ flexGrow: card.capacityBytes / 1e9 }}
      className={`relative min-w-36 basis-36 overflow-hidden rounded-box border bg-sheet ${trouble ? 'border-2 border-stop' : 'border-rule'}`}
    >
      <span
        className="absolute inset-y-0 left-0 bg-wash forced-colors:border-r-4 forced-colors:border-[CanvasText]"
        style={{ width: share(filledBytes) }}
      />
      <span
        className="absolute inset-y-0 border-l border-dotted border-quiet"
        style={{ left: `${fillLimit * 100}%` }}
      />
      <span className="relative block px-2 py-1">
        <span className="block text-sm font-semibold">
          {card.name} <span className="figure font-normal text-quiet">{speedClassOf(card.bytesPerSecond)}</span>{' '}
          {trouble && <span className="text-stop">{WORDS[trouble]}</span>}
          {spare && <span className="font-normal text-quiet">spare</span>}
        </span>
        <span className="figure block text-quiet">
          {filledBytes > 0 ? `${formatBytes(filledBytes)} of ` : ''}
          {formatBytes(card.capacityBytes)}
        </span>
      </span>
    </span>
  )
}
