import { MARK_WORDS, type Mark } from '../copies/mark'
import { counted, formatBytes } from '../units/quantity'
import type { LoadFacts, ProductionFacts } from './facts'
import { knownAnswers } from './known'
import { secondMark, shortOf } from './needs'
import { STATIONS, type Station } from './stations'

export interface StationStatus {
  readonly station: Station
  readonly state: 'empty' | 'open' | 'done'
  readonly figure: string
  readonly worry: string | undefined
}

const isTouched = (loads: readonly LoadFacts[]) => loads.some((load) => load.touched && !load.formatted)
const isFoundWrong = (loads: readonly LoadFacts[]) => loads.some((load) => load.foundWrong > 0)
const isAmiss = (loads: readonly LoadFacts[]) => loads.some((load) => load.amiss > 0)

function worryOfCopies(loads: readonly LoadFacts[], weakest: number): string | undefined {
  if (loads.length > 0 && weakest < 2)
    return `${counted(loads.filter((load) => secondMark(load) < 2).length, 'load')} not safe`
  if (isTouched(loads)) return 'card rewritten'
  if (isFoundWrong(loads)) return 'a clip found wrong'
  if (isAmiss(loads)) return 'a copy to repair'
  return loads.some((load) => load.perhapsOneDrive) ? 'perhaps one drive' : undefined
}

/** One figure and at most one worry for each station. */
export function lineOf(facts: ProductionFacts): StationStatus[] {
  const { plan, loads, proxies, storage, exports, bags } = facts
  const clips = loads.reduce((sum, load) => sum + load.clips, 0)
  const stops = loads.reduce((sum, load) => sum + load.stops, 0)
  const questions = loads.reduce((sum, load) => sum + load.questions, 0)
  const weakest = weakestSecondMark(loads)
  const notScanned = facts.cardsWaiting + loads.filter(isUnseen).length
  const looking = loads.filter((load) => load.looking).length
  const isSettled = !isTouched(loads) && !isFoundWrong(loads) && !isAmiss(loads)
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
      state: loads.length === 0 ? (isThere ? 'open' : 'empty') : notScanned + stops + looking > 0 ? 'open' : 'done',
      figure: loads.length === 0 ? (isThere ? 'card in reader' : 'no card yet') : counted(clips, 'clip'),
      worry:
        stops > 0
          ? `${counted(stops, 'thing')} wrong`
          : notScanned > 0
            ? 'card not scanned'
            : questions > 0
              ? counted(questions, 'question')
              : undefined,
    },
    copies: {
      state: loads.length === 0 ? 'empty' : weakest >= 2 && isSettled ? 'done' : 'open',
      figure:
        loads.length === 0 ? 'nothing to copy' : weakest === 0 ? 'not copied twice' : `twice ${MARK_WORDS[weakest]}`,
      worry: worryOfCopies(loads, weakest),
    },
    proxies: {
      state:
        proxies.wanted + proxies.without === 0
          ? 'empty'
          : proxies.made === proxies.wanted && proxies.failed === 0
            ? 'done'
            : 'open',
      figure:
        proxies.wanted > 0 ? `${proxies.made} of ${proxies.wanted}` : proxies.without > 0 ? 'none wanted' : 'no clips',
      worry:
        proxies.failed > 0
          ? `${counted(proxies.failed, 'proxy', 'proxies')} ${proxies.failed === 1 ? 'differs' : 'differ'}`
          : undefined,
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
  return STATIONS.map((station) => ({ station, ...knownFigure(facts, station, status[station]) }))
}

/** Of a production that the records alone know, what they say instead of “nothing yet”. */
function knownFigure(
  { closed, known, shootOn }: ProductionFacts,
  station: Station,
  status: Omit<StationStatus, 'station'>,
) {
  if (!closed || station === 'storage' || status.state !== 'empty') return status
  return { ...status, figure: knownAnswers(known, shootOn)[station].figure }
}

const isUnseen = ({ unseen, formatted }: LoadFacts): boolean => unseen && !formatted
const weakestSecondMark = (loads: readonly LoadFacts[]): Mark =>
  loads.reduce<Mark>((weakest, load) => (secondMark(load) < weakest ? secondMark(load) : weakest), 3)
