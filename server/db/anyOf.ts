import { sql, type RawBuilder } from 'kysely'

/**
 * `column = any(ids)`: one bind parameter, however many ids (a list of them may have 65 535 at most, and never none).
 */
export const anyOf = (column: string, ids: readonly string[]): RawBuilder<boolean> =>
  sql<boolean>`${sql.ref(column)} = any(${[...ids]}::uuid[])`

export const anyNumberOf = (column: string, ids: readonly number[]): RawBuilder<boolean> =>
  sql<boolean>`${sql.ref(column)} = any(${[...ids]}::bigint[])`
