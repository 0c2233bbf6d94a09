import { counted, formatBytes, inWords } from '../units/quantity'
import { marksApart } from './apart'
import { isImage } from './device'
import { ageOf, isFresh, isOlderThan, timeOf } from './age'
import { knownReasons, backupCardAsked, backupCardReasons } from './cardReasons'
import type { ClearAnswer, ClearQuestion, Reason } from './clearQuestion'
import { markOf, type CopyFacts } from './mark'
import {
  foundWrongReasons,
  mostApart,
  offCard,
  pairsOf,
  placeReasons,
  playedReasons,
  spreadReasons,
  suffices,
  toRead,
} from './ruleReasons'

export type { ClearAnswer, ClearQuestion } from './clearQuestion'

const namesOf = (copies: readonly CopyFacts[], joint = ' and ') => copies.map((copy) => copy.volumeName).join(joint)

/**
 * May this card be formatted, in the camera, by the person? Common practice, no source: verified copies on different
 * drives, none being the card, and some of it played; how many of each, and where the person is, says the rule
 * (`rule.ts`). A copy counts as it is listed now; one that cannot be seen counts for a while after its proof, and at
 * least one must be seen.
 */
export function clearToFormat(question: ClearQuestion): ClearAnswer {
  if (question.formattedAt) return { clear: false, ...afterFormat(question), reasons: [], sampleFirst: [] }
  if (question.saidButThere !== undefined)
    return {
      clear: false,
      sentence: `Was this card formatted? Everything is still on it, in ${question.saidButThere}.`,
      reasons: [],
      caution:
        'You said so. Take it back, or format it in the camera and scan it again. Perhaps another card ' +
        'was formatted: look at what lies beside it first.',
      sampleFirst: [],
    }
  const whole = question.copies.filter((copy) => markOf(copy, question.rule) >= 2)
  const stale = whole.filter((copy) => !isFresh(copy, question))
  const backup = countingBackupCard(question)
  const volumes = whole.filter((copy) => !stale.includes(copy))
  // A backup card counts where the volumes alone do not suffice.
  const counting = backup && !suffices(question, volumes) ? [...volumes, backup] : volumes
  const reasons = [
    // What is wrong comes before what is missing: it says why a copy does not count.
    ...scanReasons(question),
    ...troubleReasons(question),
    ...copyReasons(question, counting, stale),
    ...backupCardReasons(question, counting),
    ...spreadReasons(question, offCard(question, counting)),
    ...playedReasons(question),
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
      ? 'Do it in the camera, rested, with this screen open. Formatting cannot be ' +
        `undone.${backup && counting.includes(backup) ? ` Keep ${backup.volumeName} as it is: it is one of the copies.` : ''}`
      : 'Do not format, delete or rewrite when you are very tired: this list is still here in the morning.',
    sampleFirst: stale.filter((copy) => copy.connected && !isOlderThan(copy, question)).map((copy) => copy.volumeId),
  }
}

/**
 * The answer before card and drives were scanned: a no holds, a yes waits for the scan of `places`, by their names.
 * Returns the answer, and what is being scanned where it waits.
 */
export function beforeScan(answer: ClearAnswer, places: readonly string[]): { clear: ClearAnswer; checking?: string } {
  if (!answer.clear) return { clear: answer }
  const checking = `Checking ${places.length > 0 ? new Intl.ListFormat('en-GB').format(places) : 'what is connected'} now …`
  return {
    checking,
    clear: {
      clear: false,
      sentence: checking,
      reasons: [],
      caution: 'Leave the card as it is until the answer is there.',
      sampleFirst: [],
    },
  }
}

/** Once the card is formatted its copies are all there is. */
function afterFormat(question: ClearQuestion): Pick<ClearAnswer, 'sentence' | 'caution'> {
  const whole = question.copies.filter((copy) => markOf(copy, question.rule) >= 2)
  const [only] = whole
  if (only === undefined)
    return {
      sentence: 'This card was formatted, as you said, and no whole proved copy is left.',
      caution:
        'Connect every drive that may hold its files, and read what is there again. Film nothing on the ' +
        'card: files of a formatted card can often be brought back by those who do that for a living.',
    }
  if (whole.length === 1 && countingBackupCard(question) === undefined)
    return {
      sentence:
        'This card was formatted, as you said, and one proved copy is all there is: on ' +
        `${only.volumeName}. Make another.`,
      caution: `Copy from ${only.volumeName} to another drive${only.connected ? '' : ', once it is connected'}.`,
    }
  if (countingBackupCard(question) === undefined && marksApart(question).oneDrive)
    return {
      sentence:
        'This card was formatted, as you said, and its proved copies lie on one drive: on ' +
        `${namesOf(whole)}. Make another.`,
      caution: 'Copy it to another drive: what breaks that one takes all of them along.',
    }
  return { sentence: 'You said this card was formatted. The next scan starts a new load.', caution: '' }
}

