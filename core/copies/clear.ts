import { counted } from '../units/quantity'
import { deviceRelation, type DeviceRelation, type Standing } from './device'
import { markOf, type CopyFacts, type MarkRule } from './mark'

export type ClearPolicy = 'at-home-only' | 'reuse-on-the-job'

export interface ClearRules extends MarkRule {
  /** A proof older than this counts no more: of a volume that cannot be seen, or until a sample of it was read again. */
  readonly proofHours: number
}

export interface ClearQuestion {
  readonly copies: readonly CopyFacts[]
  /** Other cards with the same content that nobody said were formatted; none where a twin itself is asked about. */
  readonly twins: readonly CopyFacts[]
  /** The twin that is asked about, where it is not the load’s own card: what was copied was read from that one. */
  readonly askedTwin: CopyFacts | undefined
  /** Something was copied from a twin: then that is not known to be what lies on the load’s own card. */
  readonly readFromTwin: boolean
  readonly policy: ClearPolicy
  readonly rules: ClearRules
  /** Whether the person says they are at their own desk now. */
  readonly atHome: boolean
  readonly cardInReader: boolean
  /** How the card in the reader differs from what was looked at, in words; it may be another card of the same names. */
  readonly cardDifference: string | undefined
  /** What the card stood on when it was last listed. */
  readonly cardStanding: Standing
  /** Pairs of volumes of which the person said that they are different drives. */
  readonly saidDifferent: readonly (readonly [string, string])[]
  /** Files on the card that were not copied because they are neither file nor folder. */
  readonly filesLeftOut: number
  /** Findings of the card that are wrong and that nobody has settled. */
  readonly thingsWrong: number
  readonly formattedAt: string | undefined
  /** Milliseconds since 1970. */
  readonly now: number
  /** False when nobody could look at the card and the copies just now. */
  readonly looked: boolean
}

export interface Reason {
  readonly met: boolean
  readonly sentence: string
}

export interface ClearAnswer {
  readonly clear: boolean
  readonly sentence: string
  readonly reasons: readonly Reason[]
  readonly caution: string
  /** Volumes of which a sample must be read before the answer can be yes. */
  readonly sampleFirst: readonly string[]
}

const namesOf = (copies: readonly CopyFacts[], joint = ' and ') => copies.map((copy) => copy.volumeName).join(joint)

/**
 * May this card be formatted, in the camera, by the person? Common practice, no source: two verified copies on two
 * different drives, neither being the card, one spot-played, at home. The policy *reuse on the job* drops the last and
 * asks that the card was out. A copy counts as it is listed now; one that cannot be seen counts for a while after its
 * proof, and at least one must be seen.
 */
export function clearToFormat(question: ClearQuestion): ClearAnswer {
  if (question.formattedAt) {
    const sentence = 'You said this card was formatted. The next scan starts a new load.'
    return { clear: false, sentence, reasons: [], caution: '', sampleFirst: [] }
  }
  const whole = question.copies.filter((copy) => markOf(copy, question.rules) >= 2)
  const stale = whole.filter((copy) => !isFresh(copy, question))
  const twin = countingTwin(question)
  const volumes = whole.filter((copy) => !stale.includes(copy))
  const counting = twin && volumes.length < 2 ? [...volumes, twin] : volumes
  const reasons = [
    // What is wrong comes before what is missing: it says why a copy does not count.
    ...lookReasons(question),
    ...troubleReasons(question),
    ...copyReasons(question, counting, stale),
    ...twinReasons(question, counting),
    ...placeReasons(question),
    ...cardReasons(question),
  ]
  const open = reasons.filter((reason) => !reason.met)
  const clear = open.length === 0
  return {
    clear,
    sentence: clear
      ? 'Yes: this card may be formatted, in the camera.'
      : `Not yet: ${lowerFirst(open[0]?.sentence ?? '')}`,
    reasons,
    caution: clear
      ? `Do it in the camera, rested, with this screen open. Formatting cannot be undone.${twin && counting.includes(twin) ? ` Keep ${twin.volumeName} as it is: it is one of the two copies.` : ''}`
      : 'Do not format, delete or rewrite when exhausted: this list is still here in the morning.',
    sampleFirst: stale.filter((copy) => copy.connected).map((copy) => copy.volumeId),
  }
}

/**
 * The twin that is one of the two copies: read whole, in a reader now, and never more than one, since a card is made to be
 * written over. Common practice, no source.
 */
function countingTwin({ twins, rules, ...question }: ClearQuestion): CopyFacts | undefined {
  return twins.find(
    (twin) => twin.connected && markOf(twin, rules) >= 2 && isFresh(twin, { ...question, twins, rules }),
  )
}

/** Read within the time that the rule allows: every file of it, or a sample since. */
function isFresh(copy: CopyFacts, { now, rules }: ClearQuestion): boolean {
  const readAt = Math.max(timeOf(copy.firstVerifiedAt), timeOf(copy.readAgainAt))
  return now - readAt <= rules.proofHours * 3_600_000
}

