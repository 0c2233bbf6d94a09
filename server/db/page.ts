import { sql, type RawBuilder, type SelectQueryBuilder } from 'kysely'
import type { Page, PageAsked } from '../../contract/page'
import type { Database } from './schema'

/** What a list is ordered by: a column, its type, and the column that tells rows of one value apart. */
export interface ListOrder {
  readonly by: string
  readonly type: keyof typeof FORMS
  readonly id: string
}

// As the database writes them down; what is not so formed is no key of ours.
const FORMS = {
  text: /^[^\0]*$/s,
  bigint: /^-?\d{1,18}$/,
  float8: /^-?\d{1,20}(\.\d{1,20})?(e[+-]\d{1,3})?$/,
  timestamptz: /^\d{4}-\d\d-\d\d \d\d:\d\d:\d\d(\.\d{1,6})?[+-]\d\d(:\d\d)?$/,
} as const
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

/** The key of a page was not made here. */
export class NoSuchPage extends Error {}

/**
 * One page of a list by key: the rows after the one that the key names, in the order of an index, so that the
 * thousandth page costs what the first does. Throws NoSuchPage.
 */
export async function pageOf<Tables extends keyof Database, Row>(
  query: SelectQueryBuilder<Database, Tables, Row>,
  order: ListOrder,
  { after, limit, down }: PageAsked,
): Promise<Page<Row>> {
  const [by, id, type] = [sql.ref(order.by), sql.ref(order.id), sql.raw(order.type)]
  const direction = down ? 'desc' : 'asc'
  const key = after === undefined ? undefined : keyIn(after, order)
  const rows = await query
    .select([sql<string>`${by}::text`.as('keyValue'), sql<string>`${id}::text`.as('keyId')])
    .$if(key !== undefined, (all) =>
      all.where(sql<boolean>`(${by}, ${id}) ${sql.raw(down ? '<' : '>')} (${key?.[0]}::${type}, ${key?.[1]}::uuid)`),
    )
    .orderBy(by, direction)
    .orderBy(id, direction)
    // One more than wanted tells whether there is a next page.
    .limit(limit + 1)
    .execute()
  const last = rows.length > limit ? rows[limit - 1] : undefined
  const next = last ? Buffer.from(JSON.stringify([last.keyValue, last.keyId])).toString('base64url') : null
  return { rows: rows.slice(0, limit), next }
}

/**
 * What comes after the key of a page, in its order and no more than the page takes: for each branch of a union, since
 * no index gives the order of all of them. To stand behind the conditions of a branch that has some.
 */
export function branchOfPage(
  by: RawBuilder<unknown>,
  id: RawBuilder<unknown>,
  type: ListOrder['type'],
  { after, limit, down }: PageAsked,
): RawBuilder<unknown> {
  const key = after === undefined ? undefined : keyIn(after, { type })
  const isAfter = sql`and (${by}, ${id}) ${sql.raw(down ? '<' : '>')} (${key?.[0]}::${sql.raw(type)}, ${key?.[1]}::uuid)`
  const direction = sql.raw(down ? 'desc' : 'asc')
  return sql`${key ? isAfter : sql``} order by ${by} ${direction}, ${id} ${direction} limit ${limit + 1}`
}

function keyIn(after: string, { type }: Pick<ListOrder, 'type'>): readonly [string, string] {
  const key: unknown = parsed(Buffer.from(after, 'base64url').toString())
  if (!Array.isArray(key)) throw new NoSuchPage()
  const [value, id] = key as unknown[]
  if (typeof value !== 'string' || typeof id !== 'string' || !FORMS[type].test(value) || !UUID.test(id))
    throw new NoSuchPage()
  return [value, id]
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
