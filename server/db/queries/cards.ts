import { sql, type Selectable } from 'kysely'
import type { CountedKind, EntryCount, Finding, ScannedClip } from '../../../core/cards/findings/findings'
import type { MissingFrames } from '../../../core/cards/files/frameRuns'
import type { MediaFacts } from '../../../core/media/facts'
import { mostProxyBytes } from '../../../core/proxies/recipe'
import type { ClipsAsked, ClipSort } from '../../../contract/cards'
import type { PageAsked } from '../../../contract/page'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import { pageOf, type ListOrder } from '../page'
import type { Database } from '../schema'
import { hasWords, wordsOf } from '../words'
import { withoutEnding } from '../../../core/units/filePath'

/** A sum over all productions that have clips of a load. */
const sumOf = <Name extends string>(column: string, name: Name) =>
  sql<number>`(select sum(${sql.ref(column)})::bigint from load_summary where load_id = load.id)`.as(name)

/** Loads with what is counted of all their clips, to whichever production those belong. */
const allLoads = (db: Db) =>
  db
    .selectFrom('load')
    .innerJoin('production', 'production.id', 'load.productionId')
    .leftJoin('rig', 'rig.id', 'load.rigId')
    .leftJoin('camera', 'camera.id', 'load.cameraId')
    .selectAll('load')
    .select(['rig.name as rigName', 'camera.name as cameraName'])
    .select(['production.title as productionTitle', 'production.shootOn', 'production.folder as productionFolder'])
    .select([sumOf('clips', 'clips'), sumOf('length_ms', 'lengthMs'), sumOf('playable', 'playable')])

/**
 * Only those of which a production has clips, or that were read for it. They are found first, as a list: PostgreSQL
 * would go through the loads of all productions for a few.
 */
const loadsIn = (db: Db, productionIds: readonly string[]) =>
  allLoads(db).where(
    sql<boolean>`load.id = any(array(
      select load_id from load_summary where production_id = any(${[...productionIds]}::uuid[]) and clips > 0
      union select id from load where production_id = any(${[...productionIds]}::uuid[])))`,
  )

/** All loads of which productions have clips, the oldest first. */
export const loadsOf = (db: Db, productionIds: readonly string[]) =>
  loadsIn(db, productionIds).orderBy('load.createdAt').execute()

/** Loads by their ids, in no order. */
export const loadsById = (db: Db, ids: readonly string[]) => allLoads(db).where(anyOf('load.id', ids)).execute()

/** Loads of which a production has clips, the newest first where it is asked for. */
export const loadPage = (db: Db, productionId: string, asked: PageAsked) =>
  pageOf(loadsIn(db, [productionId]), { by: 'load.created_at', type: 'timestamptz', id: 'load.id' }, asked)

/** A load with what is counted of it; `undefined` when there is none. */
export const load = (db: Db, id: string) => allLoads(db).where('load.id', '=', id).executeTakeFirst()

export type LoadRow = NonNullable<Awaited<ReturnType<typeof load>>>

/** Names of a production's loads, as they are taken. */
export const loadLabels = async (db: Db, productionId: string): Promise<string[]> =>
  (await db.selectFrom('load').select('label').where('productionId', '=', productionId).execute()).map(
    (row) => row.label,
  )

export type ClipRow = Selectable<Database['mediaFile']>

/** Only decoded frames can show how it is scanned, and they have not been asked. */
const unmeasured = sql<boolean>`coalesce(probe->'video' is not null
  and probe#>'{video,fieldOrder}' is null and probe#>'{video,measuredFields}' is null, false)`

/** How the clips of a load stood at its last scan; without all that was read of them, since they may be very many. */
export const clipsBefore = (db: Db, loadId: string) =>
  db
    .selectFrom('mediaFile')
    .select(['id', 'entryId', 'sizeBytes', 'trouble', 'cut', 'hasPicture', 'pictureMade'])
    .select([sql<number | null>`(probe->>'version')::int`.as('version'), unmeasured.as('unmeasured')])
    .select(sql<boolean>`coalesce(probe->'sequence' is not null, false)`.as('isRun'))
    .where('loadId', '=', loadId)
    .where('onCard', '=', true)
    .execute()

