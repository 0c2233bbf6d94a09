import type { Db } from '../db/connection'
import { production } from '../db/queries/productions'
import { notFound } from './problem'

/** The production of an id; throws when there is none. */
export async function productionOf(db: Db, id: string) {
  const found = await production(db, id)
  if (!found) throw notFound('That production')
  return found
}