/**
 * The backup card that is one of the two copies: read whole, in a reader now, and never more than one, since a card is
 * made to be written over. Common practice, no source.
 */
function countingBackupCard({ backupCards, rule, ...question }: ClearQuestion): CopyFacts | undefined {
  return backupCards.find(
    (backup) => backup.connected && markOf(backup, rule) >= 2 && isFresh(backup, { ...question, backupCards, rule }),
  )
}

const oldest = (copies: readonly [CopyFacts, ...CopyFacts[]]): CopyFacts =>
  copies.reduce((old, copy) => (timeOf(copy.firstVerifiedAt) < timeOf(old.firstVerifiedAt) ? copy : old))

const isSome = <T>(items: readonly T[]): items is readonly [T, ...T[]] => items.length > 0

function copyReasons(question: ClearQuestion, counting: readonly CopyFacts[], stale: readonly CopyFacts[]): Reason[] {
  const { now, rule } = question
  const needed = `${inWords(rule.copies)} are needed`
  const described = counting.map((copy) =>
    copy.connected ? copy.volumeName : `${copy.volumeName}, not seen now, proved ${ageOf(copy, now)}`,
  )
  const how = counting.some((copy) => copy.filesVerified < copy.filesWanted)
    ? 'read back, perhaps from memory, which your rule accepts'
    : 'read back from the medium'
  const reasons: Reason[] = [
    {
      met: counting.length >= rule.copies,
      sentence:
        counting.length === 0
          ? `No volume holds a verified copy yet; ${needed}.`
          : `${counted(counting.length, 'verified copy', 'verified copies')} (${described.join('; ')}), ` +
            `${how}; ${needed}.`,
    },
  ]
  const short = counting.length < rule.copies
  const isOlder = (copy: CopyFacts) => isOlderThan(copy, question)
  const before = stale.filter(isOlder)
  if (isSome(before))
    reasons.unshift({
      met: !short,
      sentence:
        'Yendra’s records were restored from an older backup: what was found out since is missing. Read ' +
        `${namesOf(before)} again, whole, before ${before.length === 1 ? 'it counts' : 'they count'}.`,
    })
  const seen = stale.filter((copy) => copy.connected && !isOlder(copy))
  if (isSome(seen))
    reasons.unshift({
      met: !short,
      sentence:
        `${namesOf(seen)} ${seen.length === 1 ? 'was' : 'were'} proved ${ageOf(oldest(seen), now)}: read ` +
        `a sample of ${seen.length === 1 ? 'it' : 'them'} first.`,
    })
  const unseen = stale.filter((copy) => !copy.connected && !isOlder(copy))
  if (unseen.length > 0)
    reasons.push({
      met: !short,
      sentence:
        `${namesOf(unseen)} cannot be seen and ${unseen.length === 1 ? 'was' : 'were'} proved more than ` +
        `${counted(rule.proofHours, 'hour')} ago: connect ${unseen.length === 1 ? 'it' : 'them'}.`,
    })
  if (counting.length > 0 && !counting.some((copy) => copy.connected))
    reasons.unshift({ met: false, sentence: `No copy can be seen now: connect ${namesOf(counting, ' or ')}.` })
  if (counting.length >= 2) reasons.push(...deviceReasons(question, counting))
  if (counting.some((copy) => copy.device?.disks.some(isImage)))
    reasons.push({ met: true, sentence: 'Disk images count as drives of their own here, for a trial.' })
  return reasons
}