const timeOf = (at: string | undefined) => (at === undefined ? 0 : Date.parse(at))

function ageOf(copy: CopyFacts, now: number): string {
  const hours = Math.floor((now - Math.max(timeOf(copy.firstVerifiedAt), timeOf(copy.readAgainAt))) / 3_600_000)
  if (hours < 1) return 'less than an hour ago'
  return hours < 48 ? `${counted(hours, 'hour')} ago` : `${Math.floor(hours / 24)} days ago`
}

const oldest = (copies: readonly [CopyFacts, ...CopyFacts[]]): CopyFacts =>
  copies.reduce((old, copy) => (timeOf(copy.firstVerifiedAt) < timeOf(old.firstVerifiedAt) ? copy : old))

const isSome = <T>(items: readonly T[]): items is readonly [T, ...T[]] => items.length > 0

function copyReasons(question: ClearQuestion, counting: readonly CopyFacts[], stale: readonly CopyFacts[]): Reason[] {
  const { now, rules } = question
  const described = counting.map((copy) =>
    copy.connected ? copy.volumeName : `${copy.volumeName}, not seen now, proved ${ageOf(copy, now)}`,
  )
  const how = counting.some((copy) => copy.filesVerified < copy.filesWanted)
    ? 'read back, perhaps from memory, which your rule accepts'
    : 'read back from the medium'
  const reasons: Reason[] = [
    {
      met: counting.length >= 2,
      sentence:
        counting.length === 0
          ? 'No volume holds a verified copy yet; two are needed.'
          : `${counted(counting.length, 'verified copy', 'verified copies')} (${described.join('; ')}), ${how}; two are needed.`,
    },
  ]
  const short = counting.length < 2
  const seen = stale.filter((copy) => copy.connected)
  if (isSome(seen))
    reasons.unshift({
      met: !short,
      sentence: `${namesOf(seen)} ${seen.length === 1 ? 'was' : 'were'} proved ${ageOf(oldest(seen), now)}: read a sample of ${seen.length === 1 ? 'it' : 'them'} first.`,
    })
  const unseen = stale.filter((copy) => !copy.connected)
  if (unseen.length > 0)
    reasons.push({
      met: !short,
      sentence: `${namesOf(unseen)} cannot be seen and ${unseen.length === 1 ? 'was' : 'were'} proved more than ${counted(rules.proofHours, 'hour')} ago: connect ${unseen.length === 1 ? 'it' : 'them'}.`,
    })
  if (counting.length > 0 && !counting.some((copy) => copy.connected))
    reasons.unshift({ met: false, sentence: `No copy can be seen now: connect ${namesOf(counting, ' or ')}.` })
  if (counting.length >= 2) reasons.push(...deviceReasons(question, counting))
  return reasons
}

/** What is said of cards with the same content, while they are wanted as copies. */
function twinReasons({ twins, rules, now }: ClearQuestion, counting: readonly CopyFacts[]): Reason[] {
  const met = counting.length >= 2
  return twins
    .filter((twin) => !met || counting.includes(twin))
    .map((twin) => {
      const name = upperFirst(twin.volumeName)
      if (counting.includes(twin))
        return {
          met: true,
          sentence: `${name} counts as a copy while it lies in a reader: read whole ${ageOf(twin, now)}, equal to what was copied.`,
        }
      if (twin.filesMismatched > 0)
        return { met, sentence: `${name} is not what was copied: ${counted(twin.filesMismatched, 'file')} differ.` }
      if (!twin.connected)
        return { met, sentence: `${name} is in no reader now: it counts as a copy only where it can be seen.` }
      if (markOf(twin, rules) === 1)
        return { met, sentence: `${name} could only be read through memory, perhaps not from the card.` }
      const copied = markOf(twin, rules) >= 2
      return {
        met,
        sentence: copied
          ? `${name} was read ${ageOf(twin, now)}: read it again, and it counts as a copy.`
          : `${name} holds the same files, but only samples of it were read: read it whole, and it counts as a copy.`,
      }
    })
}

const upperFirst = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** How two copies lie to each other, with what the person said where the system cannot know. */
function relationOf(question: ClearQuestion, a: CopyFacts, b: CopyFacts): DeviceRelation {
  const relation = deviceRelation(a, b)
  if (relation !== 'unknown') return relation
  const said = question.saidDifferent.some((pair) => pair.includes(a.volumeId) && pair.includes(b.volumeId))
  return said ? 'different' : 'unknown'
}

