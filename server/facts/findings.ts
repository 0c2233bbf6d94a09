import { clockFinding } from '../../core/cards/findings/clockFinding'
import { cardFindings, withAnswers, type Finding } from '../../core/cards/findings/findings'
import { rigFinding } from '../../core/cards/load/rig'
import { goesOnSentence, type GoesOn } from '../../core/cards/files/spans'
import type { entryCounts, LoadRow } from '../db/queries/cards'
import type { answersOf } from '../db/queries/said'

const goesOnFinding = (goesOn: GoesOn | null): Finding[] =>
  goesOn
    ? [{ kind: 'goes-on', weight: 'note', paths: [], files: 1, key: 'goes-on', sentence: goesOnSentence(goesOn) }]
    : []

const rigFindings = ({ rigName, label, rigOdd }: LoadRow): Finding[] => {
  const found = rigFinding(rigName ?? '', label, rigOdd ?? [])
  return found ? [found] : []
}

/** What is to be said of a load's card. */
export function findingsOf(
  load: LoadRow,
  counts: Awaited<ReturnType<typeof entryCounts>>,
  answers: Awaited<ReturnType<typeof answersOf>>,
  returned: string | undefined,
): Finding[] {
  const found = withAnswers(
    cardFindings(
      counts,
      [...load.clipFindings, ...clockFinding(load), ...goesOnFinding(load.goesOn), ...rigFindings(load)],
      load,
    ),
    new Map(answers.map((one) => [one.key, one.answer])),
  )
  if (returned === undefined) return found
  return [
    {
      kind: 'returned',
      weight: 'stop',
      paths: [],
      files: 0,
      key: 'returned',
      sentence: `You said ${returned} was formatted, but its clips are still on it. Was another card formatted?`,
    },
    ...found,
  ]
}
