import { sql } from 'kysely'
import { USUAL_TEMPLATE, type SortSettings } from '../../../core/cards/review/sorted'
import { inTransaction, type Db } from '../connection'
import { takeVerdict } from './review'

const USUAL: SortSettings = { template: USUAL_TEMPLATE, aRoll: [], which: 'keep', links: 'reflink', editBegun: false }

/** How a production is sorted, and on which volume; the usual folders until somebody chose others. */
export async function sortedView(
  db: Db,
  productionId: string,
): Promise<{ volumeId: string | null; settings: SortSettings }> {
  const row = await db.selectFrom('sortedView').selectAll().where('productionId', '=', productionId).executeTakeFirst()
  return { volumeId: row?.volumeId ?? null, settings: { ...USUAL, ...row?.settings } }
}

/** Keeps how a production is sorted. */
export async function putSortedView(
  db: Db,
  productionId: string,
  { volumeId, settings }: { volumeId: string | null; settings: SortSettings },
): Promise<void> {
  const values = { volumeId, settings: JSON.stringify(settings) }
  await db
    .insertInto('sortedView')
    .values({ productionId, ...values })
    .onConflict((at) => at.column('productionId').doUpdateSet(values))
    .execute()
}

/** Takes of a production that a view may hold, by their first files, as they were filmed, with what decides where. */
export const sortableClips = (db: Db, productionId: string, which: SortSettings['which']) =>
  db
    .selectFrom('take')
    .innerJoin('mediaFile', 'mediaFile.id', 'take.id')
    .innerJoin('load', 'load.id', 'mediaFile.loadId')
    .leftJoin('review', 'review.mediaFileId', 'mediaFile.id')
    .select(['mediaFile.id', 'mediaFile.loadId', 'mediaFile.hasVideo', 'mediaFile.pictureMade', 'load.label as load'])
    .select(['load.cameraId', 'review.name', 'review.shotId', 'review.folder', takeVerdict.as('verdict')])
    .select(sql<boolean>`coalesce(media_file.probe->'sequence' is not null, false)`.as('isRun'))
    .select('mediaFile.hasPicture')
    .where('mediaFile.productionId', '=', productionId)
    .where('mediaFile.shown', '=', true)
    .where(
      which === 'keep' ? sql<boolean>`${takeVerdict} = 'keep'` : sql<boolean>`${takeVerdict} is distinct from 'reject'`,
    )
    .orderBy('mediaFile.filmedOrder')
    .orderBy('mediaFile.id')
    .execute()

/**
 * Files of those takes that belong into a view, with where a proved copy of each lies: picture or frames, further
 * parts, and sound beside them. A copy on the volume of the view comes first.
 */
export async function sortableFiles(
  db: Db,
  { productionId, volumeId, host }: { productionId: string; volumeId: string; host: string },
) {
  const { rows } = await sql<{
    clipId: string
    entryId: number
    pathText: string
    path: Buffer
    sizeBytes: number
    holder: string | null
    hash: string | null
    folder: string | null
  }>`
    with files as (
      select f.take_id as clip_id, f.entry_id, f.part, f.number,
        case when f.main and f.part > 1 then 1 when f.main or f.role = 'frames' then 0 else 2 end as place
      from media_file first join take_file f on f.take_id = first.id left join media_file own on own.id = f.media_file_id
      where first.production_id = ${productionId} and first.shown and f.role in ('picture', 'sound', 'frames')
        and (not f.main or own.shown)
    )
    select files.clip_id, e.id as entry_id, e.path_text, e.path, e.size_bytes, held.volume_id as holder, held.hash, held.folder
    from files join load_entry e on e.id = files.entry_id
    left join lateral (
      select c.volume_id, p.hash, m.folder
      from copy_file c
      join mirror m on m.load_id = c.load_id and m.volume_id = c.volume_id
      join proof p on p.id = c.proof_id
      join mount on mount.volume_id = c.volume_id and mount.host = ${host} and mount.connected
      where c.entry_id = e.id and c.load_id = e.load_id and c.standing in ('verified', 'memory')
      order by c.volume_id = ${volumeId} desc, c.volume_id limit 1
    ) held on true
    order by files.clip_id, files.place, files.part, files.number, e.path`.execute(db)
  return rows
}

/** What lies in the view of a production on a volume. */
export const placedFiles = (db: Db, productionId: string, volumeId: string) =>
  db
    .selectFrom('sortedFile')
    .selectAll()
    .where('productionId', '=', productionId)
    .where('volumeId', '=', volumeId)
    .execute()

