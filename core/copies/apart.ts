import type { ClearQuestion } from './clearQuestion'
import { deviceRelation, type DeviceRelation } from './device'
import { markOf, type CopyFacts, type Mark } from './mark'

/** Copies of one load, with what is known of where they lie. */
export type ApartQuestion = Pick<ClearQuestion, 'copies' | 'cardStanding' | 'saidDifferent' | 'rule' | 'formattedAt'>

/**
 * How far the copies of a load have come, where two on one drive count as one, and one on the card's own drive as none.
 */
export interface Apart {
  /** The best mark, and that of the second copy: at most two, best first. */
  readonly marks: readonly Mark[]
  /** Two copies are whole, and count as fewer for the drives that they lie on. */
  readonly oneDrive: boolean
  /** Two copies count only if a person says that they lie on different drives. */
  readonly perhapsOneDrive: boolean
}

/** How two copies lie to each other, with what the person said where the system cannot know. */
export function relationOf(
  a: CopyFacts,
  b: CopyFacts,
  saidDifferent: readonly (readonly [string, string])[],
): DeviceRelation {
  const relation = deviceRelation(a, b)
  if (relation !== 'unknown') return relation
  return saidDifferent.some((pair) => pair.includes(a.volumeId) && pair.includes(b.volumeId)) ? 'different' : 'unknown'
}

/** Nobody is asked about a drive that this computer never saw. */
type Relation = DeviceRelation | 'unseen'
const relationNow = (...[a, b, said]: Parameters<typeof relationOf>): Relation =>
  a.device && b.device ? relationOf(a, b, said) : 'unseen'

/**
 * How far the copies of a load have come, by drives; once its card is formatted, that has none. Common practice, no
 * source.
 */
export function marksApart({ copies, cardStanding, saidDifferent, rule, formattedAt }: ApartQuestion): Apart {
  const isOnCard = (copy: CopyFacts) => !formattedAt && deviceRelation(copy, cardStanding) === 'same'
  const ranked = copies.map((copy) => ({ copy, mark: markOf(copy, rule) })).sort((a, b) => b.mark - a.mark)
  const counting = ranked.filter(({ copy }) => !isOnCard(copy))
  const pairs = counting.flatMap((a, at) =>
    counting.slice(at + 1).map((b) => ({ mark: b.mark, relation: relationNow(a.copy, b.copy, saidDifferent) })),
  )
  const best = (relations: readonly Relation[]) =>
    pairs.reduce<Mark | undefined>(
      (most, { mark, relation }) => (relations.includes(relation) && mark >= (most ?? 0) ? mark : most),
      undefined,
    )
  const second = best(['different', 'unseen', 'unknown'])
  const [first] = counting
  return {
    marks: [...(first ? [first.mark] : []), ...(second === undefined ? [] : [second])],
    oneDrive: (ranked[1]?.mark ?? 0) >= 2 && (second ?? 0) < 2,
    perhapsOneDrive: (second ?? 0) >= 2 && (best(['different', 'unseen']) ?? 0) < 2,
  }
}
