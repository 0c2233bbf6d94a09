import { sql } from 'kysely'
import {
  MOST_COMPARED,
  TOUCHED,
  type Compared,
  type KnownHow,
  type LeftHow,
  type StayMark,
} from '../../../core/cards/load/stay'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'

/** Ends every stay of a computer: whoever watched its readers was away for a while. */
export const endStays = (db: Db, host: string, how: LeftHow) =>
  db
    .updateTable('stay')
    .set({ leftAt: new Date(), leftHow: how })
    .where('host', '=', host)
    .where('leftAt', 'is', null)
    .execute()

/** Ends the stay of a card. */
export const endStay = (db: Db, id: string, how: LeftHow) =>
  db
    .updateTable('stay')
    .set({ leftAt: new Date(), leftHow: how })
    .where('id', '=', id)
    .where('leftAt', 'is', null)
    .execute()

/** A card was put in. Whatever lay in that reader before has left it. */
export const beginStay = (
  db: Db,
  { readerId, host, mark, swapsSeen }: { readerId: string; host: string; mark: StayMark; swapsSeen: boolean },
): Promise<StayRow> =>
  inTransaction(db, async (tx) => {
    await tx
      .updateTable('stay')
      .set({ leftAt: new Date(), leftHow: 'other' })
      .where('readerId', '=', readerId)
      .where('leftAt', 'is', null)
      .execute()
    return tx
      .insertInto('stay')
      .values({ readerId, host, mark: JSON.stringify(mark), swapsSeen })
      .returningAll()
      .executeTakeFirstOrThrow()
  })

/** A stay; `undefined` when there is none. */
export const stay = (db: Db, id: string) => db.selectFrom('stay').selectAll().where('id', '=', id).executeTakeFirst()

export type StayRow = NonNullable<Awaited<ReturnType<typeof stay>>>

/** It is still there. */
export const seeStay = (db: Db, id: string) =>
  db.updateTable('stay').set({ seenAt: new Date() }).where('id', '=', id).execute()

/** The card of a stay was scanned for the first time, or compared and found equal. */
export const knowStay = (
  db: Db,
  id: string,
  known: { readonly loadId: string; readonly twinId: string | null; readonly knownHow: KnownHow },
) => db.updateTable('stay').set(known).where('id', '=', id).execute()

/**
 * From then on the card of a load was read whole and is what was copied, or will be read whole by its first copy; what
 * was written on it later stays doubted.
 */
export async function trustCard(
  db: Db,
  { stayId, loadId, since }: { stayId: string; loadId: string; since: Date },
): Promise<void> {
  const trusted = await db
    .updateTable('load')
    .set({ cardDoubtedAt: null })
    .where('id', '=', loadId)
    .where((at) => at.or([at('cardDoubtedAt', 'is', null), at('cardDoubtedAt', '<=', since)]))
    .returning('id')
    .execute()
  if (trusted.length > 0)
    await sql`update stay set tried = array_remove(tried, ${TOUCHED}) where id = ${stayId}`.execute(db)
}

/**
 * What came of it when the card was read whole in this stay and compared with a load; `undefined` when that was not
 * done.
 */
export const readWhole = (db: Db, stayId: string, loadId: string) =>
  db
    .selectFrom('comparison')
    .select(['clips', 'differing'])
    .where('stayId', '=', stayId)
    .where('loadId', '=', loadId)
    .where('how', '=', 'whole')
    .orderBy('id', 'desc')
    .limit(1)
    .executeTakeFirst()

/** Names the latest time that a card was read whole in a stay; 0 when it never was. */
export const lastReadWhole = async (db: Db, stayId: string): Promise<number> =>
  (
    await db
      .selectFrom('comparison')
      .select((at) => at.fn.max('id').as('id'))
      .where('stayId', '=', stayId)
      .where('how', '=', 'whole')
      .executeTakeFirst()
  )?.id ?? 0

/** How the card of a load, which lies in a reader, differs from what was scanned; that holds while it is out. */
export const seeCardOf = (db: Db, loadId: string, difference: string | null) =>
  db
    .updateTable('load')
    .set({ cardDifference: difference })
    .where('id', '=', loadId)
    .where('cardDifference', 'is distinct from', difference)
    .execute()

/** Only reading the card of a load whole tells what is on it now. */
export const doubtCard = (db: Db, loadId: string) =>
  sql`update load set card_doubted_at = clock_timestamp() where id = ${loadId}`.execute(db)

/** Whether something of a load was proved that its card may be unlike by now. */
export async function isCardDoubted(db: Db, loadId: string): Promise<boolean> {
  const { rows } = await sql`
    select from load where id = ${loadId} and card_doubted_at is not null
      and exists (select from copy_file where load_id = load.id and proof_id is not null)`.execute(db)
  return rows.length > 0
}

/** A file of a card as it was listed, and as its file system told it from others. */
export interface CardStamp {
  readonly listed: string
  readonly stamp: string
}

/**
 * Files of the card of a load as they were when it was last known; by path, one byte a character. None before something
 * of it was proved that they may be unlike.
 */
export async function cardStamps(db: Db, loadId: string): Promise<ReadonlyMap<string, CardStamp>> {
  const { rows } = await sql<CardStamp & { path: Buffer }>`
    select path, listed, stamp from card_stamp where load_id = ${loadId}
      and exists (select from copy_file where load_id = card_stamp.load_id and proof_id is not null)`.execute(db)
  return new Map(rows.map(({ path, listed, stamp }) => [path.toString('latin1'), { listed, stamp }]))
}

