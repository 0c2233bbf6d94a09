import type { Mark } from '../copies/mark'
import { counted } from '../units/quantity'
import type { LoadFacts, ProductionFacts } from './facts'
import type { Station } from './stations'

/**
 * How much it matters, the worst first: footage may be lost; it is not safe yet; somebody has to say something; it is
 * left to do; it is being done.
 */
export const GRADES = ['danger', 'unsafe', 'asks', 'todo', 'under-way'] as const
export type Grade = (typeof GRADES)[number]

/** One thing that a production needs, with the station where it is done. */
export interface Need {
  readonly grade: Grade
  readonly station: Station
  /** The page of the station where it is done, when that is not its first. */
  readonly desk?: string
  /** What is to be done there, where it is not the first thing of that page. */
  readonly what?: 'names'
  readonly sentence: string
}

/**
 * Everything that a production needs, ranked: what is unsafe before what is asked, and that before what is left to do.
 */
export function needs(facts: ProductionFacts): Need[] {
  const all = [...safety(facts), ...answers(facts), ...work(facts)]
  return all.sort((a, b) => GRADES.indexOf(a.grade) - GRADES.indexOf(b.grade))
}

/** The mark of the second best copy of a load. */
export const secondMark = (load: LoadFacts): Mark => load.marks[1] ?? 0

const say = (grade: Grade, station: Station, sentence: string): Need => ({ grade, station, sentence })

/**
 * What is not safe of loads, the worst first: on one drive or none, not scanned to the end, or with something that
 * nobody saw.
 */
function unsafeLoads(loads: readonly LoadFacts[], isLookedAt: boolean): Need[] {
  const looking = loads.find((load) => load.looking)
  return [
    ...loads
      .filter((load) => load.formatted && secondMark(load) < 2)
      .map((load) =>
        say(
          'danger',
          'copies',
          (load.marks[0] ?? 0) < 2
            ? `Find the files of “${load.label}”: its card is formatted, and no whole proved copy is left.`
            : `Copy “${load.label}” to another drive: its card is formatted, and ` +
                `${load.oneDrive ? 'its proved copies lie on one drive' : 'one proved copy is left'}.`,
        ),
      ),
    ...loads
      .filter((load) => load.foundWrong > 0)
      .map((load) =>
        say(
          'unsafe',
          'copies',
          `Settle what is wrong with ${counted(load.foundWrong, 'clip')} of “${load.label}”: play another copy.`,
        ),
      ),
    ...loads
      .filter((load) => load.amiss > 0 && load.foundWrong === 0)
      .map((load) =>
        say(
          'unsafe',
          'copies',
          `Repair ${counted(load.amiss, 'file')} of “${load.label}”: ${load.amiss === 1 ? 'it is' : 'they are'} not as proved.`,
        ),
      ),
    ...loads
      // What is wrong comes first: without that it may be proved twice.
      .filter(
        (load) => !load.formatted && !load.looking && load.foundWrong === 0 && load.amiss === 0 && secondMark(load) < 2,
      )
      .map((load) =>
        say(
          'unsafe',
          'copies',
          load.oneDrive
            ? `Copy “${load.label}” to another drive: two copies on one drive, or on that of the card, count as one.`
            : `Copy “${load.label}” to two volumes and prove it.`,
        ),
      ),
    ...(looking && !isLookedAt ? [say('unsafe', 'cards', `Scan the card of “${looking.label}” to the end.`)] : []),
    ...loads
      .filter((load) => load.unseen && !load.formatted)
      .map((load) =>
        say(
          'unsafe',
          'cards',
          `Put the card of “${load.label}” in again: it was last seen with something that is not copied.`,
        ),
      ),
  ]
}

const isCopied = ({ marks }: LoadFacts): boolean => (marks[0] ?? 0) > 0

function safety({ loads, cardsWaiting, cardsLooking }: ProductionFacts): Need[] {
  const ofLoads = unsafeLoads(loads, cardsLooking > 0)
  const [copies, cards] = [ofLoads.filter(isOfCopies), ofLoads.filter((need) => !isOfCopies(need))]
  const unplayed = loads
    .filter((load) => !load.formatted && !load.looking && isCopied(load) && load.marks[0] !== 3)
    .map((load) => say('unsafe', 'copies', `Play a clip of “${load.label}” from a copy.`))
  const touched = loads
    .filter((load) => load.touched && !load.formatted)
    .map((load) => say('unsafe', 'copies', `Read the card of “${load.label}” whole: files on it were rewritten.`))
  return [
    ...copies,
    ...(cardsWaiting > 0 ? [say('unsafe', 'cards', 'Take in the card in the reader.')] : []),
    ...(cardsLooking > 0 ? [say('unsafe', 'cards', 'The card in the reader is being scanned.')] : []),
    ...cards,
    ...touched,
    ...unplayed,
  ]
}

const isOfCopies = ({ station }: Need) => station === 'copies'

/**
 * What is not safe anywhere but in those loads that are told of already, the worst first. Cards that lie in readers
 * tell of themselves.
 */
export const unsafeElsewhere = (facts: ProductionFacts, told: ReadonlySet<string>): Need[] =>
  facts.closed
    ? []
    : unsafeLoads(
        facts.loads.filter((load) => !told.has(load.id)),
        false,
      )

