import { sql } from 'kysely'
import type { Db } from '../connection'
import type { EventKind } from '../schema'
import { NO_ID } from './shoot'

export interface NewEvent {
  readonly kind: EventKind
  readonly productionId?: string
  readonly loadId?: string
  readonly volumeId?: string
  readonly clipId?: string
  readonly detail?: object
}

export const addEvent = (db: Db, { detail, ...event }: NewEvent) =>
  db
    .insertInto('event')
    .values({ ...event, detail: JSON.stringify(detail ?? {}) })
    .execute()

/** What was answered to questions about loads, oldest first. */
export const answersOf = async (db: Db, loadIds: readonly string[]) =>
  (
    await db
      .selectFrom('event')
      .select(['loadId', 'detail'])
      .where('kind', '=', 'answered')
      .where('loadId', 'in', [...loadIds, NO_ID])
      .orderBy('id')
      .execute()
  ).map(({ loadId, detail }) => ({ loadId, ...(detail as { key: string; answer: string | null }) }))

/** The latest event of each kind for each load (and volume, where it has one). */
export const latestEvents = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('event')
    .select((at) => ['kind', 'loadId', 'volumeId', at.fn.max('at').as('at')])
    .where('loadId', 'in', [...loadIds, NO_ID])
    .groupBy(['kind', 'loadId', 'volumeId'])
    .execute()

/** The latest look at the card of each reader: when, at which load, and what the card listed then. */
export const latestLooks = async (db: Db) =>
  (
    await db
      .selectFrom('event')
      .distinctOn(sql`detail->>'readerId'`)
      .select(['loadId', 'at', 'detail'])
      .where('kind', '=', 'looked-at')
      .orderBy(sql`detail->>'readerId'`)
      .orderBy('id', 'desc')
      .execute()
  ).map(({ loadId, at, detail }) => ({
    loadId: loadId ?? undefined,
    at,
    ...(detail as { readerId?: string; print?: string }),
  }))