/** Clips of a load whose scan neither the file nor a measurement tells yet. */
export const unmeasuredClips = (db: Db, loadId: string) =>
  db
    .selectFrom('mediaFile')
    .select(['id', 'entryId', 'probe'])
    .where('loadId', '=', loadId)
    .where('shown', '=', true)
    .where(unmeasured)
    .execute()

const CLIP_ORDERS: Record<ClipSort, Omit<ListOrder, 'id'>> = {
  name: { by: 'media_file.sort_path', type: 'text' },
  frame: { by: 'media_file.frame_px', type: 'bigint' },
  rate: { by: 'media_file.rate', type: 'float8' },
  length: { by: 'media_file.seconds', type: 'float8' },
  codec: { by: 'media_file.codec', type: 'text' },
  size: { by: 'media_file.size_bytes', type: 'bigint' },
  recorded: { by: 'media_file.recorded_at', type: 'text' },
}

/** Clips of a production, of one of its loads whole, or those of another one’s load that were given to it. */
export function clipPage(
  db: Db,
  {
    productionId,
    loadId,
    show,
    q,
    sort,
  }: { productionId: string } & Pick<ClipsAsked, 'loadId' | 'show' | 'q' | 'sort'>,
  asked: PageAsked,
) {
  const query = db
    .selectFrom('mediaFile')
    .selectAll()
    .where('shown', '=', true)
    // Of a take in several files the first stands for all.
    .where('goesOn', '=', false)
    .where(
      loadId === null
        ? sql<boolean>`media_file.production_id = ${productionId}`
        : sql<boolean>`media_file.load_id = ${loadId} and (media_file.production_id = ${productionId}
            or ${productionId} = (select production_id from load where load.id = ${loadId}))`,
    )
    .$if(show === 'film', (clips) => clips.where('hasVideo', '=', true))
    .$if(show === 'playable', (clips) => clips.where('playable', '=', true))
    .$if(show === 'wrong', (clips) => clips.where('wrong', '=', true))
    .$if(wordsOf(q).length > 0, (clips) => clips.where(hasWords('mediaFile.name', q)))
  return pageOf(query, { ...CLIP_ORDERS[sort], id: 'media_file.id' }, asked)
}

/** Which media files of a load have the content of another one, by their printable paths; all others have their own. */
export const setSameAs = (db: Db, loadId: string, same: readonly { readonly path: string; readonly as: string }[]) =>
  sql`update media_file file set same_as = first.id
    from media_file now left join jsonb_to_recordset(${JSON.stringify(same)}::jsonb) as s(path text, "as" text) on s.path = now.path_text
      left join media_file first on first.load_id = now.load_id and first.path_text = s."as"
    where file.id = now.id and now.load_id = ${loadId} and file.same_as is distinct from first.id`.execute(db)

/** A picture of a clip was taken. */
export const setPictureMade = (db: Db, id: string) =>
  db.updateTable('mediaFile').set({ pictureMade: true }).where('id', '=', id).execute()

