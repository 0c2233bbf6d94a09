import { comparedSentence } from '../cards/load/stay'
import { counted, upperFirst } from '../units/quantity'
import { ageOf } from './age'
import type { ClearQuestion, Reason } from './clearQuestion'
import { markOf, type CopyFacts } from './mark'

/** What is said of cards with the same content, while they are wanted as copies. */
export function backupCardReasons({ backupCards, rule, now }: ClearQuestion, counting: readonly CopyFacts[]): Reason[] {
  const met = counting.length >= rule.copies
  return backupCards
    .filter((backup) => !met || counting.includes(backup))
    .map((backup) => {
      const name = upperFirst(backup.volumeName)
      if (counting.includes(backup))
        return {
          met: true,
          sentence:
            `${name} counts as a copy while it lies in a reader: read whole ${ageOf(backup, now)}, equal to ` +
            'what was copied.',
        }
      if (backup.filesMismatched > 0)
        return {
          met,
          sentence: `${name} is not what was copied: ${counted(backup.filesMismatched, 'file differs', 'files differ')}.`,
        }
      if (!backup.connected)
        return { met, sentence: `${name} is in no reader now: it counts as a copy only where it can be seen.` }
      if (markOf(backup, rule) === 1)
        return { met, sentence: `${name} could only be read through memory, perhaps not from the card.` }
      const copied = markOf(backup, rule) >= 2
      return {
        met,
        sentence: copied
          ? `${name} was read ${ageOf(backup, now)}: read it again, and it counts as a copy.`
          : `${name} holds the same files, but only samples of it were read: read it whole, and it counts as a copy.`,
      }
    })
}

/** Whether the very bytes of the card that is asked about were read, where there are two of it. */
export function backupCardAsked({ askedBackupCard, readFromBackupCard, rule }: ClearQuestion): Reason[] {
  if (!askedBackupCard)
    return readFromBackupCard
      ? [
          {
            met: false,
            sentence: 'What was copied was read from its backup card; of this card only samples were. Keep it.',
          },
        ]
      : []
  if (markOf(askedBackupCard, rule) >= 2)
    return [{ met: true, sentence: 'Every file of this card was read, and is what was copied.' }]
  const sentence =
    askedBackupCard.filesMismatched > 0
      ? 'This card is not what was copied: ' +
        `${counted(askedBackupCard.filesMismatched, 'file differs', 'files differ')}. Keep it.`
      : 'What was copied was read from its backup card; of this card only samples were. Read it whole first.'
  return [{ met: false, sentence }]
}

/** In each stay in a reader the card is another one until it was scanned or compared. */
export function knownReasons({ cardKnown, cardDifference }: ClearQuestion): Reason[] {
  if (!cardKnown) return []
  const { readerName, how, compared, touched, swapsSeen } = cardKnown
  const reasons: Reason[] = []
  if ((how === 'compared' || how === 'ends') && compared)
    reasons.push({ met: true, sentence: comparedSentence(compared) })
  if (how === undefined && cardDifference === undefined)
    reasons.push({
      met: false,
      sentence: touched
        ? `Files on the card in ${readerName} were rewritten, with the same size and time: read the card whole.`
        : compared
          ? `The card in ${readerName} was put in again and could not be compared with what was copied: ` +
            'connect a drive with a copy of it, or read the card whole.'
          : `The card in ${readerName} was put in again and is not compared with what was copied yet. Wait a moment.`,
    })
  if (!swapsSeen)
    reasons.push({
      met: true,
      sentence:
        `Nothing tells Yendra when another card takes the place of this one in ${readerName}: leave it ` +
        'in until you have formatted it, or scan it again.',
    })
  return reasons
}
