import { sql } from 'kysely'
import type { TimeRange, Verdict } from '../../../core/cards/review'
import type { ReviewAsked, ReviewBody } from '../../../contract/review'
import type { PageAsked } from '../../../contract/page'
import { inTransaction, type Db } from '../connection'
import { lock } from '../lock'
import { pageOf } from '../page'
import { hasWords, wordsOf } from '../words'

const ORDERS = {
  recorded: { by: 'clip.filmed_order', type: 'text', id: 'clip.id' },
  name: { by: 'clip.sort_path', type: 'text', id: 'clip.id' },
} as const

const reviewed = (db: Db) =>
  db
    .selectFrom('clip')
    .innerJoin('load', 'load.id', 'clip.loadId')
    .leftJoin('review', 'review.clipId', 'clip.id')
    .selectAll('clip')
    .select(['load.label as loadLabel', 'load.goesOn'])
    .select(sql<number>`1 + (select count(*)::int from clip lens where lens.lens_of = clip.id)`.as('lenses'))
    .select(['review.verdict', 'review.times', 'review.note', 'review.name as chosenName', 'review.shotId'])
    .where('clip.shown', '=', true)

export type ReviewRow = Awaited<ReturnType<ReturnType<typeof reviewed>['execute']>>[number]

/** Clips of a production with what was said of each. */
export const reviewPage = (
  db: Db,
  productionId: string,
  { loadId, show, q, sort, ...asked }: PageAsked & Pick<ReviewAsked, 'loadId' | 'show' | 'q' | 'sort'>,
) =>
  pageOf(
    reviewed(db)
      .where('clip.productionId', '=', productionId)
      // The first lens of a rig stands for all.
      .where('clip.lensOf', 'is', null)
      .$if(loadId !== null, (clips) => clips.where('clip.loadId', '=', loadId))
      .$if(show === 'open', (clips) => clips.where('review.verdict', 'is', null))
      .$if(show !== 'open' && show !== 'all', (clips) => clips.where('review.verdict', '=', show as Verdict))
      .$if(wordsOf(q).length > 0, (clips) => clips.where(hasWords('clip.name', q))),
    ORDERS[sort],
    asked,
  )

/** Clips of a production that are kept, the oldest recording first. */
export const keptRows = (db: Db, productionId: string) =>
  reviewed(db)
    .innerJoin('loadEntry', 'loadEntry.id', 'clip.entryId')
    .leftJoin('shot', 'shot.id', 'review.shotId')
    .select(['loadEntry.path as pathBytes', 'shot.name as shotName'])
    .where('clip.productionId', '=', productionId)
    .where('review.verdict', '=', 'keep')
    .orderBy('clip.filmedOrder')
    .orderBy('clip.id')
    .execute()

/** Where copies of a production’s kept clips lie: the mirror of each on a volume that is connected to this computer, the edit volume first. */
export const keptPlaces = (db: Db, host: string, productionId: string) =>
  db
    .selectFrom('review')
    .innerJoin('clip', 'clip.id', 'review.clipId')
    .innerJoin('copyFile', (join) =>
      join.onRef('copyFile.loadId', '=', 'clip.loadId').onRef('copyFile.entryId', '=', 'clip.entryId'),
    )
    .innerJoin('mirror', (join) =>
      join.onRef('mirror.loadId', '=', 'copyFile.loadId').onRef('mirror.volumeId', '=', 'copyFile.volumeId'),
    )
    .innerJoin('volume', 'volume.id', 'mirror.volumeId')
    .leftJoin('mount', (join) => join.onRef('mount.volumeId', '=', 'volume.id').on('mount.host', '=', host))
    .select(['clip.id as clipId', 'mirror.folder', 'mount.path as rootPath', 'mount.connected'])
    .where('clip.productionId', '=', productionId)
    .where('review.verdict', '=', 'keep')
    .where('copyFile.standing', 'in', ['verified', 'memory'])
    .orderBy(sql`coalesce(mount.connected, false)`, 'desc')
    .orderBy(sql`volume.kind = 'edit'`, 'desc')
    .orderBy('volume.name')
    .execute()

