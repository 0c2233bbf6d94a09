import { sql } from 'kysely'
import { VERDICTS, type TimeRange, type Verdict } from '../../../core/cards/review/review'
import type { ReviewAsked, ReviewBody } from '../../../contract/review'
import type { PageAsked } from '../../../contract/page'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import { lock } from '../lock'
import { pageOf } from '../page'
import { hasWords, wordsOf } from '../words'

const ORDERS = {
  recorded: { by: 'media_file.filmed_order', type: 'text', id: 'media_file.id' },
  name: { by: 'media_file.sort_path', type: 'text', id: 'media_file.id' },
} as const

/**
 * What is said of a take: the kindest word on any of its files. Of its first file alone where it has no other, since
 * that is the rule and takes no question of its own.
 */
export const takeVerdict = sql<Verdict | null>`case when take.parts = 1 then review.verdict else (
  select said.verdict from take_file part join media_file file on file.id = part.media_file_id join review said on said.media_file_id = file.id
  where part.take_id = take.id and part.main and file.shown and said.verdict is not null
  order by array_position(${sql.lit(`{${VERDICTS.join(',')}}`)}::text[], said.verdict) limit 1) end`

/** Media files that takes are known by, each with its take and with what was said of it. */
const reviewed = (db: Db) =>
  db
    .selectFrom('mediaFile')
    .innerJoin('takeFile', 'takeFile.mediaFileId', 'mediaFile.id')
    .innerJoin('take', 'take.id', 'takeFile.takeId')
    .innerJoin('load', 'load.id', 'mediaFile.loadId')
    .leftJoin('review', 'review.mediaFileId', 'mediaFile.id')
    .selectAll('mediaFile')
    .select(['take.id as takeId', 'take.parts', 'takeFile.part', 'load.label as loadLabel'])
    .select(['review.verdict', 'review.times', 'review.note', 'review.name as chosenName', 'review.shotId'])
    .where('mediaFile.shown', '=', true)
    .where('takeFile.main', '=', true)

export type ReviewRow = Awaited<ReturnType<ReturnType<typeof reviewed>['execute']>>[number]

/** First files of the takes of a production, as review lists them. */
export const reviewPage = (
  db: Db,
  productionId: string,
  { loadId, show, q, sort, ...asked }: PageAsked & Pick<ReviewAsked, 'loadId' | 'show' | 'q' | 'sort'>,
) =>
  pageOf(
    reviewed(db)
      .select(
        sql<number>`case when take.rig_take_id is null then 1 else (select count(*)::int from take lens where lens.rig_take_id = take.id) end`.as(
          'lenses',
        ),
      )
      .where('mediaFile.productionId', '=', productionId)
      .whereRef('take.id', '=', 'mediaFile.id')
      // The first lens of a rig stands for all.
      .where(sql<boolean>`coalesce(take.rig_take_id, take.id) = take.id`)
      .$if(loadId !== null, (takes) => takes.where('mediaFile.loadId', '=', loadId))
      .$if(show === 'open', (takes) => takes.where(takeVerdict, 'is', null))
      .$if(show !== 'open' && show !== 'all', (takes) => takes.where(takeVerdict, '=', show as Verdict))
      .$if(wordsOf(q).length > 0, (takes) => takes.where(hasWords('media_file.name', q))),
    ORDERS[sort],
    asked,
  )

/** Files of takes with what was said of each, the parts of a take one after the other. */
export const takeParts = (db: Db, takeIds: readonly string[]) =>
  reviewed(db)
    .where(anyOf('take.id', takeIds))
    .orderBy('take.id')
    .orderBy('takeFile.part')
    .orderBy('mediaFile.filmedOrder')
    .execute()

/** Files of the kept takes of a production, the oldest recording first, the parts of a take one after the other. */
export const keptRows = (db: Db, productionId: string) =>
  reviewed(db)
    .innerJoin('mediaFile as first', 'first.id', 'take.id')
    .innerJoin('loadEntry', 'loadEntry.id', 'mediaFile.entryId')
    .select('loadEntry.path as pathBytes')
    .where('mediaFile.productionId', '=', productionId)
    .where(takeVerdict, '=', 'keep')
    .orderBy('first.filmedOrder')
    .orderBy('take.id')
    .orderBy('takeFile.part')
    .execute()

