import { counted } from '../../units/quantity'
import { dayIn } from '../../units/day'

/** What a card that nobody has scanned tells of itself. */
export interface CardClues {
  /** The card of the gear book, and the camera that names files as they are named on it. */
  readonly cardId: string | undefined
  readonly cameraId: string | undefined
  /** When its files were written, first and last, in milliseconds. */
  readonly filmed: { readonly from: number; readonly to: number } | undefined
}

/** A camera whose clock was never set says nothing by it. */
const EARLIEST_MS = Date.UTC(2000, 0, 2)

/** When the files of a card were written, first and last; `undefined` where their times say nothing. */
export function filmedBetween(files: readonly { readonly modifiedMs: number }[]): CardClues['filmed'] {
  let [from, to] = [Infinity, -Infinity]
  for (const { modifiedMs } of files) {
    if (modifiedMs < EARLIEST_MS) continue
    from = Math.min(from, modifiedMs)
    to = Math.max(to, modifiedMs)
  }
  return to < from ? undefined : { from, to }
}

/** A production that a card may be for. */
export interface MayHold {
  readonly id: string
  readonly shootOn: string | null
  readonly timeZone: string
  /** Cameras and cards of its plan. */
  readonly cameraIds: readonly string[]
  readonly cardIds: readonly string[]
  /** Cards that were taken in for it: by which camera, and when their first and last clips were filmed. */
  readonly taken: readonly {
    readonly cameraId: string | null
    readonly from: number
    readonly to: number
  }[]
}

export interface Belongs {
  readonly productionId: string
  /** What speaks for it, as the end of a sentence: `filmed on its day, by a camera of its plan`. */
  readonly why: string
}

const DAY_MS = 86_400_000
/** Cards of one shoot are filmed within hours of one another, over midnight as well. */
const NEAR_MS = 12 * 3_600_000

/**
 * The production that a card is for: what speaks most for one alone, or the only production there is. The day weighs
 * more than card and camera, which serve many productions. `undefined` where two are as likely. Common practice, no
 * source.
 */
export function belongsTo(clues: CardClues, productions: readonly MayHold[]): Belongs | undefined {
  const likely = productions
    .map((production) => ({ id: production.id, ...weighed(clues, production) }))
    .sort((a, b) => b.weight - a.weight)
  const [best, next] = likely
  if (!best) return undefined
  if (best.weight > 0 && (!next || next.weight < best.weight))
    return { productionId: best.id, why: best.whys.join(', ') }
  return productions.length === 1 ? { productionId: best.id, why: 'the only production' } : undefined
}

function weighed({ cardId, cameraId, filmed }: CardClues, production: MayHold) {
  const { shootOn, timeZone, cameraIds, cardIds, taken } = production
  const near = filmed && taken.filter((one) => one.from <= filmed.to + NEAR_MS && filmed.from <= one.to + NEAR_MS)
  const away =
    filmed && shootOn ? daysAway(shootOn, dayIn(timeZone, filmed.from), dayIn(timeZone, filmed.to)) : undefined
  const says: readonly (readonly [number, string, boolean])[] = [
    [6, 'filmed on its day', away === 0],
    // A clock may be a few hours off, or a night shoot begin before its day.
    [2, 'filmed a day from its day', away === 1],
    // What a person decided of the cards beside it weighs more than any plan.
    [8, `filmed together with ${counted(near?.length ?? 0, 'card')} of it`, (near?.length ?? 0) > 0],
    [3, 'a card of its plan', cardId !== undefined && cardIds.includes(cardId)],
    [2, 'by a camera of its plan', cameraId !== undefined && cameraIds.includes(cameraId)],
    [1, 'by a camera that filmed for it', cameraId !== undefined && taken.some((one) => one.cameraId === cameraId)],
  ]
  const holds = says.filter(([, , is]) => is)
  return { weight: holds.reduce((sum, [weight]) => sum + weight, 0), whys: holds.map(([, why]) => why) }
}

/** How many days lie between a day and the nearest of some; 0 where it is one of them. */
function daysAway(day: string, from: string, to: string): number {
  if (day >= from && day <= to) return 0
  const at = (text: string) => Date.parse(`${text}T00:00:00Z`)
  return Math.round(Math.min(Math.abs(at(day) - at(from)), Math.abs(at(day) - at(to))) / DAY_MS)
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'

/**
 * What a card is called by itself: as in the gear book; after its camera with the next letter that its production has
 * not; as the camera or a person called the card; never after the reader it lies in.
 */
export function cardTitle(
  {
    gearName,
    cameraName,
    ownName,
  }: { readonly gearName?: string; readonly cameraName?: string; readonly ownName?: string },
  labels: readonly string[],
): string {
  if (gearName !== undefined) return gearName
  if (cameraName === undefined && ownName !== undefined) return ownName
  const base = cameraName ?? 'Card'
  const taken = new Set(labels.map((label) => label.toLowerCase()))
  const letter = [...LETTERS].find((one) => !taken.has(`${base} ${one}`.toLowerCase()))
  return letter === undefined ? base : `${base} ${letter}`
}
