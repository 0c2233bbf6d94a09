import { sql, type RawBuilder, type Selectable } from 'kysely'
import type { FileRole } from '../../../core/cards/files/clips'
import type { ListedFile } from '../../../core/cards/load/load'
import type { MediaFile } from '../../../core/cards/files/mediaFile'
import { saysNothing } from '../../../core/media/mediaName'
import { frameRate, type FrameRate } from '../../../core/units/frameRate'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import type { Database } from '../schema'

/** Media files of a load as they were read, to be put together to takes. */
export async function mediaFiles(db: Db, loadId: string): Promise<(MediaFile & { id: string })[]> {
  const rows = await db
    .selectFrom('mediaFile')
    .innerJoin('loadEntry', 'loadEntry.id', 'mediaFile.entryId')
    .select([
      'mediaFile.id',
      'mediaFile.pathText as path',
      'loadEntry.sizeBytes',
      'seconds',
      'framePx',
      'rate',
      'codec',
    ])
    .select(['recordedAt', 'hasVideo', 'wrong as isWrong'])
    .select(sql<boolean>`coalesce(probe->'audio' is not null, false)`.as('hasSound'))
    .where('mediaFile.loadId', '=', loadId)
    .where('onCard', '=', true)
    .where(sql<boolean>`probe->'sequence' is null`)
    .orderBy('mediaFile.pathText')
    .execute()
  return rows.map(({ recordedAt, ...row }) => ({
    ...row,
    recordedMs: recordedAt === '' ? undefined : Date.parse(recordedAt),
  }))
}

/** Ids of the rows of a load's media files and first frames that lie on the card, by the entry they are of. */
export const mediaFileIds = async (db: Db, loadId: string): Promise<Map<number, string>> =>
  new Map(
    (
      await db
        .selectFrom('mediaFile')
        .select(['id', 'entryId'])
        .where('loadId', '=', loadId)
        .where('onCard', '=', true)
        .execute()
    ).map(({ id, entryId }) => [entryId, id]),
  )

/** A file of a card as a scan placed it: in which take, by the id of its first media file, and as what. */
export interface PlacedFile {
  readonly entryId: number
  readonly takeId: string
  readonly mediaFileId: string | null
  readonly main: boolean
  readonly role: FileRole
  readonly part: number
  readonly number: number | null
}

export type TakeRow = Selectable<Database['take']>

/** The take that a media file is of, or stands beside. */
export const takeOf = (db: Db, mediaFileId: string): Promise<TakeRow | undefined> =>
  db
    .selectFrom('takeFile')
    .innerJoin('take', 'take.id', 'takeFile.takeId')
    .selectAll('take')
    .where('takeFile.mediaFileId', '=', mediaFileId)
    .executeTakeFirst()

const CHUNK = 10_000

/** Writes down which files of a card make which take, in place of what stood there for the files that lie on it. */
export async function arrangeTakes(tx: Db, loadId: string, files: readonly PlacedFile[]): Promise<void> {
  // A take may begin with another of its files now: what goes on on other cards is joined to it anew.
  await partTakes(
    tx,
    sql<boolean>`exists (select from take_file own join media_file mine on mine.id = own.media_file_id
      where own.take_id = f.take_id and mine.load_id = ${loadId})`,
  )
  await addTakes(
    tx,
    files.map((file) => file.takeId),
  )
  // What went from the card keeps its place, but for what stood beside a file that is placed anew.
  await sql`delete from take_file f using load_entry e where e.id = f.entry_id and e.load_id = ${loadId}
    and (e.state = 'on-card' or (f.media_file_id is null and (f.take_id, f.part) in (
      select own.take_id, own.part from take_file own join media_file file on file.id = own.media_file_id
      where file.load_id = ${loadId} and file.on_card and own.main)))`.execute(tx)
  for (let at = 0; at < files.length; at += CHUNK)
    await tx
      .insertInto('takeFile')
      .columns(['entryId', 'takeId', 'mediaFileId', 'main', 'role', 'part', 'number'])
      .expression(
        sql`select * from jsonb_to_recordset(${JSON.stringify(files.slice(at, at + CHUNK))}::jsonb)
          as f("entryId" bigint, "takeId" uuid, "mediaFileId" uuid, main boolean, role text, part int, number int)`,
      )
      .execute()
  await settleTakes(tx, loadId)
  await sql`update media_file file set goes_on = place.main and place.part > 1,
      shown = case when file.on_card then place.main else file.shown and place.main end
    from take_file place where place.media_file_id = file.id and file.load_id = ${loadId}
      and (file.goes_on is distinct from (place.main and place.part > 1) or file.shown is distinct from
        case when file.on_card then place.main else file.shown and place.main end)`.execute(tx)
  await countParts(tx, loadId)
}

