import { MARK_WORDS, type Mark } from '../copies/mark'
import { counted, formatBytes } from '../units/quantity'
import { STATIONS, type Station } from './stations'

/** Everything the line needs to know of one production, counted. */
export interface ProductionFacts {
  readonly plan: {
    readonly cameras: number
    readonly sizeBytes: number
    readonly cards: number
    /** Cards in cameras that are too slow, or hold clips that are not safe. */
    readonly tooSlow: number
    readonly notClear: number
    /** Cards too few. */
    readonly missing: number
  }
  /** Cards that lie in a reader and have not been looked at since they were inserted. */
  readonly cardsWaiting: number
  /** Cards that are being looked at for the first time. */
  readonly cardsLooking: number
  readonly loads: readonly LoadFacts[]
  readonly proxies: { readonly wanted: number; readonly made: number; readonly failed: number }
  readonly storage: { readonly sizeBytes: number; readonly tightVolume: string | undefined }
  readonly exports: { readonly made: number; readonly failed: number }
  readonly bags: { readonly written: number; readonly verified: number }
  /** Finished long ago: known from the books only, nothing is left to do. */
  readonly closed: boolean
}

export interface LoadFacts {
  readonly label: string
  readonly clips: number
  readonly stops: number
  readonly questions: number
  /** The marks of its copies, best first. */
  readonly marks: readonly Mark[]
  readonly clear: boolean
  readonly formatted: boolean
  /** Its card is in no reader, and was last seen with something that nobody looked at. */
  readonly unseen: boolean
  /** It is being looked at for the first time: nothing of it can be copied yet. */
  readonly looking: boolean
}

export interface StationStatus {
  readonly station: Station
  readonly state: 'empty' | 'open' | 'done'
  readonly figure: string
  readonly worry: string | undefined
}

export interface NextStep {
  readonly station: Station
  readonly sentence: string
}

/** One figure and at most one worry for each station. */
export function lineOf(facts: ProductionFacts): StationStatus[] {
  const { plan, loads, proxies, storage, exports, bags } = facts
  const clips = loads.reduce((sum, load) => sum + load.clips, 0)
  const stops = loads.reduce((sum, load) => sum + load.stops, 0)
  const questions = loads.reduce((sum, load) => sum + load.questions, 0)
  const weakest = weakestSecondMark(loads)
  const notLookedAt = facts.cardsWaiting + loads.filter(isUnseen).length
  const isThere = facts.cardsWaiting + facts.cardsLooking > 0
  // Once it is filmed, nobody looks for cards any more.
  const short = loads.length > 0 || facts.closed ? undefined : shortOf(plan)
  const status: Record<Station, Omit<StationStatus, 'station'>> = {
    shoot: {
      state: plan.cameras === 0 ? 'empty' : short === undefined ? 'done' : 'open',
      figure: plan.cameras === 0 ? 'no plan' : `${formatBytes(plan.sizeBytes)}, ${counted(plan.cards, 'card')}`,
      worry: short,
    },
    cards: {
      state: loads.length === 0 ? (isThere ? 'open' : 'empty') : notLookedAt + stops > 0 ? 'open' : 'done',
      figure: loads.length === 0 ? (isThere ? 'card in reader' : 'no card yet') : counted(clips, 'clip'),
      worry:
        stops > 0
          ? `${counted(stops, 'thing')} wrong`
          : notLookedAt > 0
            ? 'card not looked at'
            : questions > 0
              ? counted(questions, 'question')
              : undefined,
    },
    copies: {
      state: loads.length === 0 ? 'empty' : weakest >= 2 ? 'done' : 'open',
      figure: loads.length === 0 ? 'nothing to copy' : `twice ${MARK_WORDS[weakest]}`,
      worry:
        loads.length > 0 && weakest < 2
          ? `${counted(loads.filter((load) => secondMark(load) < 2).length, 'load')} not safe`
          : undefined,
    },
    proxies: {
      state: proxies.wanted === 0 ? 'empty' : proxies.made === proxies.wanted && proxies.failed === 0 ? 'done' : 'open',
      figure: proxies.wanted === 0 ? 'no clips' : `${proxies.made} of ${proxies.wanted}`,
      worry: proxies.failed > 0 ? `${counted(proxies.failed, 'proxy', 'proxies')} differ` : undefined,
    },
    storage: {
      state: storage.sizeBytes === 0 ? 'empty' : storage.tightVolume ? 'open' : 'done',
      figure: formatBytes(storage.sizeBytes),
      worry: storage.tightVolume ? `${storage.tightVolume} is tight` : undefined,
    },
    exports: {
      state: exports.made === 0 ? 'empty' : exports.failed > 0 ? 'open' : 'done',
      figure: exports.made === 0 ? 'none made' : counted(exports.made, 'deliverable'),
      worry:
        exports.failed > 0
          ? `${counted(exports.failed, 'file')} ${exports.failed === 1 ? 'fails' : 'fail'} a check`
          : undefined,
    },
    shelf: {
      state: bags.written === 0 ? 'empty' : bags.verified === bags.written ? 'done' : 'open',
      figure: bags.written === 0 ? 'nothing shelved' : counted(bags.written, 'bag'),
      worry: bags.written > bags.verified ? `${counted(bags.written - bags.verified, 'bag')} unproved` : undefined,
    },
  }
  return STATIONS.map((station) => ({ station, ...status[station] }))
}