/** Two copies on one device are one copy, and a copy on the card’s own device is none. */
function deviceReasons(question: ClearQuestion, counting: readonly CopyFacts[]): Reason[] {
  const onCard = counting.filter((copy) => deviceRelation(copy, question.cardStanding) === 'same')
  const away = counting.filter((copy) => !onCard.includes(copy))
  const pairs = away.flatMap((a, at) => away.slice(at + 1).map((b) => ({ a, b, relation: relationOf(question, a, b) })))
  const apart = pairs.some(({ relation }) => relation === 'different')
  const reasons: Reason[] = []
  if (onCard.length > 0)
    reasons.push({
      met: apart,
      sentence: `${namesOf(onCard)} ${onCard.length === 1 ? 'lies' : 'lie'} on the same drive as the card: that is no copy.`,
    })
  for (const { a, b, relation } of pairs) {
    if (relation === 'same')
      reasons.push({
        met: apart,
        sentence: `${a.volumeName} and ${b.volumeName} lie on the same drive: they count as one copy.`,
      })
    if (relation === 'unknown')
      reasons.push({
        met: apart,
        sentence: `The system cannot tell whether ${a.volumeName} and ${b.volumeName} are different drives: say so if you know, or use another volume.`,
      })
  }
  return reasons
}

function placeReasons(question: ClearQuestion): Reason[] {
  const played = question.copies.filter((copy) => markOf(copy, question.rules) === 3)
  return [
    {
      met: played.length > 0,
      sentence:
        played.length > 0 ? `A clip was played from ${namesOf(played)}.` : 'No clip has been played from a copy yet.',
    },
    question.policy === 'at-home-only'
      ? {
          met: question.atHome,
          sentence: question.atHome
            ? 'You are at your own desk.'
            : 'You are away. Cards are formatted at home only; change that in the policy if you must.',
        }
      : {
          met: !question.cardInReader,
          sentence: question.cardInReader
            ? 'The card is still in the reader: take it out and play a clip from a copy.'
            : 'The card is out of the reader.',
        },
  ]
}

function troubleReasons({ copies, rules }: ClearQuestion): Reason[] {
  const reasons: Reason[] = []
  const verified = copies.filter((copy) => markOf(copy, rules) >= 2).length
  const troubled = copies.filter((copy) => copy.filesMismatched + copy.filesInConflict > 0)
  if (troubled.length > 0)
    reasons.push({
      met: false,
      sentence: `${namesOf(troubled, ', ')}: some files differ from the card. Settle them first.`,
    })
  for (const copy of copies.filter((one) => one.filesMissing > 0 && !one.mirrorLost)) {
    const files = counted(copy.filesMissing, 'file')
    const are = copy.filesMissing === 1 ? 'is' : 'are'
    reasons.push({
      met: verified >= 2,
      sentence: `${copy.volumeName}: ${files} ${are} gone or no longer as ${copy.filesMissing === 1 ? 'it was' : 'they were'} proved. Copy again.`,
    })
  }
  const lost = copies.filter((copy) => copy.mirrorLost)
  if (lost.length > 0)
    reasons.push({
      met: verified >= 2,
      sentence: `${namesOf(lost, ', ')}: the copy was there and is gone. Copy again, or find out who moved it.`,
    })
  const memory = copies.filter((copy) => markOf(copy) === 1 && copy.filesVerifiedFromCache > 0)
  if (memory.length > 0 && !rules.acceptMemory)
    reasons.push({
      met: verified >= 2,
      sentence: `${namesOf(memory)} could only be read back through memory, perhaps not from the medium: that counts as copied.`,
    })
  return reasons
}

/** Whether the very bytes of the card that is asked about were read, where there are two of it. */
function twinAsked({ askedTwin, readFromTwin, rules }: ClearQuestion): Reason[] {
  if (!askedTwin)
    return readFromTwin
      ? [{ met: false, sentence: 'What was copied was read from its twin; of this card only samples were. Keep it.' }]
      : []
  if (markOf(askedTwin, rules) >= 2)
    return [{ met: true, sentence: 'Every file of this card was read, and is what was copied.' }]
  const sentence =
    askedTwin.filesMismatched > 0
      ? `This card is not what was copied: ${counted(askedTwin.filesMismatched, 'file')} differ. Keep it.`
      : 'What was copied was read from its twin; of this card only samples were. Read it whole first.'
  return [{ met: false, sentence }]
}

function lookReasons(question: ClearQuestion): Reason[] {
  const reasons: Reason[] = []
  if (!question.looked)
    reasons.push({ met: false, sentence: 'Nobody could look at the card and the copies just now. Wait a moment.' })
  if (question.cardDifference !== undefined) reasons.push({ met: false, sentence: question.cardDifference })
  reasons.push(...twinAsked(question))
  return reasons
}

function cardReasons(question: ClearQuestion): Reason[] {
  const reasons: Reason[] = []
  if (question.thingsWrong > 0)
    reasons.push({
      met: false,
      sentence: `${counted(question.thingsWrong, 'thing')} on the card ${question.thingsWrong === 1 ? 'is' : 'are'} wrong and not settled: see Cards.`,
    })
  if (question.filesLeftOut > 0)
    reasons.push({
      met: true,
      sentence: `${counted(question.filesLeftOut, 'link, device entry or locked folder', 'links, device entries or locked folders')} on the card ${question.filesLeftOut === 1 ? 'is' : 'are'} listed but not copied.`,
    })
  return reasons
}

/** Sentences that begin with the name of a volume keep it as it is. */
const lowerFirst = (text: string) =>
  /^(No|Nobody|You|The|A|What|This) /.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text
