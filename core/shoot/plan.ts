import { counted, formatLength } from '../units/quantity'
import { isUsable, type Camera, type GearCard } from './gear'
import { bitsPerSecondOf, type RecordingMode } from './mode'
import { leastRooms } from './need'
import type { Takes } from './pack'
import { neededSpeedClass, recordingBytes, recordingSeconds, type SpeedClass } from './recording'

/** So many takes of one length from so many angles, in one mode of one camera. */
export interface PlannedTakes {
  readonly cameraId: string
  readonly modeId: string
  readonly secondsPerTake: number
  readonly takes: number
  /** Passes of the same performance with the camera moved between them. */
  readonly angles: number
  /** What a take may run over: 1.2 is a fifth longer than planned. */
  readonly factor: number
}

/** What one camera records on. */
export interface PlannedCards {
  readonly cameraId: string
  /** Every take is written to both slots. */
  readonly bothSlots: boolean
  /** The kind of card that is counted with while cards are missing. */
  readonly cardBytes: number
  readonly cardBytesPerSecond: number
  /** Cards of the gear book, in the order in which they go in. */
  readonly cardIds: readonly string[]
}

/** What will be recorded on a production. */
export interface RecordingPlan {
  readonly takes: readonly PlannedTakes[]
  readonly cameras: readonly PlannedCards[]
}

/** How carefully it is planned. */
export interface PlanRules {
  /** No card is planned fuller than this share, 0–1. */
  readonly fillLimit: number
  /** Cards more than needed, for each camera. */
  readonly spareCards: number
}

export interface TakesBudget {
  readonly planned: PlannedTakes
  readonly mode: RecordingMode
  readonly bitsPerSecond: number
  /** Of one take, with what it may run over. */
  readonly takeSeconds: number
  readonly takeBytes: number
  readonly count: number
  readonly seconds: number
  readonly sizeBytes: number
}

/** A card of the gear book in a camera: how full it gets, and why it may not be used. */
export interface CardInCamera {
  readonly card: GearCard
  readonly filledBytes: number
  readonly trouble: 'too-slow' | 'not-clear' | 'promised' | undefined
  readonly spare: boolean
}

export interface CameraBudget {
  readonly camera: Camera
  readonly planned: PlannedCards
  readonly rows: readonly TakesBudget[]
  readonly seconds: number
  /** Of the takes once; two slots write it twice. */
  readonly sizeBytes: number
  /** The fastest stream of its modes. */
  readonly bytesPerSecond: number
  readonly neededClass: SpeedClass | undefined
  readonly cards: readonly CardInCamera[]
  /** Cards that takes need, without spares; of a camera with two slots that writes both, an even number. */
  readonly needed: number
  /** Needed and spare cards beyond those that are in it; one that may not be used is exchanged, not added. */
  readonly missing: number
  /** What a missing card must hold at least. */
  readonly missingBytes: number
  /** Bytes of takes for which the cards have no room, in all and of each kind of take. */
  readonly openBytes: number
  readonly openTakes: readonly number[]
  /** A take is longer than the kind of card that is counted with, and the camera stops at a full one. */
  readonly longerThanCard: boolean
  /** False when perhaps none is missing: the search for the best way to fill them gave up. */
  readonly sure: boolean
  /** Bytes that its internal medium lacks. */
  readonly internalShort: number
}

export interface PlanBudget {
  readonly cameras: readonly CameraBudget[]
  readonly sizeBytes: number
  readonly cards: number
  readonly missing: number
  readonly tooSlow: readonly CardInCamera[]
  readonly notClear: readonly CardInCamera[]
  /** Cards that another production counts on, on the same day. */
  readonly promised: readonly CardInCamera[]
  /** Minutes of tape are as many minutes of capture. */
  readonly tapeSeconds: number
}

/** What cards a plan is reckoned with. */
export interface PlanGear {
  readonly cameras: readonly Camera[]
  readonly cards: readonly GearCard[]
}

/** Takes of a camera, cards and what is short: everything that the screen shows and the line counts. */
export function planBudget(plan: RecordingPlan, gear: PlanGear, rules: PlanRules): PlanBudget {
  const known = new Map(gear.cards.map((card) => [card.id, card]))
  const cameras = plan.cameras.flatMap((planned) => {
    const camera = gear.cameras.find((one) => one.id === planned.cameraId)
    return camera ? [cameraBudget(camera, planned, plan.takes, known, rules)] : []
  })
  const inCameras = cameras.flatMap((one) => one.cards)
  return {
    cameras,
    sizeBytes: cameras.reduce((sum, one) => sum + one.sizeBytes, 0),
    cards: cameras.reduce((sum, one) => sum + one.needed, 0),
    missing: cameras.reduce((sum, one) => sum + one.missing, 0),
    tooSlow: inCameras.filter((one) => one.trouble === 'too-slow'),
    notClear: inCameras.filter((one) => one.trouble === 'not-clear'),
    promised: inCameras.filter((one) => one.trouble === 'promised'),
    tapeSeconds: cameras.filter((one) => one.camera.media === 'tape').reduce((sum, one) => sum + one.seconds, 0),
  }
}

