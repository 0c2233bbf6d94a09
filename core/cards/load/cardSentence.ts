import { counted, formatLength } from '../../units/quantity'
import { openQuestions, openStops, type CardCounts, type Finding } from '../findings/findings'

/** The card in one sentence: `6 clips, 4 min 10 s, nothing wrong found.` */
export function cardSentence(
  { clips, seconds, lookDone }: CardCounts,
  findings: readonly Finding[],
  isLooking = false,
): string {
  if (isLooking && !lookDone) return `${counted(clips, 'clip')} so far: it is being scanned.`
  const stops = openStops(findings)
  const asks = openQuestions(findings)
  const settled = findings.filter((finding) => finding.weight !== 'note' && finding.answer).length
  const verdict =
    stops > 0
      ? `${counted(stops, 'thing')} wrong`
      : !lookDone
        ? 'the scan has not finished'
        : asks > 0
          ? `${counted(asks, 'question')} to answer`
          : settled > 0
            ? `${counted(settled, 'problem')} settled by you, nothing else wrong`
            : 'nothing wrong found'
  return `${counted(clips, 'clip')}, ${formatLength(seconds)}: ${verdict}.`
}
