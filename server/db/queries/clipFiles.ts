import { sql } from 'kysely'
import type { FileRole } from '../../../core/cards/clips'
import type { ListedFile } from '../../../core/cards/load'
import type { MediaFile } from '../../../core/cards/mediaFile'
import { saysNothing } from '../../../core/media/mediaName'
import { frameRate, type FrameRate } from '../../../core/units/frameRate'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'

/** Media files of a load as they were read, to be put together to clips. */
export async function mediaFiles(db: Db, loadId: string): Promise<(MediaFile & { id: string })[]> {
  const rows = await db
    .selectFrom('clip')
    .innerJoin('loadEntry', 'loadEntry.id', 'clip.entryId')
    .select(['clip.id', 'clip.pathText as path', 'loadEntry.sizeBytes', 'seconds', 'framePx', 'rate', 'codec'])
    .select(['recordedAt', 'hasVideo', 'wrong as isWrong'])
    .select(sql<boolean>`coalesce(probe->'audio' is not null, false)`.as('hasSound'))
    .where('clip.loadId', '=', loadId)
    .where('onCard', '=', true)
    .where(sql<boolean>`probe->'sequence' is null`)
    .orderBy('clip.pathText')
    .execute()
  return rows.map(({ recordedAt, ...row }) => ({
    ...row,
    recordedMs: recordedAt === '' ? undefined : Date.parse(recordedAt),
  }))
}

/** Ids of the rows of a load's media files and first frames that lie on the card, by the entry they are of. */
export const clipIds = async (db: Db, loadId: string): Promise<Map<number, string>> =>
  new Map(
    (
      await db
        .selectFrom('clip')
        .select(['id', 'entryId'])
        .where('loadId', '=', loadId)
        .where('onCard', '=', true)
        .execute()
    ).map(({ id, entryId }) => [entryId, id]),
  )

/** One clip of a look with its files, by their ids. */
export interface ArrangedClip {
  readonly id: string
  readonly files: readonly { readonly entryId: number; readonly role: FileRole; readonly number: number | null }[]
  readonly takeId: string | null
  readonly part: number | null
  readonly parts: number | null
}

const CHUNK = 10_000

/** Writes down which files make which clip, in place of what stood there for the files that lie on the card. */
export async function arrangeClips(tx: Db, loadId: string, clips: readonly ArrangedClip[]): Promise<void> {
  const mains = new Map(clips.map((clip) => [clip.id, clip]))
  const owners = new Map(clips.flatMap((clip) => clip.files.map(({ entryId }) => [entryId, clip.id] as const)))
  const rows = [...(await clipIds(tx, loadId))].map(([entryId, id]) => {
    const clip = mains.get(id)
    return {
      id,
      memberOf: clip ? null : (owners.get(entryId) ?? null),
      ...{ takeId: clip?.takeId ?? null, part: clip?.part ?? null, parts: clip?.parts ?? null },
      sidecars: clip?.files.filter(({ role }) => role === 'sidecar').length ?? 0,
    }
  })
  await sql`delete from clip_file where clip_id in (select id from clip where load_id = ${loadId} and on_card)`.execute(
    tx,
  )
  const files = clips.flatMap(({ id, files: own }) => own.map((file) => ({ clipId: id, ...file })))
  for (let at = 0; at < files.length; at += CHUNK)
    await tx
      .insertInto('clipFile')
      .columns(['clipId', 'entryId', 'role', 'number'])
      .expression(
        sql`select * from jsonb_to_recordset(${JSON.stringify(files.slice(at, at + CHUNK))}::jsonb)
          as f("clipId" uuid, "entryId" bigint, role text, number int)`,
      )
      .execute()
  await sql`update clip set member_of = r."memberOf", take_id = r."takeId", part = r.part, parts = r.parts, sidecars = r.sidecars,
      shown = r."memberOf" is null
    from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb)
      as r(id uuid, "memberOf" uuid, "takeId" uuid, part int, parts int, sidecars int)
    where clip.id = r.id and (clip.member_of, clip.take_id, clip.part, clip.parts, clip.sidecars, clip.shown)
      is distinct from (r."memberOf", r."takeId", r.part, r.parts, r.sidecars, r."memberOf" is null)`.execute(tx)
}