/** What somebody has to decide, or what was made and is not right. */
function answers({ loads, proxies, exports, bags, storage }: ProductionFacts): Need[] {
  const asks = (station: Station, sentence: string): Need => say('asks', station, sentence)
  const unproved = bags.written - bags.verified
  return [
    ...loads
      .filter((load) => load.stops > 0)
      .map((load) => asks('cards', `Settle what is wrong with “${load.label}”.`)),
    ...loads
      .filter((load) => load.perhapsOneDrive)
      .map((load) => asks('copies', `Say whether the copies of “${load.label}” lie on different drives.`)),
    ...(proxies.failed > 0
      ? [
          asks(
            'proxies',
            `Make ${counted(proxies.failed, 'proxy', 'proxies')} again, or edit without: not equal to the original.`,
          ),
        ]
      : []),
    ...(exports.failed > 0
      ? [asks('exports', `Render ${counted(exports.failed, 'file')} again: a check fails. Do not upload it.`)]
      : []),
    ...(storage.tightVolume ? [asks('storage', `Make room on ${storage.tightVolume}: it is tight.`)] : []),
    ...(unproved > 0
      ? [asks('shelf', `Write ${counted(unproved, 'bag')} again on another drive: it was never read back.`)]
      : []),
  ]
}

/** What comes next in the order of the work. */
function work({ plan, loads, proxies, exports, bags, closed, review }: ProductionFacts): Need[] {
  const todo = (station: Station, sentence: string): Need => say('todo', station, sentence)
  const shelf = [
    ...(exports.unshelved > 0
      ? [
          todo(
            'shelf',
            `Put ${exports.unshelved === 1 ? 'the deliverable' : `${exports.unshelved} deliverables`} on the shelf.`,
          ),
        ]
      : []),
    ...(bags.single > 0
      ? [todo('shelf', `Put ${counted(bags.single, 'film')} on a second drive: one drive can fail.`)]
      : []),
  ]
  if (closed) return shelf
  if (loads.length === 0) {
    const short = shortOf(plan)
    if (plan.cameras === 0) return [todo('shoot', 'Plan a camera: bytes, cards and shutter follow.')]
    if (short) return [todo('shoot', `Give every take its card: ${short}.`)]
    return [todo('cards', 'Film, then put the card into the reader.')]
  }
  const open = proxies.wanted - proxies.made
  const clear = loads.filter((load) => load.clear && !load.formatted)
  return [
    ...(open > 0 ? [todo('proxies', `Make ${counted(open, 'proxy', 'proxies')}.`)] : []),
    ...(proxies.unchecked > 0
      ? [
          todo(
            'proxies',
            `Compare the sound of ${counted(proxies.unchecked, 'proxy', 'proxies')} with that of the ` +
              `original${proxies.unchecked === 1 ? '' : 's'}.`,
          ),
        ]
      : []),
    ...(review.decided || proxies.wanted + proxies.without === 0
      ? []
      : [{ ...todo('cards', 'Review the clips: keep the good ones.'), desk: 'review' }]),
    ...selected(review, exports.made > 0),
    ...(exports.made === 0 ? [todo('exports', 'Frame a master for its first destination.')] : []),
    ...shelf,
    ...loads
      .filter((load) => load.questions > 0)
      .map((load) =>
        todo(
          'cards',
          `Answer ${load.questions === 1 ? 'the question' : `the ${load.questions} questions`} about “${load.label}”.`,
        ),
      ),
    ...clear.map((load) =>
      todo('copies', `Ask at Copies whether the card of “${load.label}” may be formatted, and say so when it is done.`),
    ),
  ]
}

/** Names and the sorted view: for the edit, and after it only where somebody began with them. */
function selected({ named, unnamed, placed, unplaced }: ProductionFacts['review'], isEdited: boolean): Need[] {
  const todo = (desk: string, sentence: string): Need => ({ ...say('todo', 'cards', sentence), desk })
  return [
    ...(unnamed > 0 && (named > 0 || (placed === 0 && !isEdited))
      ? [
          {
            ...todo('review', `Name ${counted(unnamed, named > 0 ? 'more kept clip' : 'kept clip')} for the edit.`),
            what: 'names' as const,
          },
        ]
      : []),
    ...(unplaced > 0 && (placed > 0 || !isEdited)
      ? [
          todo(
            'sorted',
            `Put ${counted(unplaced, placed > 0 ? 'more clip' : 'clip')} into the sorted view for the edit.`,
          ),
        ]
      : []),
  ]
}

/** What the plan lacks; `undefined` when every take has its card. */
export const shortOf = ({ tooSlow, notClear, missing }: ProductionFacts['plan']): string | undefined =>
  tooSlow > 0
    ? `${counted(tooSlow, 'card')} too slow`
    : notClear > 0
      ? `${counted(notClear, 'card')} not clear`
      : missing > 0
        ? `${missing} more ${missing === 1 ? 'card is' : 'cards are'} needed`
        : undefined

/** What is said of a production that needs nothing. */
const NOTHING: Omit<Need, 'grade'> = {
  station: 'shelf',
  sentence: 'Everything is proved, made and shelved twice.',
}

export interface NextStep extends Pick<Need, 'station' | 'desk' | 'what' | 'sentence'> {
  /** `undefined` when nothing is left. */
  readonly grade: Grade | undefined
}

/** What to do now: the first of everything that is needed. */
export function nextStep(facts: ProductionFacts): NextStep {
  const [first] = needs(facts)
  if (first) return first
  if (facts.closed) return { station: 'storage', sentence: 'Finished: nothing is left to do.', grade: undefined }
  return { ...NOTHING, grade: undefined }
}