function takesBudget(planned: PlannedTakes, mode: RecordingMode): TakesBudget {
  const bitsPerSecond = bitsPerSecondOf(mode)
  const takeSeconds = planned.secondsPerTake * planned.factor
  const count = planned.takes * planned.angles
  const takeBytes = recordingBytes(bitsPerSecond, takeSeconds)
  return {
    planned,
    mode,
    bitsPerSecond,
    takeSeconds,
    takeBytes,
    count,
    seconds: takeSeconds * count,
    sizeBytes: takeBytes * count,
  }
}

function cameraBudget(
  camera: Camera,
  planned: PlannedCards,
  takes: readonly PlannedTakes[],
  known: ReadonlyMap<string, GearCard>,
  rules: PlanRules,
): CameraBudget {
  const rows = takes
    .filter((one) => one.cameraId === camera.id)
    .flatMap((one) => {
      const mode = camera.modes.find((each) => each.id === one.modeId)
      return mode ? [takesBudget(one, mode)] : []
    })
  const sizeBytes = rows.reduce((sum, row) => sum + row.sizeBytes, 0)
  const bytesPerSecond = Math.max(0, ...rows.map((row) => row.bitsPerSecond / 8))
  const base = {
    camera,
    planned,
    rows,
    seconds: rows.reduce((sum, row) => sum + row.seconds, 0),
    sizeBytes,
    bytesPerSecond,
    neededClass: neededSpeedClass(bytesPerSecond * 8),
  }
  if (camera.media !== 'cards') {
    const internalShort = camera.media === 'internal' ? Math.max(0, sizeBytes - camera.internalBytes) : 0
    return { ...base, ...NO_CARDS, internalShort }
  }
  return { ...base, ...cardsOf(base, known, rules), internalShort: 0 }
}

const NO_CARDS = {
  cards: [],
  needed: 0,
  missing: 0,
  missingBytes: 0,
  openBytes: 0,
  openTakes: [],
  longerThanCard: false,
  sure: true,
} as const

type CardsOf = Pick<
  CameraBudget,
  'cards' | 'needed' | 'missing' | 'missingBytes' | 'openBytes' | 'openTakes' | 'longerThanCard' | 'sure'
>

function cardsOf(
  { camera, planned, rows, bytesPerSecond }: Pick<CameraBudget, 'camera' | 'planned' | 'rows' | 'bytesPerSecond'>,
  known: ReadonlyMap<string, GearCard>,
  rules: PlanRules,
): CardsOf {
  const copies = planned.bothSlots && camera.slots === 2 ? 2 : 1
  const takes: Takes[] = rows.map((row) => ({ bytes: row.takeBytes, count: row.count }))
  const given = planned.cardIds.flatMap((id) => known.get(id) ?? [])
  const troubleOf = (card: GearCard) => {
    if (card.bytesPerSecond < bytesPerSecond) return 'too-slow'
    if (isUsable(card)) return undefined
    return card.promisedTo === undefined ? 'not-clear' : 'promised'
  }
  const room = (card: GearCard) => Math.floor(card.capacityBytes * rules.fillLimit)
  const good = given.filter((card) => troubleOf(card) === undefined)
  // With two slots the cards go in by pairs, and a pair holds what its smaller card holds.
  const inSets = copies === 1 ? good : likeWithLike(good, room)
  const sets = Array.from({ length: Math.floor(good.length / copies) }, (_, at) =>
    inSets.slice(at * copies, (at + 1) * copies),
  )
  // A card that holds not even the shortest take is no spare for a camera that stops at a full one.
  const least = camera.spans ? 0 : Math.min(...rows.map((row) => row.takeBytes))
  const spares = rows.length > 0 ? rules.spareCards : 0
  const suitable = good.filter((card) => room(card) >= least).length
  const need = leastRooms(takes, {
    rooms: sets.map((set) => Math.min(...set.map(room))),
    spans: camera.spans,
    nominal: Math.floor(planned.cardBytes * rules.fillLimit),
    mostUsed: Math.floor((suitable - spares) / copies),
  })
  const used = need.filled.filter((bytes) => bytes > 0).length * copies
  // What fits on no card of that kind needs a larger one each.
  const more = need.more * copies
  const inUse = new Set(sets.filter((_, at) => (need.filled[at] ?? 0) > 0).flat())
  const idle = good.filter((card) => !inUse.has(card) && room(card) >= least).length
  const lacking = more + Math.max(0, spares - idle)
  const cards = given.map((card): CardInCamera => {
    const set = sets.findIndex((one) => one.includes(card))
    const filledBytes = need.filled[set] ?? 0
    const trouble = troubleOf(card)
    return { card, filledBytes, trouble, spare: trouble === undefined && filledBytes === 0 && room(card) >= least }
  })
  return {
    cards,
    needed: used + more,
    // A card that may not be used is exchanged, not added.
    missing: Math.max(0, lacking - (given.length - good.length)),
    missingBytes: Math.max(planned.cardBytes, ...need.tooLong.map((bytes) => Math.ceil(bytes / rules.fillLimit))),
    openBytes: need.open.reduce((sum, one) => sum + one.bytes * one.count, 0),
    openTakes: need.open.map((one) => one.bytes),
    longerThanCard: need.tooLong.length > 0 && !camera.spans,
    sure: need.sure,
  }
}