export interface SortedChange {
  readonly runId: string
  readonly productionId: string
  readonly volumeId: string
  readonly kind: 'add' | 'move' | 'remove'
  readonly path: string
  readonly fromPath: string | null
  readonly entryId: number
}

/** A file was placed, moved or taken away: what lies there now, and what was done, together. */
export const putSorted = (
  db: Db,
  change: SortedChange,
  file: { readonly sizeBytes: number; readonly modifiedMs: number } | undefined,
  note = true,
): Promise<void> =>
  inTransaction(db, async (tx) => {
    const { volumeId, path, fromPath, productionId, entryId, kind } = change
    const gone = kind === 'remove' ? path : fromPath
    if (gone !== null)
      await tx.deleteFrom('sortedFile').where('volumeId', '=', volumeId).where('path', '=', gone).execute()
    if (file)
      await tx
        .insertInto('sortedFile')
        .values({ volumeId, path, productionId, entryId, ...file })
        .onConflict((at) => at.columns(['volumeId', 'path']).doUpdateSet({ productionId, entryId, ...file }))
        .execute()
    if (note) await tx.insertInto('sortedChange').values(change).execute()
  })

/** The changes of the latest run of a production that was not undone, the last one first. */
export async function lastChanges(db: Db, productionId: string) {
  const latest = await db
    .selectFrom('sortedChange')
    .select(['runId', 'volumeId', 'at'])
    .where('productionId', '=', productionId)
    .where('undone', '=', false)
    .orderBy('id', 'desc')
    .limit(1)
    .executeTakeFirst()
  if (!latest) return undefined
  const changes = await db
    .selectFrom('sortedChange')
    .selectAll()
    .where('productionId', '=', productionId)
    .where('runId', '=', latest.runId)
    .where('undone', '=', false)
    .orderBy('id', 'desc')
    .execute()
  return { ...latest, changes }
}

/** A change is taken back. */
export const undone = (db: Db, id: number) =>
  db.updateTable('sortedChange').set({ undone: true }).where('id', '=', id).execute()

/** Puts clips of a production into a folder by hand, or leaves them to the rules. */
export const putByHand = (
  db: Db,
  productionId: string,
  clipIds: readonly string[],
  folder: string | null,
): Promise<void> =>
  inTransaction(db, async (tx) => {
    const own = await tx
      .selectFrom('mediaFile')
      .select('id')
      .where('productionId', '=', productionId)
      .where('id', 'in', [...clipIds])
      .execute()
    for (const { id } of own)
      await tx
        .insertInto('review')
        .values({ mediaFileId: id, verdict: null, note: '', shotId: null, folder })
        .onConflict((at) => at.column('mediaFileId').doUpdateSet({ folder }))
        .execute()
  })

/** Bytes of a file of a card. */
export const entryBytes = async (db: Db, entryId: number): Promise<number> =>
  (await db.selectFrom('loadEntry').select('sizeBytes').where('id', '=', entryId).executeTakeFirst())?.sizeBytes ?? 0

/** One file of the view. */
export const placedFile = (db: Db, volumeId: string, path: string) =>
  db.selectFrom('sortedFile').selectAll().where('volumeId', '=', volumeId).where('path', '=', path).executeTakeFirst()

/** Cameras that filmed a production, and loads of which nobody knows the camera, by name. */
export async function cameraNames(db: Db, productionId: string): Promise<{ id: string; name: string }[]> {
  const rows = await db
    .selectFrom('load')
    .leftJoin('camera', 'camera.id', 'load.cameraId')
    .select(['load.id as loadId', 'load.label', 'load.cameraId', 'camera.name'])
    .innerJoin('loadSummary', 'loadSummary.loadId', 'load.id')
    .where('loadSummary.productionId', '=', productionId)
    .where('loadSummary.clips', '>', 0)
    .orderBy('load.createdAt')
    .execute()
  const named = rows.map(({ loadId, label, cameraId, name }) => ({ id: cameraId ?? loadId, name: name ?? label }))
  return [...new Map(named.map((one) => [one.id, one])).values()]
}

/** A file of the view is no longer there. */
export const forgetPlaced = (db: Db, volumeId: string, path: string) =>
  db.deleteFrom('sortedFile').where('volumeId', '=', volumeId).where('path', '=', path).execute()
