import { CircleAlert, CircleCheck, CircleHelp, Info } from 'lucide-react'
import { shiftWords } from '../../../core/cards/load/clock'
import { USUAL_ANSWERS, type Finding } from '../../../core/cards/findings/findings'
import { cardsApi } from '../../../contract/cards'
import { Button } from '../../parts/controls/Button'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'

const SIGNS = {
  stop: { Icon: CircleAlert, tone: 'text-stop', word: 'Wrong' },
  ask: { Icon: CircleHelp, tone: 'text-doubt', word: 'Question' },
  note: { Icon: Info, tone: 'text-quiet', word: 'Note' },
} as const
const ANSWERED = { Icon: CircleCheck, tone: 'text-quiet', word: 'Answered' } as const

/** What is odd about a card, heaviest first; questions can be answered, and are not asked again. */
export function Findings({ findings, loadId }: { findings: readonly Finding[]; loadId: string }) {
  const send = useSend(cardsApi.answerFinding)
  const move = useSend(cardsApi.moveClock)
  if (findings.length === 0) return null
  const reply = (finding: Finding, answer: string | null) =>
    send.mutate({ params: { id: loadId }, body: { key: finding.key, answer } })
  return (
    <>
      <ul className="mb-4 space-y-2.5">
        {findings.map((finding) => {
          const { Icon, tone, word } = finding.answer === undefined ? SIGNS[finding.weight] : ANSWERED
          return (
            <li key={finding.key} className="flex gap-2.5" data-finding={finding.kind}>
              <Icon className={`mt-0.5 size-5 shrink-0 ${tone}`} aria-label={word} />
              <div className="min-w-0">
                <p className={finding.answer === undefined ? '' : 'text-quiet'}>
                  {finding.sentence}
                  {finding.answer !== undefined && (
                    <>
                      <strong className="text-ink"> {finding.answer}.</strong>{' '}
                      <Button
                        look="quiet"
                        className="!min-h-0 !px-1 !py-0 text-sm !font-normal"
                        aria-label={`Take back: ${finding.answer}`}
                        disabled={send.isPending}
                        onClick={() => reply(finding, null)}
                      >
                        take back
                      </Button>
                    </>
                  )}
                </p>
                {finding.paths.length > 0 && finding.kind !== 'gap' && (
                  <p className="figure break-all text-quiet">
                    {finding.paths.slice(0, 6).join(', ')}
                    {finding.files > 6 && finding.paths.length > 6 && ` and ${finding.files - 6} more`}
                  </p>
                )}
                {finding.shiftMs !== undefined && finding.answer === undefined && (
                  <Button
                    className="mt-1.5 mr-2 !min-h-8 !px-2.5 text-sm"
                    look={finding.shiftMs === 0 ? 'plain' : 'primary'}
                    disabled={move.isPending}
                    onClick={() => move.mutate({ params: { id: loadId }, body: { shiftMs: finding.shiftMs ?? 0 } })}
                  >
                    {finding.shiftMs === 0 ? 'Show them as written' : `Show its times ${shiftWords(finding.shiftMs)}`}
                  </Button>
                )}
                {finding.weight !== 'note' && finding.kind !== 'returned' && finding.answer === undefined && (
                  <div className={`mt-1.5 gap-2 ${finding.shiftMs === undefined ? 'flex flex-wrap' : 'inline-flex'}`}>
                    {(USUAL_ANSWERS[finding.kind] ?? ['That is right']).map((answer) => (
                      <Button
                        key={answer}
                        className="!min-h-8 !px-2.5 text-sm"
                        disabled={send.isPending}
                        onClick={() => reply(finding, answer)}
                      >
                        {answer}
                      </Button>
                    ))}
                  </div>
                )}
              </div>
            </li>
          )
        })}
      </ul>
      <Trouble error={send.error ?? move.error} />
    </>
  )
}
