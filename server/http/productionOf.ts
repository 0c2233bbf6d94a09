import type { Request } from 'express'
import type { Db } from '../db/connection'
import { production } from '../db/queries/productions'
import { idOf, notFound } from './problem'

/** The production that a path names; throws when there is none. */
export async function productionOf(db: Db, req: Request) {
  const found = await production(db, idOf(req))
  if (!found) throw notFound('That production')
  return found
}