/** What of a load's clips findings are made from. */
export async function scannedClips(db: Db, loadId: string): Promise<ScannedClip[]> {
  const rows = await db
    .selectFrom('mediaFile')
    .select(['pathText as path', 'sizeBytes', 'seconds', 'recordedAt', 'pictureMade', 'trouble', 'hasPicture', 'cut'])
    .select([
      sql<string | null>`probe#>>'{video,cadence,kind}'`.as('cadence'),
      sql<string | null>`coalesce(probe#>>'{video,fieldOrder}', probe#>>'{video,measuredFields,order}')`.as('fields'),
      sql<string | null>`probe#>>'{video,transfer}'`.as('transfer'),
      sql<MissingFrames | null>`probe->'sequence'`.as('sequence'),
      sql<string | null>`(select first.path_text from media_file first where first.id = media_file.same_as)`.as(
        'sameAs',
      ),
    ])
    .where('loadId', '=', loadId)
    .where('shown', '=', true)
    .orderBy('pathText')
    .execute()
  return rows.map(({ cadence, fields, transfer, sequence, sameAs, ...row }) => ({
    ...row,
    ...(sameAs !== null && { sameAs }),
    ...(sequence && { frames: sequence }),
    odd: {
      variable: cadence === 'variable',
      interlaced: fields === 'top first' || fields === 'bottom first',
      curve: transfer === 'smpte2084' ? 'PQ' : transfer === 'arib-std-b67' ? 'HLG' : undefined,
    },
    recordedAt: row.recordedAt || undefined,
    trouble: row.trouble ?? undefined,
    cut: row.cut ?? undefined,
  }))
}

/** A clip with the load, production and path bytes it belongs to. */
export const clip = (db: Db, id: string) =>
  db
    .selectFrom('mediaFile')
    .innerJoin('load', 'load.id', 'mediaFile.loadId')
    .innerJoin('loadEntry', 'loadEntry.id', 'mediaFile.entryId')
    .selectAll('mediaFile')
    .select(['load.label as loadLabel', 'loadEntry.path as pathBytes', 'loadEntry.sizeBytes as entryBytes'])
    .where('mediaFile.id', '=', id)
    .executeTakeFirst()

/** Whether another clip of the load has the same folder and the same name up to its ending. */
export const hasNamesake = async (db: Db, clip: { loadId: string; pathText: string }): Promise<boolean> => {
  const stem = withoutEnding(clip.pathText).toLowerCase()
  const other = await db
    .selectFrom('mediaFile')
    .select('id')
    .where('loadId', '=', clip.loadId)
    // Earlier versions of it have its name, and no place any more.
    .where('pathText', '<>', clip.pathText)
    .where(sql<boolean>`lower(regexp_replace(path_text, '\.[^./]*$', '')) = ${stem}`)
    .executeTakeFirst()
  return other !== undefined
}

/** What lay on the card at the latest scan. */
export const entriesOf = (db: Db, loadId: string) =>
  db
    .selectFrom('loadEntry')
    .selectAll()
    .where('loadId', '=', loadId)
    .where('state', '=', 'on-card')
    .orderBy('path')
    .execute()

export type EntryRow = Awaited<ReturnType<typeof entriesOf>>[number]

/** What was counted of loads' entries at the latest scan, each with the first few paths. */
export async function entryCounts(db: Db, loadIds: readonly string[]): Promise<(EntryCount & { loadId: string })[]> {
  const counts = await db.selectFrom('loadFinding').selectAll().where(anyOf('load_id', loadIds)).execute()
  return counts.map(({ kind, print, ...row }) => ({ ...row, kind: kind as CountedKind, key: print }))
}

/** A card that is scanned for the first time: files and bytes, and how many entries cannot be copied. */
export interface NewLoad {
  readonly productionId: string
  readonly readerId: string
  readonly label: string
  readonly fileCount: number
  readonly sizeBytes: number
  readonly leftOut: number
}

/** Writes a new load down and returns its id. */
export const addLoad = (db: Db, values: NewLoad) =>
  db.insertInto('load').values(values).returning('id').executeTakeFirstOrThrow()

/** What a later scan of a known card counted. */
export const renewLoad = (
  db: Db,
  id: string,
  values: Omit<NewLoad, 'productionId' | 'label'> & { lookDone: boolean; volumeUid: string | null },
) =>
  db
    .updateTable('load')
    .set({ ...values, scannedAt: new Date() })
    .where('id', '=', id)
    .execute()

/**
 * Says which card of the gear book a load lies on, where nobody has said so: the one on which the latest other load of
 * the same file system lay. A format gives a file system another name, so that this is known only until then.
 */
