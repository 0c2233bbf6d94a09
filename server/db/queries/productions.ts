import { sql } from 'kysely'
import { productionFolder } from '../../../core/units/fileTitle'
import type { NewProduction } from '../../../contract/productions'
import type { PageAsked } from '../../../contract/page'
import { anyOf } from '../anyOf'
import { inTransaction, type Db } from '../connection'
import { pageOf } from '../page'
import { clientNamed } from './locker'
import { versionIn } from './versions'

const withClient = (db: Db) =>
  db
    .selectFrom('production')
    .leftJoin('client', 'client.id', 'production.clientId')
    .selectAll('production')
    .select(versionIn('production').as('version'))
    .select((at) => at.fn.coalesce('client.name', at.val('')).as('client'))

/** Productions that are not put away, the newest first where it is asked for. */
export const productionPage = (db: Db, asked: PageAsked) =>
  pageOf(
    withClient(db).where('production.putAwayAt', 'is', null),
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
export const production = (db: Db, id: string) => withClient(db).where('production.id', '=', id).executeTakeFirst()

export type ProductionRow = NonNullable<Awaited<ReturnType<typeof production>>>

/**
 * `undefined` when another production has that folder: the database decides, so that two at once cannot both have it.
 */
export const addProduction = (
  db: Db,
  { title, client, shootOn, timeZone }: Partial<NewProduction> & { title: string },
) =>
  inTransaction(db, async (tx) =>
    tx
      .insertInto('production')
      .values({
        title,
        clientId: await clientNamed(tx, client ?? ''),
        shootOn: shootOn || null,
        folder: productionFolder(title),
        timeZone: timeZone || Intl.DateTimeFormat().resolvedOptions().timeZone,
      })
      .onConflict((at) => at.doNothing())
      .returningAll()
      .executeTakeFirst(),
  )

/** Changes title, client and day; the folder keeps its name. `undefined` when there is none. */
export const changeProduction = (
  db: Db,
  id: string,
  { title, client, shootOn }: Pick<NewProduction, 'title' | 'client' | 'shootOn'>,
) =>
  inTransaction(db, async (tx) =>
    tx
      .updateTable('production')
      .set({ title, clientId: await clientNamed(tx, client), shootOn: shootOn || null })
      .where('id', '=', id)
      .returning('id')
      .executeTakeFirst(),
  )

/** Titles of productions, by their ids. */
export const titlesOf = async (db: Db, ids: readonly string[]): Promise<ReadonlyMap<string, string>> =>
  new Map(
    (await db.selectFrom('production').select(['id', 'title']).where(anyOf('id', ids)).execute()).map((row) => [
      row.id,
      row.title,
    ]),
  )