const shortOf = ({ tooSlow, notClear, missing }: ProductionFacts['plan']): string | undefined =>
  tooSlow > 0
    ? `${counted(tooSlow, 'card')} too slow`
    : notClear > 0
      ? `${counted(notClear, 'card')} not clear`
      : missing > 0
        ? `${counted(missing, 'card')} too few`
        : undefined

const isUnseen = ({ unseen, formatted }: LoadFacts): boolean => unseen && !formatted
const secondMark = (load: LoadFacts): Mark => load.marks[1] ?? 0
const weakestSecondMark = (loads: readonly LoadFacts[]): Mark =>
  loads.reduce<Mark>((weakest, load) => (secondMark(load) < weakest ? secondMark(load) : weakest), 3)

/** What to do now: the first thing in the order of the work that is not safe, then the first that is not done. */
export function nextStep(facts: ProductionFacts): NextStep {
  if (facts.closed) return { station: 'storage', sentence: 'Finished. See where its originals are.' }
  const lone = facts.loads.find((load) => load.formatted && secondMark(load) < 2)
  if (lone)
    return {
      station: 'copies',
      sentence:
        (lone.marks[0] ?? 0) < 2
          ? `Look for the files of “${lone.label}”: its card is formatted, and no whole proved copy is left.`
          : `Copy “${lone.label}” to another drive: its card is formatted, and one proved copy is left.`,
    }
  const unsafe = facts.loads.find((load) => !load.formatted && !load.looking && secondMark(load) < 2)
  if (unsafe) return { station: 'copies', sentence: `Copy “${unsafe.label}” to two volumes and prove it.` }
  if (facts.cardsWaiting > 0) return { station: 'cards', sentence: 'Look at the card in the reader.' }
  if (facts.cardsLooking > 0) return { station: 'cards', sentence: 'The card in the reader is being looked at.' }
  const unseen = facts.loads.find(isUnseen)
  if (unseen)
    return {
      station: 'cards',
      sentence: `Put the card of “${unseen.label}” in again: it was last seen with something that is not copied.`,
    }
  const unplayed = facts.loads.find((load) => !load.formatted && load.marks[0] !== 3)
  if (unplayed) return { station: 'copies', sentence: `Play a clip of “${unplayed.label}” from a copy.` }
  const wrong = facts.loads.find((load) => !load.formatted && load.stops > 0)
  if (wrong) return { station: 'cards', sentence: `Settle what is wrong with “${wrong.label}”.` }
  if (facts.plan.cameras === 0 && facts.loads.length === 0)
    return { station: 'shoot', sentence: 'Plan a camera: bytes, cards and shutter follow.' }
  const short = shortOf(facts.plan)
  if (facts.loads.length === 0 && short) return { station: 'shoot', sentence: `Give every take its card: ${short}.` }
  if (facts.loads.length === 0) return { station: 'cards', sentence: 'Film, then put the card into the reader.' }
  if (facts.proxies.made < facts.proxies.wanted)
    return {
      station: 'proxies',
      sentence: `Make ${counted(facts.proxies.wanted - facts.proxies.made, 'proxy', 'proxies')}.`,
    }
  if (facts.exports.made === 0) return { station: 'exports', sentence: 'Frame a master for its first destination.' }
  if (facts.bags.written === 0) return { station: 'shelf', sentence: 'Put the deliverable on the shelf.' }
  return { station: 'storage', sentence: 'Everything is made and shelved. See what may be cleaned.' }
}