export const knowCardByUid = (db: Db, id: string, volumeUid: string) =>
  sql`update load set card_id = before.card_id, card_by_uid = true
    from (select card_id from load where volume_uid = ${volumeUid} and card_id is not null and id <> ${id}
      order by scanned_at desc limit 1) before
    where load.id = ${id} and load.card_id is null`.execute(db)

/** Everything that a scan found is written down, and what is odd about its clips. */
export const finishScan = (db: Db, id: string, clipFindings: readonly Finding[]) =>
  db
    .updateTable('load')
    .set({ lookDone: true, clipFindings: JSON.stringify(clipFindings) })
    .where('id', '=', id)
    .execute()

/** What was measured of a clip after it was read. */
export const setFacts = (db: Db, clipId: string, facts: MediaFacts) =>
  db
    .updateTable('mediaFile')
    .set({ probe: JSON.stringify(facts) })
    .where('id', '=', clipId)
    .execute()

/** What is odd about a load's clips, worked out anew. */
export const setClipFindings = (db: Db, id: string, clipFindings: readonly Finding[]) =>
  db
    .updateTable('load')
    .set({ clipFindings: JSON.stringify(clipFindings) })
    .where('id', '=', id)
    .execute()

/** So many files are compared at each scan: the largest ones, and as many others. */
const SAMPLED = 6

/** Hashes of the ends of a few files that are still on the card: by these it is known again. */
export const samplesOf = (db: Db, loadId: string) =>
  db
    .selectFrom('loadSample')
    .innerJoin('loadEntry', 'loadEntry.id', 'loadSample.entryId')
    .select([
      'loadEntry.id as entryId',
      'loadEntry.path',
      'loadEntry.pathText',
      'loadEntry.sizeBytes',
      'loadEntry.modifiedMs',
      'loadSample.hash',
    ])
    .where('loadSample.loadId', '=', loadId)
    .where('loadEntry.state', '=', 'on-card')
    .where(
      sql<boolean>`load_sample.entry_id in (
        (select s.entry_id from load_sample s join load_entry e on e.id = s.entry_id
          where s.load_id = ${loadId} and e.state = 'on-card' order by e.size_bytes desc, s.entry_id limit ${SAMPLED})
        union all
        (select s.entry_id from load_sample s where s.load_id = ${loadId} order by s.hash, s.entry_id limit ${SAMPLED}))`,
    )
    .execute()

/** Keeps hashes of the ends of files; of a file that has one already the first stays. */
export async function addSamples(
  db: Db,
  rows: readonly { loadId: string; entryId: number; hash: string }[],
): Promise<void> {
  if (rows.length === 0) return
  await db
    .insertInto('loadSample')
    .values([...rows])
    .onConflict((at) => at.column('entryId').doNothing())
    .execute()
}

/** A media file as it was read at the scan. */
export interface NewClip {
  readonly loadId: string
  readonly productionId: string
  readonly entryId: number
  readonly pathText: string
  readonly name: string
  readonly sizeBytes: number
  readonly probe: MediaFacts | undefined
  readonly trouble: string | undefined
  /** The reading program’s own lines about it. */
  readonly toolLines?: readonly string[]
  readonly cut: string | undefined
  readonly hasPicture: boolean
  readonly pictureMade: boolean
}

/** A media file, or the first of a run of frames. Until all were read it is a take of its own. */
export function putClip(
  db: Db,
  { probe, trouble, toolLines = [], cut, productionId, ...rest }: NewClip,
): Promise<{ id: string }> {
  const values = {
    ...rest,
    probe: probe ? JSON.stringify(probe) : null,
    trouble: trouble ?? null,
    toolLines: JSON.stringify(toolLines),
    cut: cut ?? null,
    proxyBytes: probe ? mostProxyBytes(probe) : 0,
  }
  return db
    .insertInto('mediaFile')
    .values({ ...values, productionId })
    .onConflict((conflict) => conflict.column('entryId').doUpdateSet(values))
    .returning('id')
    .executeTakeFirstOrThrow()
}
