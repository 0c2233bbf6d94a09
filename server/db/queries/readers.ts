import { sql } from 'kysely'
import type { DeviceIdentity } from '../../../core/copies/device'
import type { Db } from '../connection'

/** All readers, in the order in which they were added. */
export const readers = (db: Db) => db.selectFrom('reader').selectAll().orderBy('createdAt').execute()

/** A reader; `undefined` when there is none. */
export const reader = (db: Db, id: string) =>
  db.selectFrom('reader').selectAll().where('id', '=', id).executeTakeFirst()

/** The reader in which the card of a load, or its exact backup card, lies now, else the one in which it was scanned. */
export const readerOfLoad = (db: Db, load: { readonly id: string; readonly readerId: string | null }) =>
  db
    .selectFrom('reader')
    .leftJoin('twin', 'twin.id', 'reader.twinId')
    .selectAll('reader')
    .where((at) =>
      at.or([
        at('reader.id', '=', load.readerId),
        at.and([
          at('reader.loadId', '=', load.id),
          at('putAwayAt', 'is', null),
          at.or([at('twinId', 'is', null), at('twin.exact', '=', true)]),
        ]),
      ]),
    )
    .orderBy(sql`coalesce(reader.load_id = ${load.id} and state = 'card' and same, false)`, 'desc')
    .orderBy(sql`coalesce(reader.load_id = ${load.id}, false)`, 'desc')
    .orderBy(sql`reader.twin_id is null`, 'desc')
    .limit(1)
    .executeTakeFirst()

export type ReaderRow = NonNullable<Awaited<ReturnType<typeof reader>>>

/** Registers a reader and returns its id. Throws when name or folder is taken (`isTaken`). */
export const addReader = (
  db: Db,
  values: { name: string; rootPath: string | null; simulated: boolean; host: string },
) => db.insertInto('reader').values(values).returning('id').executeTakeFirstOrThrow()

/** What the observer saw in a reader. */
export interface SeenReader {
  readonly state: 'card' | 'empty' | 'unreachable'
  readonly cardName: string | null
  readonly loadId: string | null
  readonly same: boolean
  readonly twinId: string | null
  readonly difference: string | null
  readonly device: DeviceIdentity | undefined
  /** Bytes of the card, and free ones. */
  readonly capacityBytes: number | null
  readonly freeBytes: number | null
  readonly volumeUid: string | null
  /** Of what is listed on it. */
  readonly print: string | null
  /** How the files on it are called. */
  readonly habits: readonly string[]
  readonly stayId: string | null
  /** When its files were written, first and last. */
  readonly filmedFrom: Date | null
  readonly filmedTo: Date | null
}

/** What the observer saw in a reader. True when it differs from what was seen before. */
export async function putSeenReader(db: Db, id: string, { device, habits, ...seen }: SeenReader): Promise<boolean> {
  const changed = await db
    .updateTable('reader')
    .set({
      ...seen,
      habits: JSON.stringify(habits),
      device: device ? JSON.stringify(device) : null,
      seenAt: new Date(),
    })
    .where('id', '=', id)
    .where((at) =>
      at.or([
        at('state', '<>', seen.state),
        at.not(
          sql<boolean>`(card_name, load_id, difference, print) is not distinct from (${seen.cardName}::text, ${seen.loadId}::uuid, ${seen.difference}::text, ${seen.print}::text)`,
        ),
        at('same', '<>', seen.same),
        at('twinId', 'is distinct from', seen.twinId),
        at('stayId', 'is distinct from', seen.stayId),
      ]),
    )
    .returning('id')
    .executeTakeFirst()
  return changed !== undefined
}

/** How fast a reader was in a copy, in bytes per second. */
export const putReaderSpeed = (db: Db, id: string, readBytesPerSecond: number) =>
  db.updateTable('reader').set({ readBytesPerSecond }).where('id', '=', id).execute()