/** Names of shots by their ids. */
export const shotNames = async (db: Db, productionId: string): Promise<Map<string, string>> =>
  new Map(
    (await db.selectFrom('shot').select(['id', 'name']).where('productionId', '=', productionId).execute()).map(
      ({ id, name }) => [id, name],
    ),
  )

/**
 * Where copies of media files lie: the mirror of each on a volume that is connected to this computer, the edit volume
 * first.
 */
export const copyPlaces = (db: Db, host: string, ids: readonly string[]) =>
  db
    .selectFrom('mediaFile')
    .innerJoin('copyFile', (join) =>
      join.onRef('copyFile.loadId', '=', 'mediaFile.loadId').onRef('copyFile.entryId', '=', 'mediaFile.entryId'),
    )
    .innerJoin('mirror', (join) =>
      join.onRef('mirror.loadId', '=', 'copyFile.loadId').onRef('mirror.volumeId', '=', 'copyFile.volumeId'),
    )
    .innerJoin('volume', 'volume.id', 'mirror.volumeId')
    .leftJoin('mount', (join) => join.onRef('mount.volumeId', '=', 'volume.id').on('mount.host', '=', host))
    .select(['mediaFile.id', 'mirror.folder', 'mount.path as rootPath', 'mount.connected'])
    .where(anyOf('media_file.id', ids))
    .where('copyFile.standing', 'in', ['verified', 'memory'])
    .orderBy(sql`coalesce(mount.connected, false)`, 'desc')
    .orderBy(sql`volume.kind = 'edit'`, 'desc')
    .orderBy('volume.name')
    .execute()

/**
 * What sums are made of, of each file of every take that somebody decided on: its length, its rate and its bytes, those
 * of other lenses with them.
 */
export async function reviewFigures(db: Db, productionId: string) {
  const { rows } = await sql<{
    takeId: string
    verdict: Verdict | null
    times: TimeRange[] | null
    seconds: number
    sizeBytes: number
    frames: number | null
    num: number | null
    den: number | null
  }>`
    with decided as (
      select distinct f.take_id from review join take_file f on f.media_file_id = review.media_file_id
        join media_file file on file.id = review.media_file_id
      where file.production_id = ${productionId} and review.verdict is not null)
    select take.id as take_id, review.verdict, review.times, file.seconds,
      (file.size_bytes + case when take.rig_take_id is null or file.id <> take.id then 0 else coalesce((
        select sum(beside.size_bytes) from take lens join take_file of on of.take_id = lens.id and of.main
          join media_file beside on beside.id = of.media_file_id
        where lens.rig_take_id = take.id and lens.id <> take.id), 0) end)::bigint as size_bytes,
      case when file.probe#>>'{video,cadence,kind}' is distinct from 'variable' then (file.probe#>>'{video,frames}')::bigint end as frames,
      (file.probe#>>'{video,rate,num}')::bigint as num, (file.probe#>>'{video,rate,den}')::bigint as den
    from decided join take on take.id = decided.take_id
      join take_file place on place.take_id = take.id and place.main
      join media_file file on file.id = place.media_file_id
      left join review on review.media_file_id = file.id
    where file.production_id = ${productionId} and file.shown and coalesce(take.rig_take_id, take.id) = take.id
    order by take.id, place.part, file.filmed_order`.execute(db)
  return rows
}

/**
 * How many takes of a production there are to look at: those of each of its cards, less those of further lenses and
 * what goes on from another card.
 */
export const takesToReview = async (db: Db, productionId: string): Promise<number> =>
  (
    await db
      .selectFrom('loadSummary')
      .select(
        sql<number>`(coalesce(sum(clips), 0)
          - (select count(*) from take join media_file file on file.id = take.id
            where take.rig_take_id <> take.id and file.production_id = ${productionId} and file.shown and not file.goes_on)
          - (select count(*) from take_file place join media_file file on file.id = place.media_file_id
            where place.main and place.part > 1 and file.production_id = ${productionId} and file.shown and not file.goes_on))::int`.as(
          'takes',
        ),
      )
      .where('productionId', '=', productionId)
      .executeTakeFirstOrThrow()
  ).takes

