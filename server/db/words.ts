import { sql, type RawBuilder } from 'kysely'

/** The words of what was typed, in lower case; signs between them say nothing. */
export const wordsOf = (typed: string): string[] =>
  typed
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** True where each typed word begins a word of a name; held by an index over `search_words`. */
export const hasWords = (column: string, typed: string): RawBuilder<boolean> =>
  sql<boolean>`search_words(${sql.ref(column)}) @@ to_tsquery('simple', ${wordsOf(typed)
    .map((word) => `${word}:*`)
    .join(' & ')})`
