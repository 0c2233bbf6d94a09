import { GRADES, type Grade, type Need } from './needs'
import type { Station } from './stations'

/** What a production needs, with whose it is. */
export interface NeededBy {
  readonly productionId: string
  readonly title: string
  readonly needs: readonly Need[]
}

/** Work that came to no good end. */
export interface BadEnd {
  readonly productionId: string | null
  readonly station: Station
  readonly sentence: string
}

/** A drive that is fuller than its rule allows, or nearly. */
export interface FullDrive {
  readonly name: string
  readonly state: 'tight' | 'over'
  readonly sentence: string
}

/** One line of what needs a person this evening. */
export interface DeskItem {
  readonly key: string
  readonly grade: Grade
  readonly sentence: string
  /** Whose it is; empty for a drive, which belongs to all. */
  readonly of: string
  /** Where it is done, without what says which production: a station, its desk, or the locker. */
  readonly productionId: string | null
  readonly station: Station
  readonly desk?: string
}

/**
 * Everything that needs a person, over all productions: the most endangered first, of what weighs alike what was there
 * first. What failed counts as not safe, a full drive as a question.
 */
export function deskItems(
  productions: readonly NeededBy[],
  ends: readonly BadEnd[],
  drives: readonly FullDrive[],
): DeskItem[] {
  const titleOf = (id: string | null) => productions.find((one) => one.productionId === id)?.title ?? ''
  const needed = productions.flatMap(({ productionId, title, needs }) =>
    needs.map(({ grade, sentence, station, desk }): DeskItem => ({
      ...{ key: `${productionId} ${sentence}`, grade, sentence, of: title, productionId, station },
      ...(desk !== undefined && { desk }),
    })),
  )
  const failed = ends.map(({ productionId, station, sentence }): DeskItem => ({
    ...{
      key: `failed ${station} ${sentence}`,
      grade: 'unsafe',
      sentence,
      of: titleOf(productionId),
      productionId,
      station,
    },
  }))
  const full = drives.map(({ name, state, sentence }): DeskItem => ({
    ...{ key: `drive ${name}`, grade: state === 'over' ? 'unsafe' : 'asks', sentence: `${name}: ${sentence}`, of: '' },
    ...{ productionId: null, station: 'storage' },
  }))
  return [...needed, ...failed, ...full].sort((a, b) => GRADES.indexOf(a.grade) - GRADES.indexOf(b.grade))
}

/** What each grade is called on the desk. */
export const GRADE_WORDS: Readonly<Record<Grade, string>> = {
  danger: 'may be lost',
  unsafe: 'not safe yet',
  asks: 'asks you',
  todo: 'to do',
  'under-way': 'under way',
}
