import type { Verdict } from '../../../../core/cards/review/review'

/**
 * The words of a verdict, and the shape that tells it without colour: a full square, half of one, a stroke, an outline.
 */
export const VERDICT_WORDS: Record<Verdict, string> = { keep: 'Keep', maybe: 'Maybe', reject: 'Reject' }

/** How a clip was decided, in 14 pixels. */
export function VerdictMark({ verdict }: { verdict: Verdict | null }) {
  return (
    <svg viewBox="0 0 14 14" className="size-3.5 shrink-0" aria-hidden>
      <rect
        x="1"
        y="1"
        width="12"
        height="12"
        rx="2"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.5"
        strokeDasharray={verdict === null ? '2.4 2.4' : undefined}
      />
      {verdict === 'keep' && <rect x="3.5" y="3.5" width="7" height="7" fill="currentColor" />}
      {verdict === 'maybe' && <rect x="3.5" y="7" width="7" height="3.5" fill="currentColor" />}
      {verdict === 'reject' && <path d="M3 11 L11 3" stroke="currentColor" strokeWidth="1.8" />}
    </svg>
  )
}