/** Two copies on one device are one copy, and a copy on the card’s own device is none. */
function deviceReasons(question: ClearQuestion, counting: readonly CopyFacts[]): Reason[] {
  const away = offCard(question, counting)
  const onCard = counting.filter((copy) => !away.includes(copy))
  const apart = mostApart(question, away) >= question.rule.devices
  const reasons: Reason[] = []
  if (onCard.length > 0)
    reasons.push({
      met: apart,
      sentence: `${namesOf(onCard)} ${onCard.length === 1 ? 'lies' : 'lie'} on the same drive as the card: that is no copy.`,
    })
  for (const { a, b, relation } of pairsOf(question, away)) {
    if (relation === 'same')
      reasons.push({
        met: apart,
        sentence: `${a.volumeName} and ${b.volumeName} lie on the same drive: they count as one copy.`,
      })
    if (relation === 'unknown')
      reasons.push({
        met: apart,
        sentence:
          `The system cannot tell whether ${a.volumeName} and ${b.volumeName} are different drives: say so ` +
          'if you know, or use another volume.',
      })
  }
  return reasons
}

function troubleReasons({ copies, rule }: ClearQuestion): Reason[] {
  const reasons: Reason[] = []
  const verified = copies.filter((copy) => markOf(copy, rule) >= 2).length
  const isEnough = verified >= rule.copies
  reasons.push(...foundWrongReasons(copies))
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
      met: isEnough,
      sentence:
        `${copy.volumeName}: ${files} ${are} gone or no longer as ` +
        `${copy.filesMissing === 1 ? 'it was' : 'they were'} proved. Copy again.`,
    })
  }
  for (const copy of copies.filter((one) => one.filesDoubted > toRead(one) && !one.mirrorLost))
    reasons.push({
      met: isEnough,
      sentence:
        `${copy.volumeName}: ${counted(copy.filesDoubted, 'file')} (${formatBytes(copy.doubtedBytes)}) ` +
        `may have been replaced since ${copy.filesDoubted === 1 ? 'it was' : 'they were'} proved. ` +
        `${copy.connected ? `${copy.filesDoubted === 1 ? 'It is' : 'They are'} being read again by ${copy.filesDoubted === 1 ? 'itself' : 'themselves'}.` : 'Connect it: then they are read again.'}`,
    })
  for (const copy of copies.filter((one) => one.mounted.length > 0))
    reasons.push({
      met: isEnough,
      sentence:
        `${copy.volumeName}: another file system is mounted inside the copy, at “${copy.mounted[0]}”. ` +
        'What lies there is on another drive and counts for nothing here.',
    })
  const lost = copies.filter((copy) => copy.mirrorLost)
  if (lost.length > 0)
    reasons.push({
      met: isEnough,
      sentence: `${namesOf(lost, ', ')}: the copy was there and is gone. Copy again, or find out who moved it.`,
    })
  const memory = copies.filter((copy) => markOf(copy) === 1 && copy.filesVerifiedFromCache > 0)
  if (memory.length > 0 && !rule.acceptMemory)
    reasons.push({
      met: isEnough,
      sentence:
        `${namesOf(memory)} could only be read back through memory, perhaps not from the medium: that ` +
        'counts as copied.',
    })
  return reasons
}

function scanReasons(question: ClearQuestion): Reason[] {
  const reasons: Reason[] = []
  if (!question.looked)
    reasons.push({ met: false, sentence: 'The card and the copies could not be read just now. Wait a moment.' })
  if (question.cardDifference !== undefined) reasons.push({ met: false, sentence: question.cardDifference })
  reasons.push(...knownReasons(question), ...backupCardAsked(question))
  return reasons
}

function cardReasons(question: ClearQuestion): Reason[] {
  const reasons: Reason[] = []
  if (question.thingsWrong > 0)
    reasons.push({
      met: false,
      sentence:
        `${counted(question.thingsWrong, 'thing')} on the card ` +
        `${question.thingsWrong === 1 ? 'is' : 'are'} wrong and not settled: see Cards.`,
    })
  if (question.filesLeftOut > 0)
    reasons.push({
      met: true,
      sentence:
        `${counted(question.filesLeftOut, 'link, device entry or locked folder', 'links, device entries or locked folders')} ` +
        `on the card ${question.filesLeftOut === 1 ? 'is' : 'are'} listed but not copied.`,
    })
  return reasons
}

/** Sentences that begin with the name of a volume keep it as it is. */
const lowerFirst = (text: string) =>
  /^(No|Nobody|You|The|A|What|This|Files|Copies|Played) /.test(text)
    ? text.charAt(0).toLowerCase() + text.slice(1)
    : text