const addTakes = (tx: Db, ids: readonly string[]) =>
  sql`insert into take (id) select distinct unnest(${[...ids]}::uuid[]) on conflict do nothing`.execute(tx)

/**
 * Takes of a card hold together: media that were placed nowhere, or in a take whose first file is elsewhere now, are
 * their own; empty takes go.
 */
async function settleTakes(tx: Db, loadId: string): Promise<void> {
  await sql`with astray as (
      select file.id, file.entry_id, file.has_picture from media_file file left join take_file f on f.media_file_id = file.id
      where file.load_id = ${loadId} and (f.entry_id is null
        or (f.main and not exists (select from take_file head where head.media_file_id = f.take_id and head.take_id = f.take_id)))),
    begun as (insert into take (id) select id from astray on conflict do nothing)
    insert into take_file (entry_id, take_id, media_file_id, main, role)
    select entry_id, id, id, true, case when has_picture then 'picture' else 'sound' end from astray
    on conflict (entry_id) do update set take_id = excluded.take_id, part = 1`.execute(tx)
  // What stood beside it goes with it.
  await sql`update take_file f set take_id = head.take_id, part = head.part from take_file head, load_entry e
    where head.media_file_id = f.take_id and head.take_id <> f.take_id and not f.main
      and e.id = f.entry_id and e.load_id = ${loadId}`.execute(tx)
  await sql`delete from take using media_file file where file.id = take.id and file.load_id = ${loadId}
    and not exists (select from take_file f where f.take_id = take.id)`.execute(tx)
}

/** How many files each take has that has one of a load. */
const countParts = (tx: Db, loadId: string) =>
  sql`update take set parts = counted.parts from (
      select f.take_id, count(distinct f.part) filter (where f.main and file.shown)::int as parts
      from take_file own join media_file mine on mine.id = own.media_file_id
        join take_file f on f.take_id = own.take_id join media_file file on file.id = f.media_file_id
      where mine.load_id = ${loadId} group by f.take_id) counted
    where counted.take_id = take.id and take.parts <> greatest(counted.parts, 1)`.execute(tx)

/** Takes of cards of a production: what goes on on another card is a take of its own there. */
export const partTakesOf = (tx: Db, productionId: string): Promise<void> =>
  partTakes(tx, sql<boolean>`load.production_id = ${productionId}`)

async function partTakes(tx: Db, which: RawBuilder<boolean>): Promise<void> {
  const { rows } = await sql<{ wholeId: string; restId: string }>`
    with begins as (
      select f.take_id, f.part, file.id, file.load_id
      from take_file f join media_file file on file.id = f.media_file_id join load on load.id = file.load_id
      where f.main and f.part > 1 and not file.goes_on and ${which}),
    begun as (insert into take (id) select id from begins on conflict do nothing)
    update take_file f set take_id = begins.id, part = f.part - begins.part + 1
    from begins, load_entry e where f.take_id = begins.take_id and e.id = f.entry_id and e.load_id = begins.load_id
    returning begins.take_id as whole_id, begins.id as rest_id`.execute(tx)
  for (const id of new Set(rows.flatMap((row) => [row.wholeId, row.restId]))) await recountTake(tx, id)
}

/**
 * What begins with one media file goes on behind another one, on another card: one take. Of two productions they stay
 * two.
 */