/** How many files of each role clips have. */
export const filesOfClips = (db: Db, ids: readonly string[]) =>
  db
    .selectFrom('clipFile')
    .select(['clipId', 'role'])
    .select(({ fn }) => fn.countAll<number>().as('files'))
    .where(anyOf('clip_id', ids))
    .groupBy(['clipId', 'role'])
    .execute()

/** What takes come to that were split into files: bytes and seconds of all their parts. */
export const takeSums = (db: Db, firstIds: readonly string[]) =>
  db
    .selectFrom('clip')
    .select('takeId')
    .select(({ fn }) => fn.sum<number>('seconds').as('seconds'))
    .select(sql<number>`sum(size_bytes)::bigint`.as('sizeBytes'))
    .where(anyOf('take_id', firstIds))
    .groupBy('takeId')
    .execute()

/** Files of a load on the card that are no frames of a clip: they may share a counter with the clips. */
export const otherPaths = async (db: Db, loadId: string): Promise<string[]> =>
  (
    await db
      .selectFrom('loadEntry')
      .select('pathText')
      .where('loadId', '=', loadId)
      .where('kind', '=', 'file')
      .where('state', '=', 'on-card')
      .where((where) =>
        where.not(
          where.exists(
            where
              .selectFrom('clipFile')
              .select('entryId')
              .whereRef('clipFile.entryId', '=', 'loadEntry.id')
              .where('role', '=', 'frames'),
          ),
        ),
      )
      .execute()
  ).map((row) => row.pathText)

/** Files on a load's card that belong to no clip, of at least so many bytes, stills of common kinds left out. */
export async function looseFiles(db: Db, loadId: string, leastBytes: number): Promise<ListedFile[]> {
  const rows = await db
    .selectFrom('loadEntry')
    .select(['pathText as path', 'sizeBytes', 'modifiedMs'])
    .where('loadId', '=', loadId)
    .where('kind', '=', 'file')
    .where('state', '=', 'on-card')
    .where('sizeBytes', '>=', leastBytes)
    .where((where) =>
      where.not(
        where.exists(where.selectFrom('clipFile').select('entryId').whereRef('clipFile.entryId', '=', 'loadEntry.id')),
      ),
    )
    .where((where) =>
      where.not(where.exists(where.selectFrom('clip').select('clip.id').whereRef('clip.entryId', '=', 'loadEntry.id'))),
    )
    .execute()
  return rows.filter(({ path }) => saysNothing(path))
}

/** The rate that a production's plan gives raw frames, when it gives one. */
export async function plannedRawRate(db: Db, productionId: string): Promise<FrameRate | undefined> {
  const { rows } = await sql<{ num: number; den: number }>`
    select distinct (figures#>>'{picture,rate,num}')::int as num, (figures#>>'{picture,rate,den}')::int as den
    from planned_takes join recording_mode on recording_mode.id = planned_takes.mode_id
    where planned_takes.production_id = ${productionId} and figures#>>'{picture,coding,kind}' = 'raw'`.execute(db)
  const [only, ...more] = rows
  return only && more.length === 0 ? frameRate(only.num, only.den) : undefined
}

/** The file that is a frame of a run, counted from its first; of a missing one the frame before. */
export const frameEntry = (db: Db, clipId: string, at: number) =>
  db
    .selectFrom('clipFile')
    .innerJoin('loadEntry', 'loadEntry.id', 'clipFile.entryId')
    .select(['loadEntry.path', 'loadEntry.sizeBytes'])
    .where('clipFile.clipId', '=', clipId)
    .where('role', '=', 'frames')
    .where('clipFile.number', '<=', at)
    .orderBy('clipFile.number', 'desc')
    .limit(1)
    .executeTakeFirst()