const likeWithLike = <T>(cards: readonly T[], size: (card: T) => number): T[] =>
  [...cards].sort((a, b) => size(b) - size(a))

/** What else the cards of a camera hold when the plan is filmed: seconds of one mode, in whole. */
export function secondsLeft(budget: CameraBudget, mode: RecordingMode, rules: PlanRules): number {
  const bitsPerSecond = bitsPerSecondOf(mode)
  if (bitsPerSecond <= 0) return 0
  const holds = (bytes: number) => Math.floor(recordingSeconds(Math.max(0, bytes), bitsPerSecond))
  if (budget.camera.media === 'tape') return 0
  if (budget.camera.media === 'internal') return holds(budget.camera.internalBytes - budget.sizeBytes)
  const copies = budget.planned.bothSlots && budget.camera.slots === 2 ? 2 : 1
  const fit = budget.cards.filter(({ card }) => isUsable(card) && card.bytesPerSecond >= bitsPerSecond / 8)
  const inSets = copies === 1 ? fit : likeWithLike(fit, ({ card }) => card.capacityBytes)
  const open = inSets.map(({ card, filledBytes }) => Math.floor(card.capacityBytes * rules.fillLimit) - filledBytes)
  // A pair holds what its smaller card holds.
  const pairs = Array.from({ length: Math.floor(open.length / copies) }, (_, at) =>
    Math.min(...open.slice(at * copies, (at + 1) * copies)),
  )
  return pairs.reduce((sum, bytes) => sum + holds(bytes), 0)
}

/** Whether the whole day of a camera fits on its cards in one mode, and by how much. */
export interface ModeFit {
  readonly mode: RecordingMode
  readonly fits: boolean
  readonly sentence: string
}

/**
 * Which modes of a camera carry the planned takes on the cards that it has, the one with the most data that fits first.
 */
export function modesForDay(
  { camera, planned, rows }: Pick<CameraBudget, 'camera' | 'planned' | 'rows'>,
  gear: PlanGear,
  rules: PlanRules,
): ModeFit[] {
  const offered = camera.modes.filter((mode) => !mode.away || rows.some((row) => row.mode.id === mode.id))
  const fits = offered.map((mode): ModeFit => {
    const takes = rows.map((row) => ({ ...row.planned, modeId: mode.id }))
    const [budget] = planBudget({ takes, cameras: [planned] }, gear, { ...rules, spareCards: 0 }).cameras
    if (!budget) return { mode, fits: false, sentence: 'nothing is known of this camera' }
    const slow = budget.cards.filter((one) => one.trouble === 'too-slow').length
    const short = budget.openBytes + budget.internalShort
    if (short === 0 && !budget.longerThanCard)
      return {
        mode,
        fits: true,
        sentence: camera.media === 'tape' ? 'fits' : `fits, ${formatLength(secondsLeft(budget, mode, rules))} to spare`,
      }
    const lacking = formatLength(Math.ceil((short * 8) / bitsPerSecondOf(mode)))
    return {
      mode,
      fits: false,
      sentence: `${lacking} too long for the cards${slow > 0 ? `, ${counted(slow, 'card')} too slow` : ''}`,
    }
  })
  return fits.sort((a, b) => Number(b.fits) - Number(a.fits) || bitsPerSecondOf(b.mode) - bitsPerSecondOf(a.mode))
}