export async function joinTakes(
  tx: Db,
  { clipId, afterId }: { readonly clipId: string; readonly afterId: string },
): Promise<void> {
  const { rows } = await sql<{ restId: string; wholeId: string }>`
    update take_file f set take_id = whole.take_id, part = f.part + whole.part
    from take_file rest join media_file file on file.id = rest.media_file_id,
      take_file whole join media_file before on before.id = whole.media_file_id
    where rest.media_file_id = ${clipId} and whole.media_file_id = ${afterId} and f.take_id = rest.take_id
      and rest.main and rest.part = 1 and whole.main and file.production_id = before.production_id
    returning rest.take_id as rest_id, whole.take_id as whole_id`.execute(tx)
  const [joined] = rows
  if (!joined) return
  for (const id of [joined.wholeId, joined.restId]) await recountTake(tx, id)
}

/** Counts the files of a take anew; without any it goes. */
async function recountTake(tx: Db, id: string): Promise<void> {
  await sql`delete from take where id = ${id} and not exists (select from take_file f where f.take_id = take.id)`.execute(
    tx,
  )
  await sql`update take set parts = greatest(1, (
      select count(distinct f.part) from take_file f join media_file file on file.id = f.media_file_id
      where f.take_id = take.id and f.main and file.shown))
    where id = ${id}`.execute(tx)
}

/**
 * How many files of each role stand beside the main ones of takes that begin with these media files; of frames, all.
 */
export const companionsOf = (db: Db, ids: readonly string[]) =>
  db
    .selectFrom('takeFile as own')
    .innerJoin('takeFile', 'takeFile.takeId', 'own.takeId')
    .select(['own.mediaFileId as id', 'takeFile.role'])
    .select(({ fn }) => fn.countAll<number>().as('files'))
    .where(anyOf('own.media_file_id', ids))
    .where((at) => at.or([at('takeFile.main', '=', false), at('takeFile.role', '=', 'frames')]))
    .groupBy(['own.mediaFileId', 'takeFile.role'])
    .execute()

/**
 * What takes in several files of one card come to there, by the media file that is asked about: its files, bytes and
 * seconds.
 */
export const takeSums = (db: Db, ids: readonly string[]) =>
  db
    .selectFrom('takeFile as own')
    .innerJoin('mediaFile as mine', 'mine.id', 'own.mediaFileId')
    .innerJoin('take', 'take.id', 'own.takeId')
    .innerJoin('takeFile', 'takeFile.takeId', 'own.takeId')
    .innerJoin('mediaFile', 'mediaFile.id', 'takeFile.mediaFileId')
    .select('mine.id')
    .select(({ fn }) => [fn.countAll<number>().as('parts'), fn.sum<number>('mediaFile.seconds').as('seconds')])
    .select(sql<number>`sum(media_file.size_bytes)::bigint`.as('sizeBytes'))
    .where(anyOf('mine.id', ids))
    .where('take.parts', '>', 1)
    .where('takeFile.main', '=', true)
    .where('mediaFile.shown', '=', true)
    .whereRef('mediaFile.loadId', '=', 'mine.loadId')
    .groupBy('mine.id')
    .execute()

/** Files of a load on the card that are no frames of a take: they may share a counter with the clips. */
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
              .selectFrom('takeFile')
              .select('entryId')
              .whereRef('takeFile.entryId', '=', 'loadEntry.id')
              .where('role', '=', 'frames'),
          ),
        ),
      )
      .execute()
  ).map((row) => row.pathText)

/** Files on a load's card that belong to no take, of at least so many bytes, stills of common kinds left out. */
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
        where.exists(where.selectFrom('takeFile').select('entryId').whereRef('takeFile.entryId', '=', 'loadEntry.id')),
      ),
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
export const frameEntry = (db: Db, mediaFileId: string, at: number) =>
  db
    .selectFrom('takeFile as own')
    .innerJoin('takeFile', 'takeFile.takeId', 'own.takeId')
    .innerJoin('loadEntry', 'loadEntry.id', 'takeFile.entryId')
    .select(['loadEntry.path', 'loadEntry.sizeBytes'])
    .where('own.mediaFileId', '=', mediaFileId)
    .where('takeFile.role', '=', 'frames')
    .where('takeFile.number', '<=', at)
    .orderBy('takeFile.number', 'desc')
    .limit(1)
    .executeTakeFirst()
