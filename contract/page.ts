import { boolean, number, object, string, type ObjectShape } from 'yup'

/** One page of a list, and the key of the next; `null` after the last. */
export interface Page<Row> {
  readonly rows: readonly Row[]
  readonly next: string | null
}

/** One page of a list: rows after a key, how many, and in which direction. */
export interface PageAsked {
  /** The key that came with the page before; none for the first. */
  readonly after?: string | undefined
  readonly limit: number
  readonly down: boolean
}

/** Rows of a page at most, so that no answer grows past 256 kB. */
export const MOST_ROWS = 200

/** What a list is asked for: a page by key, its order, and what the list can be filtered by besides. */
export const pageQuery = <Sort extends string, More extends ObjectShape>(
  sorts: readonly [Sort, ...Sort[]],
  more: More,
  { rows = 100, down = false }: { rows?: number; down?: boolean } = {},
) =>
  object({
    after: string().max(4000, 'That is no page of this list.').optional(),
    limit: number()
      .typeError('Say how many rows.')
      .integer('Say how many rows.')
      .min(1, 'Ask for one row at least.')
      .max(MOST_ROWS, `Ask for ${MOST_ROWS} rows at most.`)
      .default(rows),
    sort: string()
      .oneOf(sorts, `This list can be sorted by ${sorts.join(', ')}.`)
      .default(sorts[0]),
    down: boolean().typeError('Say true or false.').default(down),
    ...more,
  }).noUnknown()

/** Narrows a list to names with words that begin as typed. */
export const typedFilter = string().trim().max(100, 'Keep it under 100 characters.').default('')