export async function putCardStamps(db: Db, loadId: string, stamps: ReadonlyMap<string, CardStamp>): Promise<void> {
  const paths = [...stamps.keys()].map((path) => Buffer.from(path, 'latin1').toString('hex'))
  const [listed, stamp] = [[...stamps.values()].map((one) => one.listed), [...stamps.values()].map((one) => one.stamp)]
  await sql`
    insert into card_stamp (load_id, path, listed, stamp)
      select ${loadId}, decode(path, 'hex'), listed, stamp
      from unnest(${paths}::text[], ${listed}::text[], ${stamp}::text[]) as now (path, listed, stamp)
    on conflict (load_id, path) do update set listed = excluded.listed, stamp = excluded.stamp
      where (card_stamp.listed, card_stamp.stamp) <> (excluded.listed, excluded.stamp)`.execute(db)
}

/** Nothing is known of the card of a stay any more. */
export const forgetStay = (db: Db, id: string) =>
  db.updateTable('stay').set({ loadId: null, twinId: null, knownHow: null }).where('id', '=', id).execute()

/** Something was tried by itself in a stay. False when it had been tried before. */
export const tryOnce = async (db: Db, id: string, what: string): Promise<boolean> => {
  const { rows } = await sql<{ id: string }>`
    update stay set tried = array_append(tried, ${what}) where id = ${id} and not (${what} = any(tried)) returning id`.execute(
    db,
  )
  return rows.length > 0
}

/** A card was compared with what is known of a load. */
export const addComparison = (
  db: Db,
  {
    volumeNames,
    ...compared
  }: Compared & { stayId: string; loadId: string; print: string; paths: readonly string[]; seed: string },
) =>
  db
    .insertInto('comparison')
    .values({ ...compared, volumeNames: JSON.stringify(volumeNames), paths: JSON.stringify(compared.paths) })
    .execute()

/** Where cards were found to differ from a load, newest first. */
export const differencesFrom = (db: Db, loadId: string) =>
  db
    .selectFrom('comparison')
    .select(['stayId', 'seed', 'paths'])
    .where('loadId', '=', loadId)
    .where('how', '=', 'places')
    .where(sql<boolean>`paths <> '[]'`)
    .orderBy('id', 'desc')
    .limit(MOST_DIFFERENCES)
    .execute()

const MOST_DIFFERENCES = 8

/** The latest comparison of each stay. */
export const comparisonsOf = (db: Db, stayIds: readonly string[]) =>
  db
    .selectFrom('comparison')
    .distinctOn('stayId')
    .selectAll()
    .where(anyOf('stay_id', stayIds))
    .orderBy('stayId')
    .orderBy('id', 'desc')
    .execute()

/** When the card of each load was last known in a reader, by more than the ends of its clips. */
export const lastKnownStays = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('stay')
    .select(['loadId', (at) => at.fn.max(sql<Date>`coalesce(left_at, seen_at)`).as('at')])
    .where(anyOf('load_id', loadIds))
    .where('knownHow', 'in', ['first-look', 'compared'])
    .where('twinId', 'is', null)
    .groupBy('loadId')
    .execute()

/** Stays by their ids. */
export const staysById = (db: Db, ids: readonly string[]) =>
  db.selectFrom('stay').selectAll().where(anyOf('id', ids)).execute()

/**
 * Files of a load as they lie on its card, with the ends that were read at the scan and the copies that are whole:
 * those of some paths, or drawn ones, which are every clip up to a number and then others.
 */
export async function comparableClips(db: Db, host: string, loadId: string, which: 'drawn' | readonly string[]) {
  const [paths, most] = which === 'drawn' ? [null, MOST_COMPARED] : [which, which.length]
  const { rows } = await sql<{
    entryId: number
    path: Buffer
    pathText: string
    sizeBytes: number
    isClip: boolean
    ends: string | null
    holders: { volumeId: string; folder: string }[] | null
  }>`
    select drawn.*, s.hash as ends,
      (select jsonb_agg(jsonb_build_object('volumeId', c.volume_id, 'folder', m.folder) order by c.volume_id)
        from copy_file c join mirror m on m.load_id = c.load_id and m.volume_id = c.volume_id
          join mount on mount.volume_id = c.volume_id and mount.host = ${host} and mount.connected
        where c.entry_id = drawn.entry_id and c.load_id = ${loadId} and c.standing in ('verified', 'memory')) as holders
    from (
      select e.id as entry_id, e.path, e.path_text, e.size_bytes, file.id is not null as is_clip
      from load_entry e left join media_file file on file.entry_id = e.id
      where e.load_id = ${loadId} and e.state = 'on-card' and e.kind = 'file' and e.size_bytes > 0
        and (${paths}::text[] is null or e.path_text = any(${paths}::text[]))
      order by is_clip desc, random() limit ${most}) drawn
    left join load_sample s on s.entry_id = drawn.entry_id
    order by drawn.path`.execute(db)
  return rows
}

/** How many files of a load could be compared with a proved copy that is connected. */
export async function filesInCopies(db: Db, host: string, loadId: string): Promise<number> {
  const { rows } = await sql<{ files: number }>`
    select count(distinct c.entry_id)::int as files
    from copy_file c join mount on mount.volume_id = c.volume_id and mount.host = ${host} and mount.connected
    where c.load_id = ${loadId} and c.standing in ('verified', 'memory')`.execute(db)
  return rows[0]?.files ?? 0
}

export type ComparableClip = Awaited<ReturnType<typeof comparableClips>>[number]
