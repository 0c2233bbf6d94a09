import { counted } from '../units/quantity'
import { markOf, type CopyFacts } from './mark'

export type ClearPolicy = 'at-home-only' | 'reuse-on-the-job'

export interface ClearQuestion {
  readonly copies: readonly CopyFacts[]
  readonly policy: ClearPolicy
  /** Whether the person says they are at their own desk now. */
  readonly atHome: boolean
  readonly cardInReader: boolean
  /** Files on the card that were not copied because they are neither file nor folder. */
  readonly filesLeftOut: number
  /** Findings of the card that are wrong and that nobody has settled. */
  readonly thingsWrong: number
  readonly formattedAt: string | undefined
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
}

/**
 * May this card be formatted, in the camera, by the person? Common practice, no source: two verified copies on two
 * volumes, one spot-played, at home. The policy *reuse on the job* drops the last and asks that the card was out.
 */
export function clearToFormat(question: ClearQuestion): ClearAnswer {
  const verified = question.copies.filter((copy) => markOf(copy) >= 2)
  const played = question.copies.filter((copy) => markOf(copy) === 3)
  const troubled = question.copies.filter((copy) => copy.filesMismatched + copy.filesInConflict > 0)
  const reasons: Reason[] = [
    {
      met: verified.length >= 2,
      sentence:
        verified.length === 0
          ? 'No volume holds a verified copy yet; two are needed.'
          : `${counted(verified.length, 'verified copy', 'verified copies')} (${verified.map((copy) => copy.volumeName).join(', ')}), read back from the medium; two are needed.`,
    },
    {
      met: played.length > 0,
      sentence:
        played.length > 0
          ? `A clip was played from ${played.map((copy) => copy.volumeName).join(' and ')}.`
          : 'No clip has been played from a copy yet.',
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
  if (troubled.length > 0) {
    reasons.push({
      met: false,
      sentence: `${troubled.map((copy) => copy.volumeName).join(', ')}: some files differ from the card. Settle them first.`,
    })
  }
  if (question.thingsWrong > 0) {
    reasons.push({
      met: false,
      sentence: `${counted(question.thingsWrong, 'thing')} on the card ${question.thingsWrong === 1 ? 'is' : 'are'} wrong and not settled: see Cards.`,
    })
  }
  const lost = question.copies.filter((copy) => copy.mirrorLost)
  if (lost.length > 0) {
    reasons.push({
      met: verified.length >= 2,
      sentence: `${lost.map((copy) => copy.volumeName).join(', ')}: the copy was there and is gone. Copy again, or find out who moved it.`,
    })
  }
  if (question.filesLeftOut > 0) {
    reasons.push({
      met: true,
      sentence: `${counted(question.filesLeftOut, 'link, device entry or locked folder', 'links, device entries or locked folders')} on the card ${question.filesLeftOut === 1 ? 'is' : 'are'} listed but not copied.`,
    })
  }
  if (question.formattedAt) {
    return {
      clear: false,
      sentence: 'You said this card was formatted. The next scan starts a new load.',
      reasons,
      caution: '',
    }
  }
  const open = reasons.filter((reason) => !reason.met)
  const clear = open.length === 0
  return {
    clear,
    sentence: clear
      ? 'Yes: this card may be formatted, in the camera.'
      : `Not yet: ${lowerFirst(open[0]?.sentence ?? '')}`,
    reasons,
    caution: clear
      ? 'Do it in the camera, rested, with this screen open. Formatting cannot be undone.'
      : 'Do not format, delete or rewrite when exhausted: this list is still here in the morning.',
  }
}

const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
