import { CircleAlert, CircleHelp, Info } from 'lucide-react'
import type { Finding } from '../../../core/cards/findings'

const SIGNS = { stop: { Icon: CircleAlert, tone: 'text-stop', word: 'Wrong' }, ask: { Icon: CircleHelp, tone: 'text-doubt', word: 'Question' }, note: { Icon: Info, tone: 'text-quiet', word: 'Note' } } as const

/** What is odd about a card, heaviest first. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null
  return (
    <ul className="mb-4 space-y-2">
      {findings.map((finding) => {
        const { Icon, tone, word } = SIGNS[finding.weight]
        return (
          <li key={finding.kind + finding.sentence} className="flex gap-2.5" data-finding={finding.kind}>
            <Icon className={`mt-0.5 size-5 shrink-0 ${tone}`} aria-label={word} />
            <span>{finding.sentence}{finding.paths.length > 0 && finding.kind !== 'gap' && <span className="figure block break-all text-quiet">{finding.paths.slice(0, 6).join(', ')}{finding.paths.length > 6 && ` and ${finding.paths.length - 6} more`}</span>}</span>
          </li>
        )
      })}
    </ul>
  )
}
