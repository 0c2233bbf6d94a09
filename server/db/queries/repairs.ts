import { sql } from 'kysely'
import type { AmissFile, GoodCopy } from '../../../core/copies/repair'
import { anyNumberOf } from '../anyOf'
import type { Db } from '../connection'

/** A plan covers at most so many files; what is left is the next one's. */
export const MOST_MENDED = 20_000

/** Files of copies that are not as they were proved, of one load or of all; of a folder that is gone all are. */
export const amissFiles = (db: Db, loadId: string | null): Promise<AmissFile[]> =>
  db
    .selectFrom('mirror')
    .innerJoin('copyFile', (join) =>
      join.onRef('copyFile.loadId', '=', 'mirror.loadId').onRef('copyFile.volumeId', '=', 'mirror.volumeId'),
    )
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .innerJoin('load', 'load.id', 'mirror.loadId')
    .select(['copyFile.entryId', 'copyFile.loadId', 'copyFile.volumeId', 'load.label', 'loadEntry.pathText as path'])
    .select(['loadEntry.sizeBytes', 'proof.difference', 'proof.hash'])
    .select(sql<AmissFile['standing']>`copy_file.standing`.as('standing'))
    .select(sql<boolean>`mirror.mounted <> '[]'`.as('isCovered'))
    .where(sql<boolean>`mirror.files_differ + mirror.files_changed + mirror.files_missing > 0`)
    .where('copyFile.onCard', '=', true)
    .where('copyFile.standing', 'in', ['differs', 'changed', 'missing'])
    .$if(loadId !== null, (query) => query.where('mirror.loadId', '=', loadId))
    .orderBy('copyFile.loadId')
    .orderBy('copyFile.volumeId')
    .orderBy('loadEntry.path')
    .limit(MOST_MENDED)
    .execute()

/** Copies of files that stand as they were proved. */
export const goodCopies = (db: Db, entryIds: readonly number[]): Promise<GoodCopy[]> =>
  db
    .selectFrom('copyFile')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['copyFile.entryId', 'copyFile.volumeId', 'proof.hash'])
    .where(anyNumberOf('copy_file.entry_id', entryIds))
    .where('copyFile.standing', 'in', ['verified', 'memory'])
    .execute()

/** How files of one copy stand now, those of them that are not as they were proved. */
export const stillAmiss = async (
  db: Db,
  volumeId: string,
  entryIds: readonly number[],
): Promise<ReadonlyMap<number, AmissFile['standing']>> => {
  const rows = await db
    .selectFrom('copyFile')
    .select(['entryId', sql<AmissFile['standing']>`standing`.as('standing')])
    .where('volumeId', '=', volumeId)
    .where(anyNumberOf('entry_id', entryIds))
    .where('standing', 'in', ['differs', 'changed', 'missing'])
    .execute()
  return new Map(rows.map((row) => [row.entryId, row.standing]))
}

/** Which of these loads were said to be formatted, and not otherwise since. */
export const formattedLoads = async (db: Db, loadIds: readonly string[]): Promise<ReadonlySet<string>> => {
  const { rows } = await sql<{ loadId: string }>`
    select load_id from (
      select distinct on (load_id) load_id, kind from said
      where load_id = any(${[...loadIds]}::uuid[]) and twin_id is null and kind in ('formatted', 'unformatted') order by load_id, id desc) as last
    where kind = 'formatted'`.execute(db)
  return new Set(rows.map((row) => row.loadId))
}
