import { sql } from 'kysely'
import type { Db } from '../connection'

/** Rows that people edit; the day of a production stands in two tables, the rules of planning among the settings. */
export type EditedRow =
  | 'camera'
  | 'recording_mode'
  | 'card'
  | 'client'
  | 'site'
  | 'reader'
  | 'volume'
  | 'production'
  | 'clear_rule'
  | 'shot'
  | 'day'
  | 'rules'

/**
 * Another text whenever a row was written. Source: PostgreSQL, 5.5 System Columns: `xmin` is the transaction that wrote
 * it.
 */
export const versionIn = (table: Exclude<EditedRow, 'day' | 'rules'> | 'day_sheet' | 'setting') =>
  sql<string>`${sql.table(table)}.xmin::text`

/** The version of a row now; `undefined` when there is none. */
export async function versionOf(db: Db, row: EditedRow, id: string): Promise<string | undefined> {
  if (row === 'day') return dayVersion(db, id)
  if (row === 'rules') return rulesVersion(db)
  const { rows } = await sql<{ version: string }>`
    select ${versionIn(row)} as version from ${sql.table(row)} where id = ${id}`.execute(db)
  return rows[0]?.version
}

/** Of how carefully recordings are planned: nothing is written until somebody changes it. */
export async function rulesVersion(db: Db): Promise<string> {
  const { rows } = await sql<{ version: string }>`
    select ${versionIn('setting')} as version from setting where key = 'planning'`.execute(db)
  return rows[0]?.version ?? 'usual'
}

/** Of the day of a production: its date and zone stand with the production, the rest on a sheet of its own. */
export async function dayVersion(db: Db, productionId: string): Promise<string | undefined> {
  const { rows } = await sql<{ version: string }>`
    select ${versionIn('production')} || '-' || coalesce(${versionIn('day_sheet')}, '') as version
    from production left join day_sheet on day_sheet.production_id = production.id
    where production.id = ${productionId}`.execute(db)
  return rows[0]?.version
}
