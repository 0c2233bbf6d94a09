import { sql } from 'kysely'
import { fileTitle } from '../../../core/units/fileTitle'
import type { NewProduction } from '../../../contract/productions'
import type { PageAsked } from '../../../contract/page'
import type { Db } from '../connection'
import { pageOf } from '../page'

/** Productions, the newest first where it is asked for. */
export const productionPage = (db: Db, asked: PageAsked) =>
  pageOf(
    db.selectFrom('production').selectAll(),
    { by: 'production.created_at', type: 'timestamptz', id: 'production.id' },
    asked,
  )

/** The production whose folder has that name, in whatever case. */
export const productionIn = (db: Db, folder: string) =>
  db
    .selectFrom('production')
    .selectAll()
    .where(sql<boolean>`lower(folder) = ${folder.toLowerCase()}`)
    .executeTakeFirst()

/** A production; `undefined` when there is none. */
export const production = (db: Db, id: string) =>
  db.selectFrom('production').selectAll().where('id', '=', id).executeTakeFirst()

export type ProductionRow = NonNullable<Awaited<ReturnType<typeof production>>>

/** `undefined` when another production has that folder: the database decides, so that two at once cannot both have it. */
export const addProduction = (
  db: Db,
  { title, client, shootOn, timeZone }: Partial<NewProduction> & { title: string },
) =>
  db
    .insertInto('production')
    .values({
      title,
      client: client ?? '',
      shootOn: shootOn || null,
      folder: fileTitle(title),
      timeZone: timeZone || Intl.DateTimeFormat().resolvedOptions().timeZone,
    })
    .onConflict((at) => at.doNothing())
    .returningAll()
    .executeTakeFirst()