/** What sums are made of: nothing of the clip but its length, its rate and its bytes. */
export const reviewFigures = (db: Db, productionId: string) =>
  db
    .selectFrom('review')
    .innerJoin('clip', 'clip.id', 'review.clipId')
    .select([
      'review.verdict',
      'review.times',
      'clip.seconds',
      sql<boolean>`coalesce(clip.part > 1, false)`.as('goesOn'),
    ])
    .select([
      sql<number>`(clip.size_bytes + coalesce((select sum(lens.size_bytes) from clip lens where lens.lens_of = clip.id), 0))::bigint`.as(
        'sizeBytes',
      ),
      sql<
        number | null
      >`case when probe#>>'{video,cadence,kind}' is distinct from 'variable' then (probe#>>'{video,frames}')::bigint end`.as(
        'frames',
      ),
      sql<number | null>`(probe#>>'{video,rate,num}')::bigint`.as('num'),
      sql<number | null>`(probe#>>'{video,rate,den}')::bigint`.as('den'),
    ])
    .where('clip.productionId', '=', productionId)
    .where('clip.shown', '=', true)
    .where('clip.lensOf', 'is', null)
    .where('review.verdict', 'is not', null)
    .execute()

/** How many films and recordings of a production there are to look at: the sums of its part of each card, a take in parts once. */
export const clipsToReview = async (db: Db, productionId: string): Promise<number> =>
  (
    await db
      .selectFrom('loadSummary')
      .select(
        sql<number>`(coalesce(sum(media), 0) - (select count(*) from clip
          where production_id = ${productionId} and (lens_of is not null or part > 1) and shown))::int`.as('media'),
      )
      .where('productionId', '=', productionId)
      .executeTakeFirstOrThrow()
  ).media

/** Keeps what a person says of clips, as a whole: of all of them, or of none. */
export async function putReviews(
  db: Db,
  said: readonly (Omit<ReviewBody, 'ranges'> & { readonly clipId: string; readonly times: readonly TimeRange[] })[],
): Promise<void> {
  const changedAt = new Date()
  await db
    .insertInto('review')
    .values(
      said.map(({ clipId, verdict, times, note, shotId }) => ({
        ...{ clipId, verdict: verdict ?? null, times: JSON.stringify(times), note, shotId, changedAt },
      })),
    )
    .onConflict((at) =>
      at.column('clipId').doUpdateSet((row) => ({
        verdict: row.ref('excluded.verdict'),
        times: row.ref('excluded.times'),
        note: row.ref('excluded.note'),
        shotId: row.ref('excluded.shotId'),
        changedAt: row.ref('excluded.changedAt'),
      })),
    )
    .execute()
}

/** The other files of a take that the camera split. */
export const partsBeside = (db: Db, { id, takeId }: { readonly id: string; readonly takeId: string | null }) =>
  takeId === null
    ? Promise.resolve([])
    : db
        .selectFrom('clip')
        .select('id')
        .where('takeId', '=', takeId)
        .where('id', '<>', id)
        .where('shown', '=', true)
        .execute()

/** Keeps a verdict on clips, and whatever else was said of them. */
export async function putVerdicts(db: Db, clipIds: readonly string[], verdict: Verdict | null): Promise<void> {
  if (clipIds.length === 0) return
  const changedAt = new Date()
  await db
    .insertInto('review')
    .values(clipIds.map((clipId) => ({ clipId, verdict, note: '', shotId: null, changedAt })))
    .onConflict((at) => at.column('clipId').doUpdateSet({ verdict, changedAt }))
    .execute()
}

/** Kept clips with what their names are made of. */
export const nameableRows = (db: Db, productionId: string) =>
  db
    .selectFrom('review')
    .innerJoin('clip', 'clip.id', 'review.clipId')
    .innerJoin('load', 'load.id', 'clip.loadId')
    .leftJoin('camera', 'camera.id', 'load.cameraId')
    .leftJoin('shot', 'shot.id', 'review.shotId')
    .select(['clip.id', 'clip.name as file', 'clip.recordedAt', 'review.name', 'load.label as load'])
    .select(['camera.name as camera', 'shot.name as shot'])
    .where('clip.productionId', '=', productionId)
    .where('clip.shown', '=', true)
    .where('review.verdict', '=', 'keep')
    .orderBy('clip.filmedOrder')
    .orderBy('clip.id')
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
      .innerJoin('clip', 'clip.id', 'review.clipId')
      .select(['clip.id', 'review.name'])
      .where('clip.productionId', '=', productionId)
      .execute()
    const used = new Set<string>()
    for (const { id, name } of standing) {
      const next = given.has(id) ? given.get(id) : name
      if (next === null || next === undefined) continue
      if (used.has(next.toLowerCase())) return next
      used.add(next.toLowerCase())
    }
    await sql`update review set name = n.name from jsonb_to_recordset(${JSON.stringify(names)}::jsonb) as n(id uuid, name text)
      where review.clip_id = n.id and n.id in (select id from clip where production_id = ${productionId})`.execute(tx)
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
        at.not(at.exists(at.selectFrom('review').select('clipId').whereRef('review.shotId', '=', 'shot.id'))),
      )
      .orderBy('place')
      .limit(50)
      .execute()
  ).map((row) => row.name)
