import { sql } from 'kysely'
import type { PageAsked } from '../../../contract/page'
import type { ListFinding } from '../../../core/copies/lists/finding'
import type { ListChecked } from '../../../core/copies/lists/verdict'
import type { Db } from '../connection'
import { pageOf } from '../page'
import type { Database } from '../schema'

export interface NewFinding {
  readonly kind: ListFinding
  readonly pathText: string
  readonly line: number | null
  readonly detail: string
}

/** Keeps what a check by a list found; what an earlier attempt of the task kept gives way. Within a transaction. */
export async function putListCheck(
  db: Db,
  check: { readonly id: string; readonly folder: string; readonly list: string; readonly checked: ListChecked },
  findings: readonly NewFinding[],
): Promise<void> {
  await db.deleteFrom('listCheck').where('id', '=', check.id).execute()
  await db
    .insertInto('listCheck')
    .values({ ...check, checked: JSON.stringify(check.checked) })
    .execute()
  const rows = JSON.stringify(findings.map((one, place) => ({ ...one, place })))
  await sql`
    insert into list_finding (check_id, place, kind, path_text, line, detail)
    select ${check.id}, place, kind, "pathText", line, detail
    from jsonb_to_recordset(${rows}::jsonb)
      as one(place bigint, kind text, "pathText" text, line integer, detail text)`.execute(db)
}

export const listChecks = (db: Db, asked: PageAsked) =>
  pageOf(
    db.selectFrom('listCheck').select(['id', 'folder', 'list', 'checked', 'endedAt']),
    { by: 'endedAt', type: 'timestamptz', id: 'id' },
    asked,
  )

export const isListCheck = async (db: Db, id: string): Promise<boolean> =>
  (await db.selectFrom('listCheck').select('id').where('id', '=', id).executeTakeFirst()) !== undefined

export const listFindings = (db: Db, checkId: string, kind: ListFinding | '', asked: PageAsked) =>
  pageOf(
    db
      .selectFrom('listFinding')
      .select(['id', 'kind', 'pathText', 'line', 'detail'])
      .where('checkId', '=', checkId)
      .$if(kind !== '', (all) => all.where('kind', '=', kind as ListFinding)),
    { by: 'place', type: 'bigint', id: 'id' },
    asked,
  )

/**
 * What was proved of the files of copies on a volume, as folder of the copy, path and xxHash64: every content that was
 * once equal to the card, wherever it was proved.
 */
export const provedContents = (db: Db, volumeId: string) =>
  db
    .selectFrom('mirror')
    .innerJoin('copyFile', 'copyFile.loadId', 'mirror.loadId')
    .innerJoin('loadEntry', 'loadEntry.id', 'copyFile.entryId')
    .innerJoin('proof', 'proof.id', 'copyFile.proofId')
    .select(['mirror.folder', 'loadEntry.path', 'proof.hash'])
    .distinct()
    .where('mirror.volumeId', '=', volumeId)
    .where('loadEntry.state', '!=', 'replaced')
    .where('copyFile.standing', 'in', ['verified', 'memory', 'missing', 'changed', 'doubted'])
    .execute()

export type WrittenListRow = Omit<Database['writtenList'], 'id' | 'writtenAt'>

/** Keeps the lists that a task wrote; those of an earlier attempt give way. Within a transaction. */
export async function putWrittenLists(db: Db, taskId: string, lists: readonly WrittenListRow[]): Promise<void> {
  await db.deleteFrom('writtenList').where('taskId', '=', taskId).execute()
  if (lists.length > 0)
    await db
      .insertInto('writtenList')
      .values([...lists])
      .execute()
}

export const writtenLists = (db: Db, asked: PageAsked) =>
  pageOf(
    db
      .selectFrom('writtenList')
      .select(['id', 'folder', 'algorithm', 'lines', 'path', 'name', 'checkedIn', 'writtenAt']),
    { by: 'writtenAt', type: 'timestamptz', id: 'id' },
    asked,
  )

export const writtenList = (db: Db, id: string) =>
  db.selectFrom('writtenList').select(['taskId', 'algorithm', 'path', 'name']).where('id', '=', id).executeTakeFirst()
