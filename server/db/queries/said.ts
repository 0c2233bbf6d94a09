import { sql } from 'kysely'
import { anyOf } from '../anyOf'
import type { Db } from '../connection'
import type { Database } from '../schema'

/** What a person said, and the answer that stood against it. */
export interface NewSaid {
  readonly kind: Database['said']['kind']
  readonly loadId?: string
  readonly volumeId?: string
  readonly otherVolumeId?: string
  readonly entryId?: number
  /** The backup card that was meant. */
  readonly twinId?: string
  readonly against?: string
  readonly detail?: object
}

/** What a person said is written down, whatever stands against it. */
export const addSaid = (db: Db, { detail, ...said }: NewSaid) =>
  db
    .insertInto('said')
    .values({ ...said, detail: JSON.stringify(detail ?? {}) })
    .execute()

/** What was answered to questions about loads, oldest first. */
export const answersOf = async (db: Db, loadIds: readonly string[]) =>
  (
    await db
      .selectFrom('said')
      .select(['loadId', 'detail'])
      .where('kind', '=', 'answered')
      .where(anyOf('load_id', loadIds))
      .orderBy('id')
      .execute()
  ).map(({ loadId, detail }) => ({ loadId, ...(detail as { key: string; answer: string | null }) }))

/**
 * The latest time that the cards of loads, and the backup cards of those, were said to be formatted, and it was not
 * taken back.
 */
export const formattedOf = async (db: Db, loadIds: readonly string[]) =>
  (
    await db
      .selectFrom('said')
      .distinctOn(['loadId', 'twinId'])
      .select(['loadId', 'twinId', 'at', 'against', 'kind', sql<string | null>`detail->>'reason'`.as('reason')])
      .where('kind', 'in', ['formatted', 'unformatted'])
      .where(anyOf('load_id', loadIds))
      .orderBy('loadId')
      .orderBy('twinId')
      .orderBy('id', 'desc')
      .execute()
  ).flatMap(({ kind, ...row }) => (kind === 'formatted' ? row : []))

/** Every file that was played from a copy, with how it has lain there since. */
export const playedOf = (db: Db, loadIds: readonly string[]) =>
  db
    .selectFrom('said')
    .innerJoin('copyFile', (join) =>
      join.onRef('copyFile.volumeId', '=', 'said.volumeId').onRef('copyFile.entryId', '=', 'said.entryId'),
    )
    .select([
      'said.loadId',
      'said.volumeId',
      'said.entryId',
      'said.at',
      sql<boolean>`said.detail ? 'preview'`.as('asPreview'),
      'copyFile.placedAt',
      'copyFile.absentAt',
      'copyFile.standing',
    ])
    .where('said.kind', '=', 'spot-played')
    .where(anyOf('said.load_id', loadIds))
    .orderBy('said.id')
    .execute()

/**
 * Files of copies of which the last that was said is that something is wrong with them, and that were not placed anew
 * since.
 */
export const foundWrong = async (db: Db, loadIds: readonly string[]) =>
  (
    await sql<{
      loadId: string
      volumeId: string
      entryId: number
      clipId: string | null
      path: string
      note: string
      readSince: boolean
    }>`
      select last.load_id, last.volume_id, last.entry_id, clip.id as clip_id, load_entry.path_text as path,
        coalesce(last.detail->>'note', '') as note,
        copy_file.proved_at > last.at and copy_file.standing in ('verified', 'memory') as read_since
      from (
        select distinct on (load_id, volume_id, entry_id) * from said
        where kind in ('found-wrong', 'found-whole') and load_id = any(${[...loadIds]}::uuid[])
        order by load_id, volume_id, entry_id, id desc
      ) as last
      join load_entry on load_entry.id = last.entry_id
      join copy_file on copy_file.volume_id = last.volume_id and copy_file.entry_id = last.entry_id
      left join media_file clip on clip.entry_id = last.entry_id
      where last.kind = 'found-wrong' and copy_file.placed_at <= last.at
      order by last.id`.execute(db)
  ).rows

/** What was found wrong is read again by itself: until then it counts for nothing. */
export const doubtCopy = (db: Db, volumeId: string, entryId: number) =>
  db
    .updateTable('copyFile')
    .set({ listed: 'doubted', standing: 'doubted' })
    .where('volumeId', '=', volumeId)
    .where('entryId', '=', entryId)
    .where('standing', 'in', ['verified', 'memory'])
    .execute()

/** Pairs of volumes that were said to be different drives. */
export const saidDifferent = (db: Db) =>
  db.selectFrom('said').select(['volumeId', 'otherVolumeId']).where('kind', '=', 'different-drives').execute()

/** The largest file of a load: what a played mark belongs to when nothing can be played here. */
export const largestEntry = (db: Db, loadId: string) =>
  db
    .selectFrom('loadEntry')
    .select('id')
    .where('loadId', '=', loadId)
    .where('kind', '=', 'file')
    .where('state', '=', 'on-card')
    .orderBy('sizeBytes', 'desc')
    .orderBy('id')
    .limit(1)
    .executeTakeFirst()