/** What is said of a file of a take. */
export interface SaidOfFile extends Omit<ReviewBody, 'ranges'> {
  readonly mediaFileId: string
  readonly times: readonly TimeRange[]
}

/** Keeps what a person says of files, as a whole: of all of them, or of none. */
export async function putReviews(db: Db, said: readonly SaidOfFile[]): Promise<void> {
  const changedAt = new Date()
  await db
    .insertInto('review')
    .values(
      said.map(({ mediaFileId, verdict, times, note, shotId }) => ({
        ...{ mediaFileId, verdict: verdict ?? null, times: JSON.stringify(times), note, shotId, changedAt },
      })),
    )
    .onConflict((at) =>
      at.column('mediaFileId').doUpdateSet((row) => ({
        verdict: row.ref('excluded.verdict'),
        times: row.ref('excluded.times'),
        note: row.ref('excluded.note'),
        shotId: row.ref('excluded.shotId'),
        changedAt: row.ref('excluded.changedAt'),
      })),
    )
    .execute()
}

/** Kept takes with what their names are made of. */
export const nameableRows = (db: Db, productionId: string) =>
  db
    .selectFrom('take')
    .innerJoin('mediaFile', 'mediaFile.id', 'take.id')
    .leftJoin('review', 'review.mediaFileId', 'mediaFile.id')
    .innerJoin('load', 'load.id', 'mediaFile.loadId')
    .leftJoin('camera', 'camera.id', 'load.cameraId')
    .leftJoin('shot', 'shot.id', 'review.shotId')
    .select(['mediaFile.id', 'mediaFile.name as file', 'mediaFile.recordedAt', 'review.name', 'load.label as load'])
    .select(['camera.name as camera', 'shot.name as shot'])
    .where('mediaFile.productionId', '=', productionId)
    .where('mediaFile.shown', '=', true)
    .where(takeVerdict, '=', 'keep')
    .orderBy('mediaFile.filmedOrder')
    .orderBy('mediaFile.id')
    .execute()

/** Gives clips of a production names, in one go; returns a name that two clips would have, and then changes nothing. */
export const putNames = (
  db: Db,
  productionId: string,
  names: readonly { readonly id: string; readonly name: string | null }[],
): Promise<string | undefined> =>
  inTransaction(db, async (tx) => {
    await lock(tx, `names ${productionId}`)
    const given = new Map(names.map(({ id, name }) => [id, name]))
    const standing = await tx
      .selectFrom('review')
      .innerJoin('mediaFile', 'mediaFile.id', 'review.mediaFileId')
      .select(['mediaFile.id', 'review.name'])
      .where('mediaFile.productionId', '=', productionId)
      .execute()
    const used = new Set<string>()
    for (const { id, name } of standing) {
      const next = given.has(id) ? given.get(id) : name
      if (next === null || next === undefined) continue
      if (used.has(next.toLowerCase())) return next
      used.add(next.toLowerCase())
    }
    await sql`insert into review (media_file_id, name)
      select n.id, n.name from jsonb_to_recordset(${JSON.stringify(names)}::jsonb) as n(id uuid, name text)
        join media_file file on file.id = n.id where file.production_id = ${productionId}
      on conflict (media_file_id) do update set name = excluded.name`.execute(tx)
    return undefined
  })

/** Whether a shot belongs to the production of a clip. */
export const isShotOf = async (db: Db, shotId: string, productionId: string): Promise<boolean> =>
  (await db
    .selectFrom('shot')
    .select('id')
    .where('id', '=', shotId)
    .where('productionId', '=', productionId)
    .executeTakeFirst()) !== undefined

/** Names of shots that were ticked as filmed, and that no clip is matched to, as they stand in the list. */
export const unmatchedShotsOf = async (db: Db, productionId: string): Promise<string[]> =>
  (
    await db
      .selectFrom('shot')
      .select('name')
      .where('productionId', '=', productionId)
      .where('filmedAt', 'is not', null)
      .where((at) =>
        at.not(at.exists(at.selectFrom('review').select('mediaFileId').whereRef('review.shotId', '=', 'shot.id'))),
      )
      .orderBy('place')
      .limit(50)
      .execute()
  ).map((row) => row.name)
