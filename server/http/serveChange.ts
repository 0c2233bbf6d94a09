import type { Router } from 'express'
import type { Endpoint, Params } from '../../contract/endpoint'
import type { Db } from '../db/connection'
import { versionOf, type EditedRow } from '../db/queries/versions'
import { changedElsewhere } from './problem'
import { serve, type Asked } from './route'

/** What is changed at this moment: a row, and the end of the last change of it that was asked for. */
const changing = new Map<string, Promise<unknown>>()

async function inTurn<T>(key: string, act: () => Promise<T>): Promise<T> {
  const mine = (changing.get(key) ?? Promise.resolve()).then(act, act)
  changing.set(key, mine)
  try {
    return await mine
  } finally {
    if (changing.get(key) === mine) changing.delete(key)
  }
}

/**
 * Answers an order that changes a row which people edit: one after the other, and none that was made from another state
 * of it than it has now. Who does not say what was seen is not asked. Source: RFC 9110, 13.1.1 (`If-Match`).
 */
export function serveChange<Path extends string, Body, Answer>(
  router: Router,
  { db, row }: { readonly db: Db; readonly row: EditedRow },
  endpoint: Endpoint<Path, Body, undefined, Answer>,
  answer: (asked: Asked<Path, Body, undefined>) => Promise<Answer>,
): void {
  serve(router, endpoint, (asked) => {
    const { id = '' } = asked.params as Partial<Params<'/:id'>>
    return inTurn(`${row} ${id}`, async () => {
      const seen = asked.req.header('if-match')?.replaceAll('"', '')
      if (seen !== undefined) {
        const now = await versionOf(db, row, id)
        if (now !== undefined && now !== seen) throw changedElsewhere()
      }
      return answer(asked)
    })
  })
}
